"""Renders random bodies in random rooms with POV-Ray, in layers that compose.py puts together.

    python3 render.py OUT --count N --seed S [--held-out] [--size 400] [--workers 2] [--models DIR] [--only FAMILY] [--sunny SHARE]

For each number it writes NNNNN.png parts: `full` (body in its room), `room` (the same without it), `mask` (its
silhouette), and for glass `seen` (what is transparent: 255 where the room shows through whole).
"""
import argparse
import math
import os
import random
import re
import subprocess
import tempfile
from concurrent.futures import ThreadPoolExecutor

import cv2
import numpy as np

from bodies import Maker, make_body, v
from models import catalogue, modelled

FLAT = "texture{pigment{rgb 1} finish{emission 1 ambient 0 diffuse 0}}"


def fill_textures(text, textures, ambient, flat=False):
    if flat:
        text = re.sub(r"@G[\d.]+@", "", text)
        return re.sub(r"@(\d+)@", FLAT, text)
    text = re.sub(r"@G([\d.]+)@", r"interior{ior \1}", text)
    return re.sub(r"@(\d+)@", lambda m: "texture{" + textures[int(m[1])].replace("AMB", f"{ambient:.2f}") + "}", text)


GROUNDS = ["plain", "plain", "plain", "plain", "plain", "plain", "wood", "planks", "marble", "tiles", "cloth", "stripes", "concrete", "spots", "checker", "stone"]
GROUNDS_HELD_OUT = ["plain", "plain", "hexagon", "leopard", "brick", "agate"]


def tint(r, kind=None):
    kind = kind or r.choices(["white", "offwhite", "grey", "black", "colour"], [30, 16, 16, 10, 28])[0]
    if kind == "white":
        b = r.uniform(0.8, 1)
        return [b * r.uniform(0.985, 1), b * r.uniform(0.985, 1), b * r.uniform(0.975, 1)]
    if kind == "offwhite":
        b = r.uniform(0.65, 0.92)
        return [b, b * r.uniform(0.93, 1), b * r.uniform(0.82, 0.98)]
    if kind == "grey":
        b = r.uniform(0.08, 0.6)
        return [b * r.uniform(0.96, 1.04) for _ in range(3)]
    if kind == "black":
        b = r.uniform(0.006, 0.05)
        return [b * r.uniform(0.9, 1.1) for _ in range(3)]
    h, s, b = r.random() * 6, r.uniform(0.2, 0.95), r.uniform(0.15, 0.85)
    return [b * (1 - s * max(0, min(1, abs((h + k) % 6 - 3) - 1))) for k in (0, 2, 4)]


def ground_pigment(r, kind):
    a = tint(r, "colour" if kind not in ("plain",) and r.random() < 0.3 else None)
    if kind == "plain":
        return f"pigment{{rgb {v(*a)}}}"
    warm = [r.uniform(0.15, 0.75)]
    warm += [warm[0] * r.uniform(0.6, 0.95)]
    warm += [warm[1] * r.uniform(0.5, 0.95)]
    if kind in ("wood", "planks"):
        a = warm
    k = r.uniform(0.45, 0.92)
    b = [x * k for x in a] if r.random() < 0.75 else tint(r)
    s = r.uniform(0.15, 0.9)
    turn = f"rotate y*{r.uniform(0, 180):.0f}"
    grain = f"color_map{{[0 rgb {v(*a)}][0.6 rgb {v(*[(x + y) / 2 for x, y in zip(a, b)])}][1 rgb {v(*b)}]}}"
    wood = f"wood turbulence {r.uniform(0.02, 0.12):.2f} {grain} scale {v(0.08 * s + 0.02, 0.08 * s + 0.02, 1)} rotate x*{r.uniform(1, 4):.1f} translate {v(r.uniform(-1, 1), 0.3, 0)}"
    if kind == "wood":
        return f"pigment{{{wood} {turn}}}"
    if kind == "planks":
        gap = [x * 0.25 for x in b]
        w = r.uniform(0.3, 0.9)
        other = f"wood turbulence 0.08 {grain} scale {v(0.05, 0.05, 1)} translate {v(5, 2, 0)} "
        return f"pigment{{gradient x pigment_map{{[0 rgb {v(*gap)}][0.03 rgb {v(*gap)}][0.03 {wood} scale 1.5][0.5 {wood} scale 1.5][0.5 rgb {v(*gap)}][0.53 rgb {v(*gap)}][0.53 {other}][1 {other}]}} scale {w:.2f} {turn}}}"
    if kind == "marble":
        return f"pigment{{marble turbulence {r.uniform(0.3, 1):.2f} {grain} scale {s:.2f} {turn}}}"
    if kind == "tiles":
        gap = [min(1, x * r.uniform(0.4, 1.4)) for x in a]
        t = r.uniform(0.3, 0.9)
        inner = f"granite color_map{{[0 rgb {v(*a)}][1 rgb {v(*[x * 0.9 for x in a])}]}} scale 0.4"
        return f"pigment{{gradient x pigment_map{{[0 rgb {v(*gap)}][0.04 rgb {v(*gap)}][0.04 gradient z pigment_map{{[0 rgb {v(*gap)}][0.04 rgb {v(*gap)}][0.04 {inner}][1 {inner}]}}][1 gradient z pigment_map{{[0 rgb {v(*gap)}][0.04 rgb {v(*gap)}][0.04 {inner}][1 {inner}]}}]}} scale {t:.2f} {turn}}}"
    if kind == "cloth":
        w = r.uniform(0.015, 0.06)
        return f"pigment{{average pigment_map{{[1 gradient x color_map{{[0 rgb {v(*a)}][0.5 rgb {v(*b)}][1 rgb {v(*a)}]}} scale {w:.3f}][1 gradient z color_map{{[0 rgb {v(*a)}][0.5 rgb {v(*b)}][1 rgb {v(*a)}]}} scale {w:.3f}][0.6 bozo color_map{{[0 rgb {v(*a)}][1 rgb {v(*b)}]}} scale 0.4]}} {turn}}}"
    if kind == "stripes":
        return f"pigment{{gradient x color_map{{[0 rgb {v(*a)}][0.5 rgb {v(*a)}][0.5 rgb {v(*b)}][1 rgb {v(*b)}]}} scale {s * 0.5:.3f} {turn}}}"
    if kind == "checker":
        return f"pigment{{checker rgb {v(*a)} rgb {v(*b)} scale {s * 0.5:.3f} {turn} translate y*0.01}}"
    if kind == "hexagon":
        return f"pigment{{hexagon rgb {v(*a)} rgb {v(*b)} rgb {v(*[(x + y) / 2 for x, y in zip(a, b)])} scale {s * 0.5:.3f} translate y*0.01}}"
    if kind == "brick":
        return f"pigment{{brick rgb {v(*b)} rgb {v(*a)} scale {0.03 + 0.05 * s:.3f} rotate x*90 {turn} translate y*0.01}}"
    name = {"concrete": "granite", "spots": "spotted", "stone": "crackle", "leopard": "leopard", "agate": "agate"}[kind]
    t = "turbulence 0.3" if kind == "agate" else ""
    if kind == "concrete":
        b = [x * r.uniform(0.75, 0.95) for x in a]
    return f"pigment{{{name} {t} color_map{{[0 rgb {v(*a)}][{r.uniform(0.2, 0.6):.2f} rgb {v(*b)}][1 rgb {v(*a)}]}} scale {s * 0.6:.3f} {turn}}}"


def make_scene(seed, held_out=False, size=400, make=make_body, sunny=0.3):
    """Scene text with {BODY}; returns a dict of the passes to render."""
    r = random.Random(seed)
    n = r.choices([1, 2, 3, 4], [86, 7, 4, 3])[0]
    family, first = make(r, held_out)
    bodies = [first]
    for _ in range(n - 1):
        bodies.append(make(r, held_out)[1] if r.random() < 0.6 else first)
    flat = all(b.flat for b in bodies) or (n == 1 and r.random() < 0.06)
    glass = any(b.glass for b in bodies)
    amb = r.uniform(0.06, 0.35)

    # Each body's place; several stand side by side without touching much.
    placed, x = [], 0.0
    colour_parts, flat_parts = [], []
    for k, b in enumerate(bodies):
        yaw = r.uniform(-180, 180)
        s = 1 if n == 1 else r.uniform(0.6, 1)
        lean = ""
        if n == 1 and not b.flat and r.random() < 0.05:
            lean = f"translate y*{-b.height / 2:.3f} rotate z*{r.uniform(60, 100):.0f} translate y*{b.radius * 0.9:.3f}"
        x0 = x + b.radius * s if k else 0.0
        where = f"rotate y*{yaw:.1f} {lean} scale {s:.3f} translate {v(x0, 0, r.uniform(-0.4, 0.4) if k else 0)}"
        colour_parts.append(f"object{{{fill_textures(b.text, b.textures, amb)} {where}}}")
        flat_parts.append(f"object{{{fill_textures(b.text, b.textures, amb, True)} {where}}}")
        placed.append((x0, b.radius * s, b.height * s))
        x = x0 + b.radius * s * r.uniform(0.9, 1.15)
    left = min(p[0] - p[1] for p in placed)
    right = max(p[0] + p[1] for p in placed)
    height = max(p[2] for p in placed)
    cx, half = (left + right) / 2, (right - left) / 2
    depth = max(p[1] for p in placed)

    elev = r.uniform(50, 90) if flat else min(75, abs(r.gauss(14, 13)) + 2)
    e = math.radians(elev)
    fov = r.uniform(14, 42)
    fill = r.uniform(0.5, 0.94)
    hw, hh = half, height / 2 * math.cos(e) + depth * math.sin(e)
    dist = max(hw, hh) / (math.tan(math.radians(fov) / 2) * fill) + depth * 0.6
    cy = height / 2
    cam = (cx + r.uniform(-0.1, 0.1), cy + dist * math.sin(e), -dist * math.cos(e))
    camera = f"camera{{location {v(*cam)} right x up y direction z angle {fov:.2f} look_at {v(cx + r.uniform(-0.1, 0.1) * half, cy + r.uniform(-0.1, 0.1) * height, 0)} rotate y*0}}"

    kinds = GROUNDS_HELD_OUT if held_out else GROUNDS
    kind = r.choice(kinds)
    gp = ground_pigment(r, kind)
    refl = r.choices([0, r.uniform(0.03, 0.12), r.uniform(0.12, 0.35)], [72, 18, 10])[0]
    gf = f"finish{{ambient {amb:.2f} diffuse 0.75 reflection {{0 {refl:.2f}}}}}" if refl else f"finish{{ambient {amb:.2f} diffuse 0.75}}"
    gn = f"normal{{{r.choice(['bumps', 'granite', 'wrinkles'])} {r.uniform(0.05, 0.4):.2f} scale {r.uniform(0.02, 0.3):.2f}}}" if r.random() < 0.25 else ""
    gt = f"texture{{{gp} {gf} {gn}}}"
    back = r.choices(["sweep", "wall", "endless"], [45, 35, 20])[0]
    z0 = depth + r.uniform(0.3, 4)
    if back == "sweep":
        q = r.uniform(0.4, 2)
        room = f"plane{{y,0 {gt}}} difference{{box{{<-90,0,{z0:.2f}>,<90,{q:.2f},{z0 + q:.2f}>}} cylinder{{<-91,{q:.2f},{z0:.2f}>,<91,{q:.2f},{z0:.2f}>,{q:.2f}}} {gt}}} plane{{-z,{-(z0 + q):.2f} {gt}}}"
    elif back == "wall":
        same = r.random() < 0.35
        wp = gt if same else f"texture{{{ground_pigment(r, r.choice(kinds))} rotate x*90 finish{{ambient {amb:.2f} diffuse 0.75}}}}"
        room = f"plane{{y,0 {gt}}} plane{{-z,{-z0:.2f} {wp}}}"
    else:
        room = f"plane{{y,0 {gt}}}"
    top, low = tint(r), tint(r)
    sky = f"sky_sphere{{pigment{{gradient y color_map{{[0 rgb {v(*low)}][1 rgb {v(*top)}]}}}}}}"

    az, el = r.uniform(-150, 150), r.uniform(18, 80)
    ld = 12
    lp = (cx + ld * math.cos(math.radians(el)) * math.sin(math.radians(az)), ld * math.sin(math.radians(el)), -ld * math.cos(math.radians(el)) * math.cos(math.radians(az)))
    power = r.uniform(0.7, 1.25)
    warmth = r.uniform(-0.15, 0.15)
    lc = (power * (1 + warmth), power, power * (1 - warmth))
    sun = r.random() < sunny
    soft = r.uniform(1.5, 7)
    area = "" if sun else f"area_light x*{soft:.1f},z*{soft:.1f},3,3 adaptive 0 jitter circular orient"
    lights = f"light_source{{{v(*lp)} rgb {v(*lc)} {area}}}"
    for _ in range(r.randint(0, 2)):
        f = r.uniform(0.08, 0.4)
        lights += f"light_source{{{v(r.uniform(-12, 12), r.uniform(3, 12), -12)} rgb {f:.2f} shadowless}}"
    boxes = ""
    for _ in range(r.randint(0, 3)):
        boxes += f"box{{{v(-1, -1, 0)},{v(1, 1, 0.1)} scale {v(r.uniform(0.6, 3), r.uniform(0.6, 4), 1)} translate z*9 rotate x*{r.uniform(-60, -5):.0f} rotate y*{r.uniform(0, 360):.0f} pigment{{rgb 1}} finish{{emission {r.uniform(0.6, 1.6):.2f} ambient 0 diffuse 0}} no_image no_shadow}}"

    head = f"#version 3.7; global_settings{{assumed_gamma 1 max_trace_level 5 ambient_light rgb 1}} {camera}"
    body = "union{" + "".join(colour_parts) + "}"
    passes = {
        "full": f"{head} {sky} {room} {lights} {boxes} {body}",
        "room": f"{head} {sky} {room} {lights} {boxes}",
        "mask": f"{head} background{{rgb 0}} union{{{''.join(flat_parts)}}}",
    }
    if glass:
        lift = "sphere{0,400 hollow pigment{rgb 1} finish{emission %s ambient 0 diffuse 0}}"
        dark = body
        passes["lit"] = f"{head} {lift % 1} {dark}"
        passes["unlit"] = f"{head} {lift % 0} {dark}"
    return passes, {"family": family, "ground": kind, "glass": glass}


def povray(text, size, aa, folder, name, seconds=12):
    src, out = os.path.join(folder, name + ".pov"), os.path.join(folder, name + ".png")
    with open(src, "w") as f:
        f.write(text)
    flags = ["+A0.3", "+AM2", "+R2"] if aa else ["-A"]
    try:
        subprocess.run(["povray", "+I" + src, "+O" + out, f"+W{size}", f"+H{size}", "-D", "+FN8", "+WT1", "-GA", *flags], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, timeout=seconds)
    except subprocess.TimeoutExpired:
        return None
    return cv2.imread(out) if os.path.exists(out) else None


def to_linear(x):
    x = x.astype(np.float32) / 255
    return np.where(x <= 0.04045, x / 12.92, ((x + 0.055) / 1.055) ** 2.4)


def render(seed, out, held_out, size, make=make_body, sunny=0.3):
    stem = os.path.join(out, f"{seed:06d}")
    if os.path.exists(stem + ".full.png"):
        return True
    passes, meta = make_scene(seed, held_out, size, make, sunny)
    with tempfile.TemporaryDirectory() as tmp:
        layers = {}
        for name, text in passes.items():
            layers[name] = povray(text, size, name in ("full", "mask", "lit"), tmp, name)
            if layers[name] is None:
                return False
    mask = layers["mask"][:, :, 1]
    share = float((mask > 127).mean())
    if share < 0.004 or share > 0.92:
        return False
    if "lit" in layers:
        seen = np.clip((to_linear(layers["lit"]) - to_linear(layers["unlit"])).mean(2), 0, 1)
        cv2.imwrite(stem + ".seen.png", (seen * 255 * (mask > 8)).astype(np.uint8))
    cv2.imwrite(stem + ".room.jpg", layers["room"], [cv2.IMWRITE_JPEG_QUALITY, 96])
    cv2.imwrite(stem + ".mask.png", mask)
    with open(stem + ".txt", "w") as f:
        f.write(f"{meta['family']} {meta['ground']} {'glass' if meta['glass'] else 'solid'}")
    cv2.imwrite(stem + ".full.png", layers["full"])
    return True


if __name__ == "__main__":
    p = argparse.ArgumentParser(description=__doc__)
    p.add_argument("out")
    p.add_argument("--count", type=int, default=3000)
    p.add_argument("--seed", type=int, default=0)
    p.add_argument("--held-out", action="store_true")
    p.add_argument("--size", type=int, default=300)
    p.add_argument("--workers", type=int, default=2)
    p.add_argument("--models", help="a folder of furniture libraries: most bodies are theirs")
    p.add_argument("--only", help="family names, with commas")
    p.add_argument("--sunny", type=float, default=0.3, help="share of rooms lit by a sun: hard shadows")
    a = p.parse_args()
    os.makedirs(a.out, exist_ok=True)
    only = a.only.split(",") if a.only else None
    items = catalogue(a.models) if a.models else []
    pictures = tempfile.mkdtemp()

    def make(rnd, held_out):
        if items and rnd.random() < 0.8:
            for _ in range(5):
                maker = Maker(rnd, rnd.choices(["any", "white", "black", "hue", "brown"], [50, 20, 10, 12, 8])[0])
                body = modelled(maker, rnd.choice(items), pictures)
                if body:
                    return "model", body
        return make_body(rnd, held_out, only)

    with ThreadPoolExecutor(a.workers) as pool:
        done = sum(pool.map(lambda s: render(s, a.out, a.held_out, a.size, make, a.sunny), range(a.seed, a.seed + a.count)))
    print(f"{done} of {a.count} rendered")
