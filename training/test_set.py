"""Makes photos with true mattes for evaluation: python3 test_set.py OUT --count N --seed S [--size 800] [--workers 2] [--glass]

Bodies and grounds are those that training never sees (HELD_OUT in bodies.py, GROUNDS_HELD_OUT in render.py); a file
is called KIND-SEED.jpg, its matte KIND-SEED.matte.png, and clear glass is fractional in it.
"""
import argparse
import os
import tempfile
from concurrent.futures import ThreadPoolExecutor

import cv2
import numpy as np

from bodies import HELD_OUT_GLASS, make_body
from render import make_scene, povray, to_linear


def one(seed, out, size, glass=False):
    make = (lambda rnd, held_out: make_body(rnd, held_out, HELD_OUT_GLASS)) if glass else make_body
    passes, meta = make_scene(seed, True, size, make)
    rnd = np.random.RandomState(seed)
    with tempfile.TemporaryDirectory() as tmp:
        layers = {}
        for name, text in passes.items():
            if name == "room":
                continue
            layers[name] = povray(text, size, True, tmp, name, 90)
            if layers[name] is None:
                return False
    matte = layers["mask"][:, :, 1].astype(np.float32) / 255
    if not 0.008 < matte.mean() < 0.85:
        return False
    kind = ("glass-" if meta["glass"] else "") + f"{meta['family']}-on-{meta['ground']}"
    if meta["glass"]:
        matte *= 1 - np.clip((to_linear(layers["lit"]) - to_linear(layers["unlit"])).mean(2), 0, 1)
    full = layers["full"].astype(np.float32)
    full = np.clip(full + rnd.uniform(0.3, 3.5) * rnd.randn(*full.shape), 0, 255)
    cut = int(size * rnd.uniform(0, 0.2)) // 2  # photos are seldom square
    rows = slice(cut, size - cut) if matte[:cut].max(initial=0) < 0.1 and matte[size - cut :].max(initial=0) < 0.1 else slice(0, size)
    stem = os.path.join(out, f"{kind}-{seed}")
    cv2.imwrite(stem + ".jpg", full[rows].astype(np.uint8), [cv2.IMWRITE_JPEG_QUALITY, int(rnd.randint(72, 96))])
    cv2.imwrite(stem + ".matte.png", (matte[rows] * 255 + 0.5).astype(np.uint8))
    return True


if __name__ == "__main__":
    p = argparse.ArgumentParser(description=__doc__)
    p.add_argument("out")
    p.add_argument("--count", type=int, default=240)
    p.add_argument("--seed", type=int, default=900000)
    p.add_argument("--size", type=int, default=800)
    p.add_argument("--workers", type=int, default=2)
    p.add_argument("--glass", action="store_true", help="things of glass alone")
    a = p.parse_args()
    os.makedirs(a.out, exist_ok=True)
    with ThreadPoolExecutor(a.workers) as pool:
        done = sum(pool.map(lambda s: one(s, a.out, a.size, a.glass), range(a.seed, a.seed + a.count)))
    print(f"{done} of {a.count} made")
