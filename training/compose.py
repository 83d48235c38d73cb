"""Puts training pictures together from rendered bodies, drawn bodies and grounds.

    python3 compose.py OUT.npy --bodies DIR [--pictures DIR] [--sprites DIR] --count N --seed S [--size 256]

OUT is one 8-bit array (N, S, S, 5): RGB, `shape`, the coverage of the thing, and `seen`,
how far the ground shows through it (0 for what is solid). `--pictures` is a folder of photographs that serve as
grounds and as textures, `--sprites` one of icons with alpha; both may be left out.
"""
import argparse
import glob
import math
import os
import random

import cv2
import numpy as np

cv2.setNumThreads(1)


def load_names(folder):
    return sorted(f[: -len(".full.png")] for f in glob.glob(os.path.join(folder, "*.full.png")))


class Library:
    """Everything a picture is made of, read once."""

    def __init__(self, bodies, pictures=None, sprites=None, limit=None):
        self.names = load_names(bodies)[:limit]
        self.photos = []
        for f in sorted(glob.glob(os.path.join(pictures, "**", "*.*"), recursive=True)) if pictures else []:
            p = cv2.imread(f)
            if p is not None and min(p.shape[:2]) > 300:
                k = 1100 / max(p.shape[:2])
                self.photos.append(cv2.resize(p, None, fx=min(1, k), fy=min(1, k), interpolation=cv2.INTER_AREA))
        self.sprites = []
        for f in sorted(glob.glob(os.path.join(sprites, "**", "*.png"), recursive=True)) if sprites else []:
            p = cv2.imread(f, cv2.IMREAD_UNCHANGED)
            if p is not None and p.ndim == 3 and p.shape[2] == 4 and min(p.shape[:2]) >= 96:
                if (p[:, :, 3] > 200).mean() > 0.03:
                    self.sprites.append(p)


def srgb(x):
    return np.where(x <= 0.0031308, x * 12.92, 1.055 * np.power(np.maximum(x, 1e-6), 1 / 2.4) - 0.055)


class Composer:
    def __init__(self, library, seed, size):
        self.lib, self.size = library, size
        self.r = random.Random(seed)
        self.n = np.random.RandomState(seed % (2**31))
        ys, xs = np.mgrid[0:size, 0:size].astype(np.float32) / (size - 1) * 2 - 1
        self.xs, self.ys = xs, ys

    def u(self, a, b):
        return self.r.uniform(a, b)

    def chance(self, p):
        return self.r.random() < p

    # ---- grounds -------------------------------------------------------------------------------------------

    def tint(self):
        r = self.r
        kind = r.choices(["white", "offwhite", "grey", "black", "colour"], [32, 18, 17, 10, 23])[0]
        if kind == "white":
            b = r.uniform(0.86, 1.02)
            return np.array([b * r.uniform(0.97, 1), b * r.uniform(0.985, 1), b])
        if kind == "offwhite":
            b = r.uniform(0.7, 0.95)
            return np.array([b * r.uniform(0.82, 1), b * r.uniform(0.93, 1), b])
        if kind == "grey":
            return np.full(3, r.uniform(0.2, 0.75)) * [r.uniform(0.94, 1.06) for _ in range(3)]
        if kind == "black":
            return np.full(3, r.uniform(0.01, 0.2)) * [r.uniform(0.9, 1.1) for _ in range(3)]
        h, s, b = r.randint(0, 179), r.uniform(0.2, 0.95), r.uniform(0.3, 0.95)
        return cv2.cvtColor(np.uint8([[[h, s * 255, b * 255]]]), cv2.COLOR_HSV2BGR)[0, 0] / 255.0

    def plain(self):
        """A sweep: one colour with gradients, perhaps a horizon line, a pool of light, a fold."""
        c = self.tint()
        g = np.zeros((self.size, self.size, 3), np.float32) + c
        amp = self.u(0, 0.35) if self.chance(0.75) else 0
        a = self.u(0, 6.28)
        shade = 1 - amp * (0.5 + 0.5 * (self.xs * math.cos(a) + self.ys * math.sin(a)))
        if self.chance(0.35):
            cx, cy, k = self.u(-0.7, 0.7), self.u(-0.7, 0.7), self.u(0.05, 0.35)
            shade = shade * (1 - k * np.minimum(1.5, (self.xs - cx) ** 2 + (self.ys - cy) ** 2))
        g *= shade[..., None]
        if self.chance(0.3):
            y0, tilt, soft = self.u(-0.8, 0.5), self.u(-0.1, 0.1), self.r.choice([0.004, 0.02, 0.1, 0.3])
            t = 1 / (1 + np.exp(-np.clip((self.ys - y0 - tilt * self.xs) / soft, -20, 20)))
            d = self.tint() if self.chance(0.4) else c * self.u(0.75, 1.2)
            g = g * (1 - t[..., None]) + g / np.maximum(c, 0.01) * d * t[..., None]
        if self.chance(0.3):
            noise = cv2.resize(self.n.randn(self.size // self.r.choice([2, 4, 8, 16]) + 2, self.size // 4 + 2).astype(np.float32), (self.size, self.size), interpolation=cv2.INTER_CUBIC)
            g *= (1 + self.u(0.01, 0.08) * noise)[..., None]
        return np.clip(g, 0, 1)

    def photo(self, zoomed=None):
        p = self.r.choice(self.lib.photos)
        h, w = p.shape[:2]
        k = self.u(0.25, 0.6) if zoomed else self.u(0.5, 1)
        s = int(min(h, w) * k)
        y, x = self.r.randint(0, h - s), self.r.randint(0, w - s)
        c = cv2.resize(p[y : y + s, x : x + s], (self.size, self.size), interpolation=cv2.INTER_AREA).astype(np.float32) / 255
        if self.chance(0.5):
            c = c[:, ::-1]
        return c

    def room(self):
        stem = self.r.choice(self.lib.names)
        p = cv2.imread(stem + ".room.jpg").astype(np.float32) / 255
        if self.chance(0.4):
            k = self.u(0.5, 1)
            s = int(p.shape[0] * k)
            y, x = self.r.randint(0, p.shape[0] - s), self.r.randint(0, p.shape[0] - s)
            p = p[y : y + s, x : x + s]
        return self.jitter(cv2.resize(p, (self.size, self.size), interpolation=cv2.INTER_AREA), 0.4)

    def planks(self):
        """Boards, tiles and weaves in perspective, drawn."""
        s = self.size
        t = 384
        c = np.clip(self.tint(), 0.08, 0.95)
        tex = np.zeros((t, t, 3), np.float32) + c
        kind = self.r.choice(["boards", "tiles", "weave", "check", "photo"])
        if kind == "photo" and self.lib.photos:
            tex = cv2.resize(self.photo(True), (t, t))
        grain = cv2.resize(self.n.randn(t // 3, 12).astype(np.float32), (t, t), interpolation=cv2.INTER_LINEAR)
        fine = cv2.resize(self.n.randn(t, t // 24).astype(np.float32), (t, t), interpolation=cv2.INTER_LINEAR)
        if kind in ("boards", "tiles"):
            tex *= 1 + self.u(0.02, 0.15) * (grain if kind == "boards" else cv2.resize(self.n.randn(60, 60).astype(np.float32), (t, t)))[..., None] + self.u(0, 0.08) * fine[..., None]
            step = self.r.randint(24, 120)
            line = self.u(0.3, 0.85)
            for y in range(self.r.randint(0, step), t, step):
                tex[max(0, y - step) : y] *= self.u(0.8, 1.15)
                cv2.line(tex, (0, y), (t, y), (c * line).tolist(), self.r.randint(1, 3))
                if kind == "tiles":
                    cv2.line(tex, (y, 0), (y, t), (c * line).tolist(), self.r.randint(1, 3))
        elif kind == "weave":
            k = self.u(0.15, 1.2)
            i = np.arange(t)
            w = 0.5 + 0.5 * np.sin(i * k)
            tex *= (1 - self.u(0.1, 0.5) * (w[None] * w[:, None]))[..., None]
        elif kind == "check":
            k = self.r.randint(12, 60)
            i = np.arange(t) // k % 2
            d = self.tint()
            m = ((i[None] + i[:, None]) % 2 if self.chance(0.6) else i[None] * np.ones((t, 1))).astype(np.float32)[..., None]
            tex = tex * (1 - m) + (np.zeros_like(tex) + d) * m
        # Laid out in perspective, or seen from above.
        a = self.u(0, 360)
        rot = cv2.getRotationMatrix2D((t / 2, t / 2), a, 1.5)
        tex = cv2.warpAffine(tex, rot, (t, t), borderMode=cv2.BORDER_REFLECT)
        tilt = self.u(0, 0.42) if self.chance(0.65) else 0
        src = np.float32([[0, 0], [t, 0], [t, t], [0, t]])
        y0 = self.u(0, 0.45) * s if tilt > 0.1 and self.chance(0.5) else 0
        dst = np.float32([[s * tilt, y0], [s * (1 - tilt), y0], [s * (1 + tilt), s], [-s * tilt, s]])
        g = cv2.warpPerspective(tex, cv2.getPerspectiveTransform(src, dst), (s, s), flags=cv2.INTER_AREA, borderMode=cv2.BORDER_REFLECT)
        if y0 > 0:
            back = self.plain() if self.chance(0.6) or not self.lib.photos else cv2.GaussianBlur(self.photo(), (0, 0), self.u(1, 8))
            g[: int(y0)] = back[: int(y0)]
        shade = 1 - self.u(0, 0.3) * (self.xs * self.u(-1, 1) + self.ys * self.u(-1, 1))
        return np.clip(g * shade[..., None], 0, 1)

    def ground(self):
        kinds = ["plain", "room", "planks"] + (["photo", "blurred"] if self.lib.photos else [])
        kind = self.r.choices(kinds, [42, 22, 18] + ([5, 13] if self.lib.photos else []))[0]
        if kind == "blurred":
            p = self.photo()
            b = cv2.GaussianBlur(p, (0, 0), self.u(2, 12) * self.size / 256)
            if self.chance(0.6):  # a table in focus before it
                y0 = self.u(0.1, 0.6)
                t = 1 / (1 + np.exp(-np.clip((self.ys - y0) / self.u(0.004, 0.05), -20, 20)))[..., None]
                b = b * (1 - t) + (self.plain() if self.chance(0.5) else self.planks()) * t
            return b
        return {"plain": self.plain, "room": self.room, "planks": self.planks, "photo": self.photo}[kind]()

    # ---- bodies --------------------------------------------------------------------------------------------

    def rendered(self, stem=None):
        """Premultiplied colours, coverage, shade ratio and what is seen through, of one rendered body."""
        stem = stem or self.r.choice(self.lib.names)
        full = cv2.imread(stem + ".full.png").astype(np.float32) / 255
        room = cv2.imread(stem + ".room.jpg").astype(np.float32) / 255
        mask = cv2.imread(stem + ".mask.png", 0).astype(np.float32) / 255
        seen = np.zeros_like(mask)
        if os.path.exists(stem + ".seen.png"):
            seen = cv2.imread(stem + ".seen.png", 0).astype(np.float32) / 255
        ratio = np.clip((full.mean(2) + 0.02) / (room.mean(2) + 0.02), 0.05, 1.1)
        free = (mask < 0.02).astype(np.float32)
        ratio = cv2.GaussianBlur(ratio * free, (0, 0), 3) / (cv2.GaussianBlur(free, (0, 0), 3) + 1e-3) * (1 - free) + ratio * free
        ratio = np.where(np.isfinite(ratio) & (ratio > 0.02), ratio, 1).astype(np.float32)
        alpha = np.clip(mask * (1 - seen), 0, 1)
        front = np.clip(full - (1 - alpha)[..., None] * room * ratio[..., None], 0, 1)
        return front, mask, ratio, seen

    def outline(self, s):
        """A drawn silhouette with openings, 0..1."""
        m = np.zeros((s, s), np.float32)
        r = self.r
        c = s // 2
        kind = r.choice(["blob", "turned", "boxes", "lattice", "fibres", "ring", "leaves", "rods", "holes", "polygon"])
        if kind in ("blob", "holes"):
            pts = []
            ks = [(self.u(-0.3, 0.3) / k, self.u(-0.3, 0.3) / k) for k in range(1, 8)]
            for i in range(90):
                a = 2 * math.pi * i / 90
                q = 0.34 + sum(p * math.cos((k + 1) * a) + w * math.sin((k + 1) * a) for k, (p, w) in enumerate(ks)) * 0.35
                q = min(0.49, max(0.06, q))
                pts.append((c + s * q * math.cos(a), c + s * q * math.sin(a)))
            cv2.fillPoly(m, [np.int32(np.array(pts) * 16)], 1, cv2.LINE_AA, 4)
        elif kind == "turned":
            n = 40
            w, pts = self.u(0.1, 0.4), []
            for i in range(n):
                w = min(0.46, max(0.03, w + self.u(-0.03, 0.03) + (self.u(-0.15, 0.15) if self.chance(0.08) else 0)))
                pts.append((w * s, s * (0.05 + 0.9 * i / n)))
            poly = [(c + x, y) for x, y in pts] + [(c - x, y) for x, y in reversed(pts)]
            cv2.fillPoly(m, [np.int32(np.array(poly) * 16)], 1, cv2.LINE_AA, 4)
            if self.chance(0.4):
                cv2.ellipse(m, (int(c + pts[20][0]), c), (int(s * 0.09), int(s * self.u(0.1, 0.25))), 0, 0, 360, 1, r.randint(3, 14), cv2.LINE_AA)
        elif kind == "boxes":
            for _ in range(r.randint(1, 5)):
                box = cv2.boxPoints(((c + self.u(-0.15, 0.15) * s, c + self.u(-0.2, 0.2) * s), (self.u(0.08, 0.6) * s, self.u(0.08, 0.7) * s), self.u(-12, 12) if self.chance(0.7) else self.u(0, 90)))
                cv2.fillPoly(m, [np.int32(box * 16)], 1, cv2.LINE_AA, 4)
        elif kind == "lattice":
            step, t = r.randint(8, 50), r.randint(1, 6)
            for k in range(int(s * 0.1), int(s * 0.9), step):
                cv2.line(m, (k, int(s * 0.1)), (k, int(s * 0.9)), 1, t, cv2.LINE_AA)
                cv2.line(m, (int(s * 0.1), k), (int(s * 0.9), k), 1, t, cv2.LINE_AA)
            cv2.rectangle(m, (int(s * 0.1), int(s * 0.1)), (int(s * 0.9), int(s * 0.9)), 1, t + 2)
            p = s * 0.5 * np.float32([[-0.9, -0.9], [0.9, -0.9], [0.9, 0.9], [-0.9, 0.9]]) * self.n.uniform(0.35, 1, (4, 2)).astype(np.float32) + c
            q = np.float32([[0, 0], [s, 0], [s, s], [0, s]])
            m = cv2.warpPerspective(m, cv2.getPerspectiveTransform(q, p), (s, s), flags=cv2.INTER_LINEAR)
        elif kind == "fibres":
            x0, y0 = c + self.u(-0.1, 0.1) * s, s * 0.9
            for _ in range(r.randint(15, 160)):
                a = self.u(-0.7, 0.7)
                l = s * self.u(0.5, 0.85)
                cv2.line(m, (int(x0 + a * 0.2 * s), int(y0)), (int(x0 + math.sin(a) * l), int(y0 - math.cos(a) * l)), 1, r.randint(1, 2), cv2.LINE_AA)
            cv2.ellipse(m, (int(x0), int(y0 - s * 0.05)), (int(s * 0.16), int(s * 0.1)), 0, 0, 360, 1, -1, cv2.LINE_AA)
        elif kind == "ring":
            for _ in range(r.randint(1, 4)):
                cv2.ellipse(m, (int(c + self.u(-0.15, 0.15) * s), int(c + self.u(-0.15, 0.15) * s)), (int(s * self.u(0.1, 0.32)), int(s * self.u(0.1, 0.32))), self.u(0, 180), 0, 360, 1, r.randint(2, 34), cv2.LINE_AA)
        elif kind == "leaves":
            for _ in range(r.randint(3, 22)):
                a, l, w = self.u(0, 360), s * self.u(0.08, 0.3), s * self.u(0.015, 0.08)
                d = self.u(0.02, 0.3) * s
                x, y = c + math.cos(math.radians(a)) * d, c + math.sin(math.radians(a)) * d
                cv2.ellipse(m, (int(x), int(y)), (int(l), int(max(2, w))), a + self.u(-25, 25), 0, 360, 1, -1, cv2.LINE_AA)
                cv2.line(m, (c, c), (int(x), int(y)), 1, 2, cv2.LINE_AA)
            cv2.line(m, (c, c), (int(c + self.u(-0.1, 0.1) * s), int(s * 0.95)), 1, r.randint(2, 8), cv2.LINE_AA)
        elif kind == "rods":
            p = (self.u(0.2, 0.8) * s, self.u(0.2, 0.8) * s)
            for _ in range(r.randint(1, 6)):
                q = (self.u(0.08, 0.92) * s, self.u(0.08, 0.92) * s)
                cv2.line(m, tuple(map(int, p)), tuple(map(int, q)), 1, r.randint(2, 26), cv2.LINE_AA)
                p = q
        else:
            k = r.randint(3, 9)
            a = sorted(self.u(0, 6.28) for _ in range(k))
            pts = [(c + s * self.u(0.2, 0.47) * math.cos(x), c + s * self.u(0.2, 0.47) * math.sin(x)) for x in a]
            cv2.fillPoly(m, [np.int32(np.array(pts) * 16)], 1, cv2.LINE_AA, 4)
        if kind == "holes" or self.chance(0.15):
            for _ in range(r.choice([1, 1, 2, 3, 20, 60])):
                cv2.ellipse(m, (int(c + self.u(-0.3, 0.3) * s), int(c + self.u(-0.3, 0.3) * s)), (int(s * self.u(0.01, 0.1)), int(s * self.u(0.01, 0.1))), self.u(0, 180), 0, 360, 0, -1, cv2.LINE_AA)
        return m

    def texture(self, s):
        c = self.tint()
        t = np.zeros((s, s, 3), np.float32) + c
        kind = self.r.choice(["solid", "solid", "photo", "noise", "bands", "patch"])
        if kind == "photo" and self.lib.photos:
            t = cv2.resize(self.photo(True), (s, s))
            if self.chance(0.5):
                t = t * 0.6 + c * 0.4
        elif kind == "noise":
            k = self.r.choice([4, 12, 40])
            n = cv2.resize(self.n.rand(k, k, 1).astype(np.float32), (s, s), interpolation=cv2.INTER_CUBIC).reshape(s, s, 1)
            t = t * (1 - n) + self.tint() * n
        elif kind in ("bands", "patch"):
            for _ in range(self.r.randint(1, 6)):
                a, b = self.r.randint(0, s), self.r.randint(4, s // 3)
                if kind == "bands":
                    t[a : a + b] = self.tint()
                else:
                    x = self.r.randint(0, s)
                    t[a : a + b, x : x + self.r.randint(4, s // 2)] = self.tint()
        return np.clip(t, 0, 1).astype(np.float32)

    def drawn(self):
        """A drawn silhouette, shaded as if inflated."""
        s = 320
        m = self.outline(s)
        t = self.texture(s)
        d = cv2.distanceTransform((m > 0.5).astype(np.uint8), cv2.DIST_L2, 3)
        if self.chance(0.75):
            reach = self.u(4, 60)
            z = np.sqrt(np.clip(1 - (1 - np.minimum(1, d / reach)) ** 2, 0, 1)) * reach
            z = cv2.GaussianBlur(z, (0, 0), 2)
            gx, gy = cv2.Sobel(z, cv2.CV_32F, 1, 0, ksize=3) / 8, cv2.Sobel(z, cv2.CV_32F, 0, 1, ksize=3) / 8
            nz = 1 / np.sqrt(1 + gx * gx + gy * gy)
            lx, ly = self.u(-0.8, 0.8), self.u(-0.9, 0.3)
            lz = math.sqrt(max(0.1, 1 - lx * lx - ly * ly))
            lit = np.clip((-gx * lx - gy * ly + lz) * nz, 0, 1.4)
            k = self.u(0.3, 0.9)
            t = t * (1 - k + k * lit)[..., None]
            if self.chance(0.4):
                t = t + (self.u(0.2, 0.8) * np.clip(lit, 0, 1) ** self.r.randint(12, 60))[..., None]
        t = np.clip(t, 0, 1)
        return t * m[..., None], m, None, np.zeros_like(m)

    def sprite(self):
        p = self.r.choice(self.lib.sprites).astype(np.float32) / 255
        a = p[:, :, 3]
        k = min(1.0, 300 / max(a.shape))
        p = cv2.resize(p, None, fx=k, fy=k, interpolation=cv2.INTER_AREA)
        h, w = p.shape[:2]
        s = max(h, w) + 12
        out = np.zeros((s, s, 4), np.float32)
        out[(s - h) // 2 : (s - h) // 2 + h, (s - w) // 2 : (s - w) // 2 + w] = p
        return out[:, :, :3] * out[:, :, 3:], out[:, :, 3], None, np.zeros_like(out[:, :, 3])

    # ---- together ------------------------------------------------------------------------------------------

    def jitter(self, x, p=0.5):
        if not self.chance(p):
            return x
        x = np.clip(x, 0, 1) ** self.u(0.7, 1.4)
        return np.clip(x * np.float32([self.u(0.8, 1.15) for _ in range(3)]), 0, 1)

    def place(self, body, fill=None):
        """The body somewhere on the canvas: (front, shape, ratio, seen) at the canvas' size."""
        front, shape, ratio, seen = body
        s, k = self.size, shape.shape[0]
        ys, xs = np.where(shape > 0.3)
        if not len(ys):
            return None
        x0, x1, y0, y1 = xs.min(), xs.max() + 1, ys.min(), ys.max() + 1
        extent = max(x1 - x0, y1 - y0)
        fill = fill or (self.u(0.45, 0.95) if self.chance(0.8) else self.u(0.18, 1.15))
        scale = min(fill * s / extent, 1.3 * s / 256)
        angle = 0 if ratio is not None and self.chance(0.8) else self.r.gauss(0, 6 if ratio is not None else 30)
        m = cv2.getRotationMatrix2D(((x0 + x1) / 2, (y0 + y1) / 2), angle, scale)
        room = max(0.0, s - extent * scale)
        tx = s / 2 + self.u(-0.5, 0.5) * room * self.u(0, 1.05)
        ty = s / 2 + self.u(-0.5, 0.5) * room * self.u(0, 1.05)
        m[0, 2] += tx - (x0 + x1) / 2
        m[1, 2] += ty - (y0 + y1) / 2
        if self.chance(0.5):
            m[0] *= -1
            m[0, 2] += s
        if scale < 0.55:  # area average before a strong reduction
            f = cv2.GaussianBlur
            sig = 0.35 / scale
            front, shape, seen = f(front, (0, 0), sig), f(shape, (0, 0), sig), f(seen, (0, 0), sig)
        w = lambda a, b: cv2.warpAffine(a, m, (s, s), flags=cv2.INTER_LINEAR, borderMode=cv2.BORDER_CONSTANT, borderValue=b)
        out_ratio = cv2.warpAffine(ratio, m, (s, s), flags=cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE) if ratio is not None else None
        return w(front, 0), w(shape, 0), out_ratio, w(seen, 0)

    def cast(self, shape):
        """A made-up shadow: soft beside, sheared along the ground, or both."""
        s = self.size
        out = np.ones((s, s), np.float32)
        if self.chance(0.25):
            return out
        if self.chance(0.7):
            dx, dy, b = self.u(-0.05, 0.05) * s, self.u(0, 0.06) * s, self.u(0.004, 0.06) * s
            sh = cv2.GaussianBlur(cv2.warpAffine(shape, np.float32([[1, 0, dx], [0, 1, dy]]), (s, s)), (0, 0), b + 0.3)
            out *= 1 - self.u(0.1, 0.75) * sh
        if self.chance(0.5):
            ys = np.where(shape.max(1) > 0.3)[0]
            if len(ys):
                foot, k, sy = ys.max(), self.u(-1.2, 1.2), self.u(0.1, 0.6)
                m = np.float32([[1, -k * -1, -k * foot], [0, sy, foot * (1 - sy)]])
                sh = cv2.warpAffine(shape, m, (s, s))
                if self.chance(0.7):
                    sh = cv2.GaussianBlur(sh, (0, 0), self.u(0.5, 6) * s / 256)
                out *= 1 - self.u(0.15, 0.7) * sh
        return out

    def body(self):
        kinds = ["rendered", "drawn"] + (["sprite"] if self.lib.sprites else [])
        kind = self.r.choices(kinds, [64, 18] + ([18] if self.lib.sprites else []))[0]
        return getattr(self, kind)()

    def picture(self):
        """One picture: BGR 0..1, shape and seen."""
        s = self.size
        if self.chance(0.02):
            return self.finish(self.ground(), np.zeros((s, s), np.float32), np.zeros((s, s), np.float32))
        if self.chance(0.22):  # a render as it is: reflections and refraction belong to their room
            stem = self.r.choice(self.lib.names)
            full = cv2.imread(stem + ".full.png").astype(np.float32) / 255
            mask = cv2.imread(stem + ".mask.png", 0).astype(np.float32) / 255
            seen = cv2.imread(stem + ".seen.png", 0).astype(np.float32) / 255 if os.path.exists(stem + ".seen.png") else np.zeros_like(mask)
            f = lambda a: cv2.resize(a, (s, s), interpolation=cv2.INTER_AREA if s < a.shape[0] else cv2.INTER_LINEAR)
            full, mask, seen = f(full), f(mask), f(seen)
            if self.chance(0.5):
                full, mask, seen = full[:, ::-1], mask[:, ::-1], seen[:, ::-1]
            return self.finish(full, mask, seen)
        g = self.ground()
        if self.chance(0.14):  # things behind, out of focus
            for _ in range(self.r.randint(1, 4)):
                p = self.place(self.body(), self.u(0.2, 0.7))
                if p is None:
                    continue
                b = self.u(3, 12) * s / 256
                a = cv2.GaussianBlur(p[1] * (1 - p[3]), (0, 0), b)[..., None]
                g = g * (1 - a) + cv2.GaussianBlur(p[0], (0, 0), b)
        n = self.r.choices([1, 2, 3], [93, 5, 2])[0]
        shape, seen = np.zeros((s, s), np.float32), np.zeros((s, s), np.float32)
        first = self.body()
        for k in range(n):
            p = self.place(first if k == 0 or self.chance(0.5) else self.body(), None if n == 1 else self.u(0.25, 0.5))
            if p is None:
                continue
            front, sh, ratio, se = p
            if n > 1 and (sh * shape).sum() > 0.1 * sh.sum():
                continue
            ratio = self.cast(sh) if ratio is None or self.chance(0.15) else ratio
            if self.chance(0.25):
                ratio = 1 - (1 - ratio) * self.u(0, 1)
            al = (sh * (1 - se))[..., None]
            front = self.recolour(front, al, g)
            g = g * ratio[..., None] * (1 - al) + front
            seen = np.where(sh > shape, se, seen)
            shape = np.maximum(shape, sh)
        return self.finish(g, shape, seen)

    def recolour(self, front, al, ground):
        """Other colours for a body; in a third of the cases nearly the ground's own."""
        if self.chance(0.35):
            return front
        total = al.sum() + 1e-3
        mean = front.sum((0, 1)) / total
        own = front / np.maximum(al, 1e-3)
        if self.chance(0.38):
            near = cv2.GaussianBlur(al[..., 0], (0, 0), self.size / 12)
            want = (ground * near[..., None]).sum((0, 1)) / (near.sum() + 1e-3) * self.u(0.82, 1.15) + self.n.uniform(-0.03, 0.03, 3)
            keep = self.u(0.25, 1)
            own = want + (own - mean) * keep
        else:
            own = np.clip(own, 0, 1) ** self.u(0.6, 1.6) * np.float32([self.u(0.6, 1.25) for _ in range(3)])
            if self.chance(0.3):
                own = own[..., self.r.choice([[0, 1, 2], [2, 1, 0], [1, 0, 2], [0, 2, 1], [1, 2, 0], [2, 0, 1]])]
        return np.clip(own, 0, 1) * al

    def finish(self, g, shape, seen):
        s = self.size
        if self.chance(0.4):
            g = np.clip(g, 0, 1) ** self.u(0.75, 1.3) * np.float32([self.u(0.88, 1.12) for _ in range(3)]) * self.u(0.8, 1.15)
        if self.chance(0.3):
            g = g * (1 - self.u(0, 0.3) * (self.xs**2 + self.ys**2) / 2)[..., None]
        if self.chance(0.35):
            g = cv2.GaussianBlur(np.ascontiguousarray(g, np.float32), (0, 0), self.u(0.3, 0.9) * s / 256)
        if self.chance(0.7):
            k = self.u(0.002, 0.022)
            g = g + k * self.n.randn(s, s, 3)
        g = (np.clip(g, 0, 1) * 255).astype(np.uint8)
        if self.chance(0.6):
            g = cv2.imdecode(cv2.imencode(".jpg", g, [cv2.IMWRITE_JPEG_QUALITY, self.r.randint(45, 95)])[1], 1)
        return g[:, :, ::-1], np.clip(shape * 255 + 0.5, 0, 255).astype(np.uint8), np.clip(seen * 255 + 0.5, 0, 255).astype(np.uint8)


if __name__ == "__main__":
    p = argparse.ArgumentParser(description=__doc__)
    p.add_argument("out")
    p.add_argument("--bodies", required=True)
    p.add_argument("--pictures")
    p.add_argument("--sprites")
    p.add_argument("--count", type=int, default=8000)
    p.add_argument("--seed", type=int, default=1)
    p.add_argument("--size", type=int, default=256)
    a = p.parse_args()
    lib = Library(a.bodies, a.pictures, a.sprites)
    c = Composer(lib, a.seed, a.size)
    pictures = np.lib.format.open_memmap(a.out, "w+", np.uint8, (a.count, a.size, a.size, 5))
    for i in range(a.count):
        x, m, t = c.picture()
        pictures[i, ..., :3], pictures[i, ..., 3], pictures[i, ..., 4] = x, m, t
    print(f"{a.count} pictures of {len(lib.names)} bodies, {len(lib.photos)} photographs, {len(lib.sprites)} sprites")
