"""Fits how the log-odds of model, colour and taught colour are added: logistic regression on pixels of pictures that the
segmentation model was not trained on.

    npm run bench -- odds data/calibration > pixels.csv
    python3 odds.py pixels.csv ../packages/core/cutout/model/odds.ts
"""
import sys

import numpy as np

if __name__ == "__main__":
    lines = [line for line in open(sys.argv[1]) if line.count(",") == 4 and " " not in line]
    rows = np.array([[float(v) for v in line.split(",")] for line in lines])
    model, colour, taught, truth, weight = rows.T
    x = np.column_stack([np.ones(len(rows)), model, colour, taught])
    b = np.zeros(4)
    for _ in range(60):  # Newton's method
        p = 1 / (1 + np.exp(-x @ b))
        h = x.T @ (x * (weight * p * (1 - p) + 1e-9)[:, None]) + 1e-3 * np.eye(4)
        b += np.linalg.solve(h, x.T @ (weight * (truth - p)))
    alone = np.average((1 / (1 + np.exp(-model)) - truth) ** 2, weights=weight)
    print(f"{len(rows)} pixels; squared error of the model alone {alone:.4f}, of all three {np.average((p - truth) ** 2, weights=weight):.4f}")
    with open(sys.argv[2], "w") as f:
        f.write("/** Written by `training/odds.py`; see there. */\n")
        f.write(f"export const ODDS_WEIGHTS = {{ intercept: {b[0]:.3f}, model: {b[1]:.3f}, colour: {b[2]:.3f}, taught: {b[3]:.3f} }};\n")
