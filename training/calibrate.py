"""Fits the confidence of automatic cutouts on pictures that the segmentation model was not trained on.

    npm run bench -- measures data/calibration > measures.jsonl
    python3 calibrate.py measures.jsonl ../packages/core/cutout/model/confidence.ts

Logistic regression with an L2 penalty on the measures of `core/cutout/confidence.ts`, on two thirds of the pictures;
then isotonic regression (pool adjacent violators) of what it says against what was right, with every picture judged
by a regression that has not seen it. The highest step is held below 1 (Krichevsky and Trofimov 1981: half a picture is
added to either side), and below what is called sure where fewer than 40 pictures speak for it.
"""
import json
import sys

import numpy as np

NAMES = ["looksDiffer", "outlineDiffers", "doubt", "doubtOffEdge", "faintEdge", "onBorder", "small", "parts", "likelyWrong"]
# Measures are taken as logarithms from these floors on: most crowd near 0.
FLOORS = np.array([0.02, 0.004, 0.02, 0.004, 0.02, 0.02, 0.2, 0.2, 0.001])


# From this on a cutout is said to look right; so many pictures must speak for it.
SURE, FEWEST = 0.9, 40


def fit(x, y, penalty=0.02, rounds=4000, rate=0.3):
    """Weights of a logistic regression that may only lower the odds: every measure speaks against a cutout."""
    mean, scale = x.mean(0), x.std(0) + 1e-6
    z = (x - mean) / scale
    w, b = np.zeros(x.shape[1]), 0.0
    for _ in range(rounds):
        p = 1 / (1 + np.exp(-(z @ w + b)))
        w = np.minimum(0, w - rate * (z.T @ (p - y) / len(y) + penalty * w))
        b -= rate * (p - y).mean()
    return w / scale, b - (w / scale) @ mean


def isotonic(p, y):
    """Non-decreasing steps through (p, y), as lists of places and values."""
    order = np.argsort(p)
    blocks = [[p[i], p[i], float(y[i]), 1] for i in order]
    merged = []
    for block in blocks:
        merged.append(block)
        while len(merged) > 1 and merged[-2][2] / merged[-2][3] >= merged[-1][2] / merged[-1][3]:
            b = merged.pop()
            a = merged.pop()
            merged.append([a[0], b[1], a[2] + b[2], a[3] + b[3]])
    places, values = [0.0], []
    for low, high, right, n in merged:
        share = (right + 0.5) / (n + 1)
        if n < FEWEST:  # a few that happened to be right are no proof
            share = min(share, SURE - 0.01)
        places += [low, high]
        values += [share, share]
    values = list(np.maximum.accumulate(values))
    return places + [1.0], [values[0]] + values + [values[-1]]


if __name__ == "__main__":
    rows = [json.loads(line) for line in open(sys.argv[1]) if line.startswith("{")]
    rows = [r for r in rows if r["measures"]]
    x = np.log(np.array([[r["measures"][n] for n in NAMES] for r in rows]) + FLOORS)
    y = np.array([1.0 if r["right"] else 0.0 for r in rows])
    folds = np.random.RandomState(7).randint(0, 5, len(y))
    seen_by_none = np.zeros(len(y))
    for k in range(5):
        w, b = fit(x[folds != k], y[folds != k])
        seen_by_none[folds == k] = 1 / (1 + np.exp(-(x[folds == k] @ w + b)))
    w, b = fit(x, y)
    places, values = isotonic(seen_by_none, y)
    weights = ", ".join(f"{n}: {v:.4f}" for n, v in zip(NAMES, w))
    floors = ", ".join(f"{n}: {v}" for n, v in zip(NAMES, FLOORS))
    with open(sys.argv[2], "w") as f:
        f.write("/** Written by `training/calibrate.py`; see there. */\n")
        f.write(f"export const CONFIDENCE = {{\n  intercept: {b:.4f},\n  weights: {{ {weights} }},\n  floors: {{ {floors} }},\n")
        f.write(f"  calibration: {{\n    from: [{', '.join(f'{v:.4f}' for v in places)}],\n    to: [{', '.join(f'{v:.4f}' for v in values)}],\n  }},\n}};\n")
    print(f"{len(y)} pictures, {int(y.sum())} right; said 90 % sure by a fold that had not seen them: {int((seen_by_none >= 0.9).sum())}, of those right {int(y[seen_by_none >= 0.9].sum())}")
