"""Random bodies as POV-Ray text: the things that training pictures are made of.

A body stands on y = 0 around the y axis, at most about 1 unit in radius. Every texture is written as a token
(`@0@`, `@1@` ...) so that the same body can be rendered in its colours, as a white silhouette or with only its
glass parts. Families whose name is in HELD_OUT never enter training: they are what the evaluation is made of.
"""
import math
import random

HELD_OUT = {"kettle", "chair", "spring", "boot", "bouquet", "gridbox", "mallet"}
# Glass things made only for evaluation, asked for by name.
HELD_OUT_GLASS = {"vessel"}
# Made when asked for by name: the others' seeds go on giving the bodies they gave before these were added.
BY_NAME = {"stand", "branch"}


class Body:
    """Text, extent (radius and height in units) and textures of one body."""

    def __init__(self, text, radius, height, textures, glass=False, flat=False):
        self.text, self.radius, self.height = text, radius, height
        self.textures, self.glass, self.flat = textures, glass, flat


def v(*xs):
    return "<" + ",".join(f"{x:.4f}" for x in xs) + ">"


class Maker:
    """Hands out random numbers and textures for one body."""

    def __init__(self, rnd: random.Random, palette):
        self.r = rnd
        self.palette = palette
        self.textures = []

    def u(self, a, b):
        return self.r.uniform(a, b)

    def chance(self, p):
        return self.r.random() < p

    def colour(self):
        r = self.r
        kind = self.palette if self.palette != "any" else r.choice(["hue", "hue", "white", "grey", "black", "brown"])
        if kind == "white":
            b = r.uniform(0.72, 0.95)
            return [min(1, b * r.uniform(0.96, 1.03)) for _ in range(3)]
        if kind == "black":
            b = r.uniform(0.008, 0.05)
            return [b * r.uniform(0.85, 1.2) for _ in range(3)]
        if kind == "grey":
            b = r.uniform(0.08, 0.6)
            return [b * r.uniform(0.93, 1.07) for _ in range(3)]
        if kind == "brown":
            b = r.uniform(0.1, 0.55)
            return [b, b * r.uniform(0.5, 0.85), b * r.uniform(0.2, 0.65)]
        h, s, b = r.random() * 6, r.uniform(0.3, 1), r.uniform(0.15, 0.9)
        f = h - int(h)
        p, q, t = b * (1 - s), b * (1 - s * f), b * (1 - s * (1 - f))
        return [[b, t, p], [q, b, p], [p, b, t], [p, q, b], [t, p, b], [b, p, q]][int(h) % 6]

    def pigment(self, pattern_share=0.45):
        r = self.r
        c = self.colour()
        if not self.chance(pattern_share):
            return f"pigment{{rgb {v(*c)}}}"
        d = [min(1, x * r.uniform(0.35, 1.6)) for x in c] if self.chance(0.65) else self.colour()
        e = [(x + y) / 2 for x, y in zip(c, d)]
        kind = r.choice(["bozo", "granite", "marble", "wood", "gradient y", "gradient x", "spotted", "checker", "crackle", "wrinkles", "agate", "radial", "leopard"])
        s = r.uniform(0.08, 0.6)
        if kind == "checker":
            return f"pigment{{checker rgb {v(*c)} rgb {v(*d)} scale {s * 0.6:.3f}}}"
        extra = "turbulence %.2f " % r.uniform(0, 0.6) if kind not in ("checker",) else ""
        if kind == "radial":
            extra = "frequency %d " % r.randint(4, 24)
        turn = f"rotate {v(r.uniform(0, 90), r.uniform(0, 90), r.uniform(0, 90))}" if kind in ("wood", "marble") else ""
        hard = self.chance(0.35)
        m = f"[0 rgb {v(*c)}][0.5 rgb {v(*c)}][0.5 rgb {v(*d)}][1 rgb {v(*d)}]" if hard else f"[0 rgb {v(*c)}][0.5 rgb {v(*e)}][1 rgb {v(*d)}]"
        return f"pigment{{{kind} {extra}color_map{{{m}}} scale {s:.3f} {turn}}}"

    def tex(self, finish=None, pattern_share=0.45):
        """A texture token. `finish`: matte, satin, gloss, metal, chrome; None for any."""
        r = self.r
        f = finish or r.choices(["matte", "satin", "gloss", "metal", "chrome"], [40, 22, 24, 9, 5])[0]
        p = self.pigment(pattern_share if f in ("matte", "satin", "gloss") else 0.1)
        amb = "ambient AMB "
        if f == "matte":
            t = f"{p} finish{{{amb} diffuse 0.75}}"
        elif f == "satin":
            t = f"{p} finish{{{amb} diffuse 0.7 specular {r.uniform(0.1, 0.4):.2f} roughness {r.uniform(0.02, 0.12):.3f}}}"
        elif f == "gloss":
            t = f"{p} finish{{{amb} diffuse 0.68 specular 0.7 roughness {r.uniform(0.002, 0.02):.4f} reflection{{0.02 {r.uniform(0.12, 0.4):.2f}}}}}"
        elif f == "metal":
            t = f"{p} finish{{ambient 0.05 diffuse 0.35 specular 0.7 roughness {r.uniform(0.01, 0.05):.3f} metallic reflection{{{r.uniform(0.15, 0.45):.2f} metallic}}}}"
        else:
            g = r.uniform(0.75, 0.97)
            t = f"pigment{{rgb {v(g, g * r.uniform(0.92, 1), g * r.uniform(0.75, 1))}}} finish{{ambient 0 diffuse 0.12 specular 0.9 roughness 0.003 metallic reflection{{{r.uniform(0.55, 0.85):.2f} metallic}}}}"
        if f != "chrome" and self.chance(0.2):
            t += f" normal{{{r.choice(['bumps', 'granite', 'wrinkles', 'dents', 'ripples'])} {r.uniform(0.1, 0.6):.2f} scale {r.uniform(0.02, 0.25):.3f}}}"
        return self.put(t)

    def put(self, t):
        self.textures.append(t)
        return f"@{len(self.textures) - 1}@"

    def glass(self):
        r = self.r
        kind = r.choice(["clear", "clear", "frosted", "tinted"])
        if kind == "clear":
            f, dif = r.uniform(0.9, 0.98), 0
            c = [1, 1, 1]
        elif kind == "tinted":
            f, dif = r.uniform(0.75, 0.95), 0.02
            c = [r.uniform(0.35, 1) for _ in range(3)]
        else:
            f, dif = r.uniform(0.35, 0.75), 0.5
            c = [r.uniform(0.85, 1) for _ in range(3)]
        t = f"pigment{{rgbf {v(*c, f)}}} finish{{ambient 0.02 diffuse {dif} specular 0.9 roughness 0.003 reflection{{0.03 {r.uniform(0.3, 0.7):.2f}}}}}"
        return self.put(t) + f"@G{r.uniform(1.03, 1.35):.2f}@"


def profile(m, n, low=0.15, high=1.0):
    """Radii of a turned body from foot to rim: a smooth random walk."""
    kind = m.r.choice(["walk", "bowl", "vase", "straight", "bottle", "cone"])
    ts = [i / (n - 1) for i in range(n)]
    if kind == "bowl":
        k = m.u(0.3, 0.8)
        foot = m.u(0.25, 0.6)
        out = [foot + (1 - foot) * t**k for t in ts]
    elif kind == "vase":
        a, b, p = m.u(0.2, 0.55), m.u(0.2, 0.6), m.u(0.7, 1.3)
        out = [a * (1 - t) + b * t + (1 - max(a, b)) * math.sin(math.pi * t**p) for t in ts]
    elif kind == "straight":
        k = m.u(-0.25, 0.25)
        out = [0.8 + k * (t - 0.5) for t in ts]
    elif kind == "bottle":
        s, w = m.u(0.45, 0.75), m.u(0.15, 0.4)
        out = [1 if t < s else max(w, 1 - (1 - w) * min(1, (t - s) / 0.18)) for t in ts]
    elif kind == "cone":
        a, b = m.u(0.1, 1), m.u(0.15, 1)
        out = [a + (b - a) * t for t in ts]
    else:
        out = [m.u(0.3, 1)]
        for _ in ts[1:]:
            out.append(min(1, max(low, out[-1] + m.u(-0.28, 0.28))))
    top = max(out)
    return [max(low, x / top) * high for x in out]


def lathe(m, radii, height, tex, open_=True, wall=0.05, spline="cubic_spline"):
    """A turned body; open at the top with a wall, or closed."""
    n = len(radii)
    pts = [(r, height * i / (n - 1)) for i, r in enumerate(radii)]
    if open_:
        inner = [(max(0.01, r - wall), max(wall, y)) for r, y in reversed(pts)]
        ring = [(0.0, 0.0)] + pts + inner + [(0.0, wall)]
    else:
        ring = [(0.0, 0.0)] + pts + [(0.0, height)]
    return revolve(ring, tex)


def revolve(ring, tex, cols=36):
    """A mesh of revolution with smooth normals across gentle bends; `ring` is (radius, height) from axis to axis."""
    normals = []
    for a, b in zip(ring, ring[1:]):
        dx, dy = b[0] - a[0], b[1] - a[1]
        l = math.hypot(dx, dy) or 1
        normals.append((dy / l, -dx / l))
    turns = [(math.cos(2 * math.pi * j / cols), math.sin(2 * math.pi * j / cols)) for j in range(cols)]
    verts, norms, faces = [], [], []
    for i, (a, b) in enumerate(zip(ring, ring[1:])):
        if math.dist(a, b) < 1e-5:
            continue
        for p, k in ((a, i - 1), (b, i + 1)):
            n = normals[i]
            if 0 <= k < len(normals) and n[0] * normals[k][0] + n[1] * normals[k][1] > 0.75:
                n = (n[0] + normals[k][0], n[1] + normals[k][1])
            for c, s in turns:
                verts.append(f"<{p[0] * c:.3f},{p[1]:.3f},{p[0] * s:.3f}>")
                norms.append(f"<{n[0] * c:.2f},{n[1]:.2f},{n[0] * s:.2f}>")
        o = len(verts) - 2 * cols
        for j in range(cols):
            q = (j + 1) % cols
            faces.append(f"<{o + j},{o + q},{o + cols + j}>,<{o + q},{o + cols + q},{o + cols + j}>")
    return (f"mesh2{{vertex_vectors{{{len(verts)},{','.join(verts)}}} normal_vectors{{{len(norms)},{','.join(norms)}}} "
            f"face_indices{{{2 * len(faces)},{','.join(faces)}}} inside_vector y {tex}}}")


def smooth_profile(m, n=28):
    coarse = profile(m, m.r.randint(4, 8))
    out = []
    for i in range(n):
        t = i / (n - 1) * (len(coarse) - 1)
        k = min(len(coarse) - 2, int(t))
        f = t - k
        f = f * f * (3 - 2 * f)
        out.append(coarse[k] * (1 - f) + coarse[k + 1] * f)
    return out


def sweep(points, radius, tex, spline="linear_spline"):
    text = ",".join(f"{v(*p)},{radius:.4f}" for p in points)
    return f"sphere_sweep{{{spline} {len(points)},{text} {tex}}}"


def tube(points, radius, tex):
    """A bent rod as cylinders and spheres: quicker to trace than a sweep."""
    parts = []
    for a, b in zip(points, points[1:]):
        if math.dist(a, b) > 1e-4:
            parts.append(f"cylinder{{{v(*a)},{v(*b)},{radius:.4f}}}")
        parts.append(f"sphere{{{v(*b)},{radius:.4f}}}")
    return "union{" + "".join(parts) + tex + "}"


def handle(m, r, y0, y1, tex, thick=None):
    t = thick or m.u(0.03, 0.08)
    reach = m.u(0.25, 0.6)
    pts = []
    for i in range(13):
        a = math.pi * i / 12
        pts.append((r + reach * math.sin(a), y0 + (y1 - y0) * (1 - math.cos(a)) / 2, 0))
    return tube(pts, t, tex)


def turned(m, glass=False):
    h = m.u(0.5, 2.2)
    rad = m.u(0.4, 1)
    radii = [x * rad for x in smooth_profile(m)]
    tex = m.glass() if glass else m.tex()
    open_ = m.chance(0.75)
    parts = [lathe(m, radii, h, tex, open_, m.u(0.02, 0.09) * rad)]
    extent = rad
    if m.chance(0.35):
        i = m.r.randint(8, 16)
        parts.append(handle(m, radii[i] - 0.02, h * m.u(0.15, 0.4), h * m.u(0.6, 0.9), tex if m.chance(0.7) else m.tex()))
        extent = rad + 0.45
    if not open_ and m.chance(0.5):
        parts.append(f"sphere{{<0,{h:.3f},0>,{m.u(0.06, 0.2):.3f} {m.tex()}}}")
    if m.chance(0.3) and not glass:
        y = h * m.u(0.2, 0.7)
        k = int(y / h * 27)
        parts.append(f"cylinder{{<0,{y:.3f},0>,<0,{y + h * m.u(0.05, 0.25):.3f},0>,{max(radii[max(0, k - 4):k + 8]) + 0.006:.3f} open {m.tex()}}}")
    return Body("union{" + "".join(parts) + "}", extent, h, m.textures, glass)


def kettle(m):
    b = turned(m)
    h, r = b.height, b.radius
    spout = [(-0.3 * r, h * 0.25, 0), (-r - 0.15, h * 0.45, 0), (-r - 0.45, h * 0.95, 0)]
    t = m.tex()
    arch = [(math.cos(math.pi * i / 14) * r * 0.8, h * 0.9 + math.sin(math.pi * i / 14) * m.u(0.5, 0.55), 0) for i in range(15)]
    return Body("union{" + b.text + tube(spout, 0.09, t) + tube(arch, 0.05, t) + "}", r + 0.5, h + 0.5, m.textures)


def rounded_box(x, y, z, e, tex, at=(0, 0, 0)):
    e = min(e, x * 0.45, y * 0.45, z * 0.45)
    k = max(0.05, min(1, e / min(x, y, z) * 2))
    if e < 0.01:
        return f"box{{{v(-x / 2, 0, -z / 2)},{v(x / 2, y, z / 2)} {tex} translate {v(*at)}}}"
    return f"superellipsoid{{<{k:.3f},{k:.3f}> scale {v(x / 2, y / 2, z / 2)} translate {v(at[0], at[1] + y / 2, at[2])} {tex}}}"


def boxed(m):
    w, h, d = m.u(0.4, 1.6), m.u(0.15, 2), m.u(0.1, 1.3)
    tex = m.tex()
    text = rounded_box(w, h, d, m.u(0, 0.12) if m.chance(0.6) else 0, tex)
    parts = [text]
    if m.chance(0.4):  # a label on the front
        lw, lh = w * m.u(0.3, 0.85), h * m.u(0.2, 0.8)
        parts.append(f"box{{{v(-lw / 2, h * 0.5 - lh / 2, -d / 2 - 0.004)},{v(lw / 2, h * 0.5 + lh / 2, -d / 2 + 0.02)} {m.tex()}}}")
    if m.chance(0.3):  # a lid
        parts.append(rounded_box(w * 1.04, h * m.u(0.08, 0.2), d * 1.04, 0.02, m.tex(), (0, h, 0)))
    if m.chance(0.3):  # ribbon
        t = m.tex()
        parts.append(f"box{{{v(-0.06, -0.002, -d / 2 - 0.006)},{v(0.06, h + 0.006, d / 2 + 0.006)} {t}}}")
    return Body("union{" + "".join(parts) + "}", math.hypot(w, d) / 2, h * 1.15, m.textures)


def book(m):
    w, h, d = m.u(0.7, 1.3), m.u(1, 1.8), m.u(0.08, 0.4)
    cover, pages = m.tex(), m.put("pigment{gradient z color_map{[0 rgb 0.85][0.5 rgb 0.72][1 rgb 0.85]} scale 0.02} finish{ambient AMB diffuse 0.7}")
    parts = [f"box{{{v(-w / 2 + 0.02, 0.02, -d / 2 + 0.02)},{v(w / 2 - 0.03, h - 0.02, d / 2 - 0.02)} {pages}}}"]
    for z in (-d / 2, d / 2 - 0.02):
        parts.append(f"box{{{v(-w / 2, 0, z)},{v(w / 2, h, z + 0.02)} {cover}}}")
    parts.append(f"box{{{v(-w / 2, 0, -d / 2)},{v(-w / 2 + 0.02, h, d / 2)} {cover}}}")
    for _ in range(m.r.randint(0, 4)):
        y = h * m.u(0.1, 0.85)
        parts.append(f"box{{{v(-w * m.u(0.1, 0.4), y, -d / 2 - 0.004)},{v(w * m.u(0.1, 0.4), y + h * m.u(0.02, 0.2), -d / 2)} {m.tex()}}}")
    n = m.r.choices([1, 3, 5], [7, 2, 1])[0]
    text = "union{" + "".join(parts) + "}"
    if n > 1:
        text = f"union{{object{{{text} rotate x*90 translate y*{d / 2:.3f}}}" + "".join(
            f"object{{{rounded_box(w * m.u(0.8, 1), d * m.u(0.6, 1.1), h * m.u(0.8, 1), 0, m.tex())} rotate y*{m.u(-15, 15):.1f} translate y*{d * (k + 1) * 1.1:.3f}}}" for k in range(n - 1)) + "}"
        return Body(text, h * 0.6, d * 1.2 * n, m.textures)
    return Body(text, w / 2 + d / 2, h, m.textures)


def bag(m):
    """A folded paper bag: a mesh whose top is pinched."""
    w, h, d = m.u(0.7, 1.2), m.u(0.9, 1.9), m.u(0.3, 0.7)
    rows, cols = 12, 24
    pts = []
    pinch = m.u(0.05, 0.9)
    amp = m.u(0.005, 0.03)
    ph = [m.u(0, 6.28) for _ in range(4)]
    for i in range(rows + 1):
        t = i / rows
        dd = d * (1 - (1 - pinch) * max(0, (t - 0.5) / 0.5)) / 2
        ring = []
        for j in range(cols):
            a = j / cols * 4
            k, f = int(a), a - int(a)
            x, z = [(-1 + 2 * f, -1), (1, -1 + 2 * f), (1 - 2 * f, 1), (-1, 1 - 2 * f)][k]
            n = amp * (math.sin(7 * t + ph[0] + 3 * a) + math.sin(13 * t + ph[1] - 5 * a))
            ring.append((x * w / 2 + n * (t > 0), h * t + n * (t > 0.95), z * dd + n * (t > 0)))
        pts.append(ring)
    tex = m.tex("matte" if m.chance(0.7) else "satin", 0.25)
    tris = []
    for i in range(rows):
        for j in range(cols):
            a, b, c, e = pts[i][j], pts[i][(j + 1) % cols], pts[i + 1][j], pts[i + 1][(j + 1) % cols]
            tris.append(f"triangle{{{v(*a)},{v(*b)},{v(*c)}}}triangle{{{v(*b)},{v(*e)},{v(*c)}}}")
    parts = ["mesh{" + "".join(tris) + tex + "}"]
    if m.chance(0.5):
        t2 = m.tex("matte", 0)
        for s in (-1, 1):
            arch = [(math.cos(math.pi * i / 10) * w * 0.22, h - 0.03 + math.sin(math.pi * i / 10) * 0.35, s * d * pinch / 2) for i in range(11)]
            parts.append(tube(arch, 0.018, t2))
        h += 0.33
    return Body("union{" + "".join(parts) + "}", math.hypot(w, d) / 2, h, m.textures)


def wire(m):
    """Baskets, cages, racks and stands of wire."""
    t = m.u(0.008, 0.03)
    tex = m.tex(m.r.choice(["metal", "chrome", "satin", "matte", "gloss"]), 0)
    h, rad = m.u(0.4, 1.6), m.u(0.5, 1)
    parts = []
    kind = m.r.choice(["basket", "basket", "cage", "rack", "box"])
    if kind in ("basket", "cage"):
        radii = [x * rad for x in smooth_profile(m, 9)]
        n = m.r.randint(8, 40)
        for j in range(n):
            a = 2 * math.pi * j / n
            parts.append(tube([(radii[i] * math.cos(a), h * i / 8 + t, radii[i] * math.sin(a)) for i in range(9)], t, ""))
        for k in range(m.r.randint(3, 14)):
            y = k / 13
            i = min(7, int(y * 8))
            r = radii[i] + (radii[i + 1] - radii[i]) * (y * 8 - i)
            parts.append(f"torus{{{r:.3f},{t:.4f} translate y*{h * y + t:.3f}}}")
        parts.append(f"torus{{{radii[8]:.3f},{t * 2:.4f} translate y*{h:.3f}}}")
        if m.chance(0.4):
            parts.append(tube([(math.cos(math.pi * i / 12) * radii[8], h + math.sin(math.pi * i / 12) * m.u(0.5, 0.52), 0) for i in range(13)], t * 1.6, ""))
    else:
        w, d = m.u(0.8, 1.6), m.u(0.3, 1)
        nx, ny, nz = m.r.randint(3, 14), m.r.randint(2, 9), m.r.randint(2, 8)
        for i in range(nx + 1):
            x = -w / 2 + w * i / nx
            parts.append(tube([(x, h, -d / 2), (x, t, -d / 2), (x, t, d / 2), (x, h, d / 2)], t, ""))
        for i in range(nz + 1):
            z = -d / 2 + d * i / nz
            parts.append(tube([(-w / 2, h, z), (-w / 2, t, z), (w / 2, t, z), (w / 2, h, z)], t, ""))
        for i in range(ny + 1):
            y = t + (h - t) * i / ny
            parts.append(tube([(-w / 2, y, -d / 2), (w / 2, y, -d / 2), (w / 2, y, d / 2), (-w / 2, y, d / 2), (-w / 2, y, -d / 2)], t, ""))
        rad = math.hypot(w, d) / 2
    inside = ""
    if m.chance(0.15):
        inside = f"sphere{{<0,{rad * 0.4:.3f},0>,{rad * 0.38:.3f} {m.tex()}}}"
    return Body("union{union{" + "".join(parts) + tex + "}" + inside + "}", rad, h, m.textures)


def spring(m):
    turns, t, rad, h = m.r.randint(4, 11), m.u(0.02, 0.07), m.u(0.3, 0.8), m.u(0.7, 2)
    pts = [(rad * math.cos(a), t + h * i / (turns * 16), rad * math.sin(a)) for i in range(turns * 16 + 1) for a in [2 * math.pi * i / 16]]
    return Body(tube(pts, t, m.tex(pattern_share=0.1)), rad, h, m.textures)


def perforated(m):
    """A turned shell with rows of round holes: shades, colanders, lanterns."""
    h, rad = m.u(0.6, 1.5), m.u(0.5, 1)
    top = m.u(0.4, 1.1)
    rows, cols = m.r.randint(2, 8), m.r.randint(8, 26)
    hole = min(h / rows, 2 * math.pi * rad * min(1, top) / cols) * m.u(0.22, 0.42)
    cuts = []
    for i in range(rows):
        for j in range(cols):
            if m.chance(0.03):
                continue
            a = 360 / cols * (j + 0.5 * (i % 2))
            y = h * (i + 0.7) / (rows + 0.4)
            cuts.append(f"cylinder{{<0,{y:.3f},0>,<2,{y:.3f},0>,{hole:.4f} rotate y*{a:.2f}}}")
    tex = m.tex()
    text = f"difference{{cone{{<0,0,0>,{rad:.3f},<0,{h:.3f},0>,{rad * top:.3f}}} cone{{<0,-0.01,0>,{rad - 0.03:.3f},<0,{h + 0.01:.3f},0>,{rad * top - 0.03:.3f}}} union{{{''.join(cuts)}}} {tex}}}"
    parts = [text]
    if m.chance(0.5):
        parts.append(f"cylinder{{<0,0,0>,<0,0.03,0>,{rad:.3f} {tex}}}")
    return Body("union{" + "".join(parts) + "}", rad * max(1, top), h, m.textures)


def gridbox(m):
    w, h, d = m.u(0.8, 1.5), m.u(0.4, 1), m.u(0.6, 1.2)
    nx, ny = m.r.randint(4, 12), m.r.randint(2, 7)
    cuts = []
    for i in range(nx):
        for j in range(ny):
            x, y = -w / 2 + w * (i + 0.5) / nx, h * (j + 0.6) / (ny + 0.4)
            cuts.append(f"box{{{v(x - w / nx * 0.34, y - h / ny * 0.3, -2)},{v(x + w / nx * 0.34, y + h / ny * 0.3, 2)}}}")
    tex = m.tex(pattern_share=0.15)
    text = f"difference{{box{{{v(-w / 2, 0, -d / 2)},{v(w / 2, h, d / 2)}}} box{{{v(-w / 2 + 0.03, 0.03, -d / 2 + 0.03)},{v(w / 2 - 0.03, h + 1, d / 2 - 0.03)}}} union{{{''.join(cuts)}}} {tex}}}"
    return Body(text, math.hypot(w, d) / 2, h, m.textures)


def brush(m):
    """Brooms, brushes, tassels: a bundle of fibres at the end of a handle."""
    n = m.r.randint(150, 420)
    length, spread, root = m.u(0.4, 1.1), m.u(0.1, 0.6), m.u(0.06, 0.4)
    c = m.tex("matte", 0)
    fib = []
    bend = m.u(-0.15, 0.15)
    for _ in range(n):
        x, z = m.u(-root, root), m.u(-root, root) * m.u(0.2, 0.7)
        l = length * m.u(0.85, 1.05)
        dx, dz = x * spread * 2 + m.r.gauss(0, 0.03) + bend, z * spread + m.r.gauss(0, 0.03)
        fib.append(f"cone{{{v(x, length, z)},{m.u(0.005, 0.011):.4f},{v(x + dx, length - l + 0.05, z + dz)},0.003}}")
    parts = ["union{" + "".join(fib) + c + "}"]
    parts.append(f"box{{{v(-root - 0.03, length - 0.03, -root * 0.7)},{v(root + 0.03, length + m.u(0.08, 0.2), root * 0.7)} {m.tex()}}}")
    hl = m.u(0.3, 1.4)
    parts.append(f"cylinder{{<0,{length:.3f},0>,<0,{length + hl:.3f},0>,{m.u(0.03, 0.09):.3f} {m.tex()}}}")
    h = length + hl
    return Body("union{" + "".join(parts) + "}", max(0.3, root + spread * root * 2 + abs(bend)), h, m.textures)


def leaf_mesh(m, length, width, curl, tex):
    n = 7
    rows = []
    for i in range(n + 1):
        t = i / n
        half = width / 2 * math.sin(math.pi * min(1, t**0.8 + 0.02)) + 0.004
        y, x = length * math.sin(min(1.5, t * curl)) / max(0.3, curl), length * (1 - math.cos(t * curl)) / max(0.3, curl) + 0.2 * length * t
        rows.append([(x, y, -half), (x * 0.98, y - half * 0.25, 0), (x, y, half)])
    tris = []
    for a, b in zip(rows, rows[1:]):
        for k in (0, 1):
            tris.append(f"triangle{{{v(*a[k])},{v(*a[k + 1])},{v(*b[k])}}}triangle{{{v(*a[k + 1])},{v(*b[k + 1])},{v(*b[k])}}}")
    return "mesh{" + "".join(tris) + tex + "}"


def plant(m):
    """A pot with stems and leaves."""
    pot = m.chance(0.75)
    parts, base = [], 0.0
    if pot:
        base = m.u(0.3, 0.8)
        r0 = m.u(0.25, 0.5)
        parts.append(f"cone{{<0,0,0>,{r0 * m.u(0.6, 1):.3f},<0,{base:.3f},0>,{r0:.3f} {m.tex()}}}")
        parts.append(f"cylinder{{<0,{base - 0.02:.3f},0>,<0,{base + 0.004:.3f},0>,{r0 * 0.9:.3f} {m.tex('matte')}}}")
    green = lambda: m.put(f"pigment{{rgb {v(m.u(0.02, 0.3), m.u(0.12, 0.5), m.u(0.02, 0.2))}}} finish{{ambient AMB diffuse 0.7 specular 0.2}}") if m.chance(0.8) else m.tex("matte")
    kinds = [green() for _ in range(2)]
    stems = m.r.randint(1, 14)
    top = base
    for _ in range(stems):
        a = m.u(0, 360)
        sl = m.u(0.1, 1.1)
        lean = m.u(0, 35)
        leaves = m.r.randint(1, 9)
        sub = [f"cylinder{{0,y*{sl:.3f},{m.u(0.008, 0.025):.4f} {kinds[0]}}}"]
        ll, lw = m.u(0.2, 0.7), m.u(0.03, 0.3)
        for k in range(leaves):
            sub.append(f"object{{{leaf_mesh(m, ll * m.u(0.7, 1.1), lw, m.u(0.4, 1.8), m.r.choice(kinds))} rotate y*{m.u(0, 360):.1f} translate y*{sl * (k + 1) / leaves:.3f}}}")
        parts.append(f"union{{{''.join(sub)} rotate z*{lean:.1f} rotate y*{a:.1f} translate y*{base:.3f}}}")
        top = max(top, base + sl + ll * 0.5)
    return Body("union{" + "".join(parts) + "}", 0.85, top, m.textures)


def flower(m, count=1):
    parts = []
    h = 1.2
    for _ in range(count):
        n, pl, pw = m.r.randint(5, 16), m.u(0.2, 0.5), m.u(0.08, 0.22)
        t, g = m.tex("matte", 0.2), m.put(f"pigment{{rgb {v(m.u(0.05, 0.3), m.u(0.2, 0.5), m.u(0.02, 0.2))}}} finish{{ambient AMB diffuse 0.7}}")
        sh = m.u(0.5, 1.4)
        head = "".join(f"sphere{{0,1 scale {v(pl / 2, 0.02, pw)} translate x*{pl * 0.55:.3f} rotate z*{m.u(5, 50):.1f} rotate y*{360 * i / n:.1f} {t}}}" for i in range(n))
        head += f"sphere{{0,{m.u(0.06, 0.16):.3f} scale <1,0.5,1> {m.tex('matte')}}}"
        lean = (m.u(-25, 25), m.u(0, 360), m.u(-25, 25))
        parts.append(f"union{{cylinder{{0,y*{sh:.3f},{m.u(0.01, 0.025):.4f} {g}}} union{{{head} rotate x*{m.u(-70, 10):.1f} translate y*{sh:.3f}}} object{{{leaf_mesh(m, 0.5, 0.12, 1.0, g)} translate y*0.05}} rotate {v(*lean)}}}")
        h = max(h, sh + 0.3)
    return Body("union{" + "".join(parts) + "}", 0.7, h, m.textures)


def bouquet(m):
    b = flower(m, m.r.randint(3, 7))
    pot = f"cone{{<0,0,0>,0.25,<0,0.5,0>,0.33 {m.tex()}}}"
    return Body("union{" + b.text + pot + "}", 0.9, b.height, m.textures)


def outline_points(m, n=24):
    """A random closed outline in the plane, star-shaped or two-lobed."""
    ks = [(m.u(-0.35, 0.35) / (k * 0.7), m.u(-0.35, 0.35) / (k * 0.7)) for k in range(1, 6)]
    pts = []
    sx, sy = m.u(0.35, 1), m.u(0.5, 1)
    for i in range(n):
        a = 2 * math.pi * i / n
        r = 0.8 + sum(c * math.cos((k + 1) * a) + s * math.sin((k + 1) * a) for k, (c, s) in enumerate(ks))
        r = max(0.15, r)
        pts.append((r * math.cos(a) * sx, r * math.sin(a) * sy))
    return pts


def tool(m):
    """Flat cut-out things with a handle, rings, keys, scissors, spoons: laid or leaning."""
    pts = outline_points(m)
    thick = m.u(0.02, 0.15)
    tex = m.tex(m.r.choice([None, "metal", "chrome", "gloss"]))
    ring = ",".join(v(*p) for p in pts + [pts[0]])
    blade = f"prism{{linear_sweep linear_spline 0,{thick:.3f},{len(pts) + 1},{ring} scale <0.6,1,0.6>}}"
    holes = "".join(f"cylinder{{<{m.u(-0.2, 0.2):.2f},-1,{m.u(-0.2, 0.2):.2f}>,<{m.u(-0.2, 0.2):.2f},1,{m.u(-0.2, 0.2):.2f}>,{m.u(0.05, 0.16):.3f}}}" for _ in range(m.r.randint(0, 3)))
    if holes:
        blade = f"difference{{{blade} {holes}}}"
    parts = [f"object{{{blade} {tex}}}"]
    if m.chance(0.7):
        t2 = m.tex()
        hl = m.u(0.4, 1.2)
        parts.append(f"cone{{<0.35,{thick / 2:.3f},0>,{m.u(0.03, 0.07):.3f},<{0.35 + hl:.3f},{thick / 2 + 0.03:.3f},0>,{m.u(0.05, 0.12):.3f} {t2}}}")
    if m.chance(0.3):
        parts.append(f"torus{{{m.u(0.12, 0.3):.3f},{m.u(0.03, 0.07):.3f} translate <-0.6,0.04,0> {tex}}}")
    if m.chance(0.55):
        return Body("union{" + "".join(parts) + f" rotate y*{m.u(0, 360):.0f} translate y*0.06" + "}", 1.1, 0.25, m.textures, flat=True)
    return Body("union{" + "".join(parts) + f" rotate z*{m.u(60, 95):.0f} rotate y*{m.u(-30, 30):.0f} translate y*0.62" + "}", 0.7, 1.7, m.textures)


def blob(m):
    """Fruit, stones, loaves, cushions."""
    kind = m.r.choice(["blob", "ball", "super", "pear"])
    tex = m.tex()
    if kind == "blob":
        comps = "".join(f"sphere{{{v(m.u(-0.4, 0.4), m.u(-0.3, 0.4), m.u(-0.4, 0.4))},{m.u(0.5, 0.9):.3f},1}}" for _ in range(m.r.randint(2, 6)))
        return Body(f"blob{{threshold 0.5 {comps} {tex} translate y*0.6}}", 0.9, 1.4, m.textures)
    if kind == "super":
        a, b = m.u(0.2, 1), m.u(0.2, 1)
        s = (m.u(0.5, 0.9), m.u(0.2, 0.8), m.u(0.4, 0.9))
        return Body(f"superellipsoid{{<{a:.2f},{b:.2f}> scale {v(*s)} translate y*{s[1]:.3f} {tex}}}", 0.95, 2 * s[1], m.textures)
    s = (m.u(0.5, 0.9), m.u(0.4, 0.9), m.u(0.5, 0.9))
    text = f"sphere{{0,1 scale {v(*s)} translate y*{s[1] * 0.96:.3f} {tex}}}"
    h = 2 * s[1]
    if kind == "pear":
        text += f"cone{{<0,{h * 0.5:.3f},0>,{s[0] * 0.8:.3f},<0,{h * 1.05:.3f},0>,{s[0] * 0.25:.3f} {tex}}} sphere{{<0,{h * 1.05:.3f},0>,{s[0] * 0.25:.3f} {tex}}}"
        h *= 1.15
    if m.chance(0.6):
        text += f"cylinder{{<0,{h * 0.9:.3f},0>,<{m.u(-0.1, 0.1):.3f},{h + m.u(0.1, 0.3):.3f},0>,{m.u(0.015, 0.04):.3f} {m.tex('matte')}}}"
    return Body("union{" + text + "}", 0.95, h, m.textures)


def assembled(m):
    """Toys, furniture, apparatus: several solids, often mirrored."""
    parts, top = [], 0
    mirror = m.chance(0.7)
    legs = m.chance(0.4)
    texs = [m.tex() for _ in range(m.r.randint(1, 4))]
    y0 = m.u(0.2, 0.8) if legs else 0
    if legs:
        t = m.u(0.02, 0.08)
        for sx in (-1, 1):
            for sz in (-1, 1):
                parts.append(f"cylinder{{{v(sx * 0.5, 0, sz * 0.35)},{v(sx * m.u(0.3, 0.45), y0 + 0.05, sz * 0.25)},{t:.3f} {texs[0]}}}")
    for _ in range(m.r.randint(2, 7)):
        t = m.r.choice(texs)
        x, z, y = (m.u(0, 0.6), m.u(-0.3, 0.3), y0 + m.u(0, 0.9))
        kind = m.r.choice(["box", "cyl", "ball", "ring", "cone", "rod"])
        s = m.u(0.12, 0.5)
        if kind == "box":
            o = rounded_box(s * m.u(0.6, 2), s * m.u(0.5, 1.6), s * m.u(0.6, 2), 0.04 * m.r.randint(0, 1), t)
        elif kind == "cyl":
            o = f"cylinder{{0,y*{s * m.u(0.5, 2.5):.3f},{s * m.u(0.4, 0.8):.3f} {t} rotate {m.r.choice(['0', 'x*90', 'z*90'])}}}"
        elif kind == "ball":
            o = f"sphere{{0,{s * 0.7:.3f} scale {v(m.u(0.6, 1.3), m.u(0.6, 1.3), m.u(0.6, 1.3))} {t}}}"
        elif kind == "ring":
            o = f"torus{{{s:.3f},{s * m.u(0.1, 0.35):.3f} rotate {m.r.choice(['0', 'x*90', 'z*90'])} {t}}}"
        elif kind == "cone":
            o = f"cone{{0,{s * 0.8:.3f},y*{s * 1.8:.3f},{s * m.u(0, 0.4):.3f} {t}}}"
        else:
            o = f"cylinder{{0,{v(m.u(-0.6, 0.6), m.u(0.2, 1), m.u(-0.3, 0.3))},{m.u(0.015, 0.05):.3f} {t}}}"
        parts.append(f"object{{{o} translate {v(x, y, z)}}}")
        if mirror:
            parts.append(f"object{{{o} scale <-1,1,1> translate {v(-x, y, z)}}}")
        top = max(top, y + s * 1.6)
    parts.append(rounded_box(m.u(0.6, 1.3), m.u(0.1, 0.5), m.u(0.4, 0.8), 0.03, texs[-1], (0, y0, 0)))
    clip = "clipped_by{plane{-y,0}}"
    return Body("union{" + "".join(parts) + "}", 1.05, max(top, y0 + 0.4), m.textures)


def chair(m):
    t, s = m.u(0.025, 0.07), m.u(0.7, 1)
    tex, seat = m.tex(), m.tex()
    hs, hb = m.u(0.5, 0.9), m.u(0.5, 1.1)
    w, d = 0.45 * s, 0.42 * s
    parts = [f"cylinder{{{v(sx * w * 1.1, 0, sz * d * 1.1)},{v(sx * w, hs, sz * d)},{t:.3f} {tex}}}" for sx in (-1, 1) for sz in (-1, 1)]
    parts.append(rounded_box(2 * w + 0.1, 0.07, 2 * d + 0.1, 0.03, seat, (0, hs, 0)))
    for k in range(m.r.randint(2, 6)):
        x = -w + 2 * w * k / 5
        parts.append(f"cylinder{{{v(x, hs, d)},{v(x * 1.05, hs + hb, d * 1.2)},{t * 0.7:.3f} {tex}}}")
    parts.append(f"cylinder{{{v(-w * 1.1, hs + hb, d * 1.2)},{v(w * 1.1, hs + hb, d * 1.2)},{t * 1.4:.3f} {tex}}}")
    return Body("union{" + "".join(parts) + "}", 0.75, hs + hb, m.textures)


def boot(m):
    tex, sole = m.tex(), m.tex()
    text = f"blob{{threshold 0.4 cylinder{{<0,0.35,0>,<0,1.2,0>,0.55,1}} cylinder{{<0,0.3,0>,<-0.7,0.22,0>,0.5,1}} sphere{{<-0.75,0.2,0>,0.5,0.6}} {tex}}}"
    text += f"box{{<-1.05,0,-0.3>,<0.35,0.1,0.3> {sole}}}"
    return Body("union{" + text + "}", 1.05, 1.5, m.textures)


def mallet(m):
    tex = m.tex()
    return Body(f"union{{cylinder{{<0,0.06,0>,<1.5,0.08,0>,{m.u(0.04, 0.08):.3f} {m.tex()}}} cylinder{{<0,0.16,-0.4>,<0,0.16,0.4>,{m.u(0.14, 0.3):.3f} {tex}}} translate x*-0.7 rotate y*{m.u(0, 360):.0f}}}", 1, 0.4, m.textures, flat=True)


def rope(m):
    """Coils, chains and knots."""
    tex = m.tex(pattern_share=0.1)
    kind = m.r.choice(["coil", "chain", "knot"])
    parts = []
    if kind == "coil":
        t = m.u(0.03, 0.09)
        for k in range(m.r.randint(2, 8)):
            parts.append(f"torus{{{m.u(0.4, 0.8):.3f},{t:.3f} rotate {v(m.u(-6, 6), 0, m.u(-6, 6))} translate {v(m.u(-0.05, 0.05), 0.1 + t * k * 1.3, m.u(-0.05, 0.05))}}}")
        h = 0.2 + 8 * t * 1.3
        return Body("union{" + "".join(parts) + tex + "}", 0.95, h, m.textures, flat=m.chance(0.5))
    if kind == "chain":
        n = m.r.randint(8, 24)
        r = m.u(0.06, 0.12)
        a0, k1 = m.u(0, 6.28), m.u(0.5, 1.5)
        for i in range(n):
            s = i / n * 2 * math.pi
            x, z = 0.75 * math.cos(s + a0), 0.6 * math.sin(k1 * s)
            parts.append(f"torus{{{r:.3f},{r * 0.25:.3f} scale <1.5,1,1> rotate x*{90 * (i % 2) + m.u(-15, 15):.0f} rotate y*{m.u(0, 360):.0f} translate {v(x, r, z)}}}")
        return Body("union{" + "".join(parts) + tex + "}", 1, 0.3, m.textures, flat=True)
    t = m.u(0.05, 0.14)
    pts = [((0.5 + 0.22 * math.cos(3 * a)) * math.cos(2 * a), 0.35 + 0.22 * math.sin(3 * a), (0.5 + 0.22 * math.cos(3 * a)) * math.sin(2 * a)) for a in [2 * math.pi * i / 60 for i in range(61)]]
    return Body(tube(pts, t, tex), 0.85, 0.8, m.textures)


def card(m):
    """Prints, envelopes, tags, cloth: thin sheets, laid or standing."""
    w, h = m.u(0.5, 1.5), m.u(0.5, 1.6)
    tex = m.tex("matte" if m.chance(0.6) else "satin")
    parts = [f"box{{{v(-w / 2, 0, -0.008)},{v(w / 2, h, 0.008)} {tex}}}"]
    for _ in range(m.r.randint(0, 5)):
        a, b = h * m.u(0.05, 0.5), h * m.u(0.55, 0.95)
        parts.append(f"box{{{v(-w * m.u(0.1, 0.45), a, -0.011)},{v(w * m.u(0.1, 0.45), b, 0)} {m.tex()}}}")
    text = "union{" + "".join(parts) + "}"
    if m.chance(0.6):
        n = m.r.choices([1, 2, 4], [6, 2, 2])[0]
        copies = "".join(f"object{{{text} translate y*{-h / 2:.3f} rotate x*90 rotate y*{m.u(0, 360):.0f} translate {v(m.u(-0.25, 0.25) * (n > 1), 0.012 + 0.02 * k, m.u(-0.25, 0.25) * (n > 1))}}}" for k in range(n))
        return Body("union{" + copies + "}", math.hypot(w, h) / 2 + 0.2 * (n > 1), 0.1, m.textures, flat=True)
    return Body(f"object{{{text} rotate x*{m.u(0, 25):.0f} rotate y*{m.u(-40, 40):.0f}}}", w / 2, h, m.textures)


def bulb(m):
    g = m.glass() if m.chance(0.7) else m.put("pigment{rgb 0.9} finish{ambient 0.15 diffuse 0.7 specular 0.6}")
    parts = [f"union{{sphere{{<0,1.3,0>,0.5}} cone{{<0,0.55,0>,0.2,<0,1,0>,0.42}} {g}}}"]
    t = m.tex("metal", 0)
    for k in range(5):
        parts.append(f"torus{{0.19,0.04 translate y*{0.2 + 0.09 * k:.2f} {t}}}")
    parts.append(f"cylinder{{<0,0.05,0>,<0,0.58,0>,0.18 {t}}}")
    lay = m.chance(0.4)
    text = "union{" + "".join(parts) + ("rotate z*80 translate <0.8,0.45,0>" if lay else "") + "}"
    return Body(text, 0.95 if lay else 0.5, 0.95 if lay else 1.8, m.textures, "@G" in g)


def glassware(m):
    return turned(m, glass=True)


def vessel(m):
    """Glass of other forms than turned: a tank of panes, a globe on a foot, a stack of bulbs."""
    glass = m.glass()
    kind = m.r.choice(["tank", "globe", "bulbs"])
    if kind == "tank":
        w, h, d, t = m.u(0.6, 1.2), m.u(0.5, 1.3), m.u(0.4, 0.9), m.u(0.02, 0.05)
        box = lambda a, b: f"box{{{v(*a)},{v(*b)}}}"
        walls = f"difference{{{box((-w / 2, 0, -d / 2), (w / 2, h, d / 2))}{box((-w / 2 + t, t, -d / 2 + t), (w / 2 - t, h + 0.1, d / 2 - t))} {glass}}}"
        rim = f"difference{{{box((-w / 2 - 0.02, h - 0.06, -d / 2 - 0.02), (w / 2 + 0.02, h + 0.02, d / 2 + 0.02))}{box((-w / 2 + t, 0, -d / 2 + t), (w / 2 - t, h + 0.1, d / 2 - t))} {m.tex()}}}" if m.chance(0.5) else ""
        return Body(f"union{{{walls}{rim}}}", math.hypot(w, d) / 2, h, m.textures, True)
    if kind == "globe":
        r, foot = m.u(0.45, 0.7), m.u(0.1, 0.5)
        text = f"difference{{sphere{{<0,{foot + r:.3f},0>,{r:.3f}}}sphere{{<0,{foot + r:.3f},0>,{r * m.u(0.88, 0.96):.3f}}} {glass}}}"
        text += f"cylinder{{<0,0,0>,<0,{foot + 0.05:.3f},0>,{m.u(0.05, 0.3):.3f} {m.tex() if m.chance(0.6) else glass}}} cylinder{{<0,0,0>,<0,0.05,0>,{m.u(0.3, 0.6):.3f} {m.tex()}}}"
        return Body(f"union{{{text}}}", max(r, 0.5), foot + 2 * r, m.textures, True)
    y, parts = 0.0, []
    for _ in range(m.r.randint(2, 4)):
        r = m.u(0.18, 0.42)
        parts.append(f"difference{{sphere{{<0,{y + r:.3f},0>,{r:.3f}}}sphere{{<0,{y + r:.3f},0>,{r * 0.92:.3f}}} {glass}}}")
        y += 1.9 * r
    return Body("union{" + "".join(parts) + "}", 0.42, y, m.textures, True)


def frame(m):
    """Rings, frames, hoops, racks: things that are mostly opening."""
    tex = m.tex()
    kind = m.r.choice(["hoop", "frame", "ladder"])
    t = m.u(0.03, 0.14)
    if kind == "hoop":
        return Body(f"torus{{0.75,{t:.3f} rotate x*{m.u(75, 95):.0f} rotate y*{m.u(-50, 50):.0f} translate y*{0.75 + t:.3f} {tex}}}", 0.8, 1.6, m.textures)
    w, h, d = m.u(0.6, 1.5), m.u(0.8, 1.8), m.u(0.05, 0.6)
    parts = []
    for z in (-d / 2, d / 2):
        for x in (-w / 2, w / 2):
            parts.append(f"box{{{v(x - t / 2, 0, z - t / 3)},{v(x + t / 2, h, z + t / 3)}}}")
        for k in range(2 if kind == "frame" else m.r.randint(3, 7)):
            y = t + (h - 2 * t) * k / (1 if kind == "frame" else 6)
            parts.append(f"box{{{v(-w / 2, y - t / 2, z - t / 3)},{v(w / 2, y + t / 2, z + t / 3)}}}")
    for x in (-w / 2, w / 2):
        for y in (t, h - t):
            parts.append(f"box{{{v(x - t / 3, y - t / 3, -d / 2)},{v(x + t / 3, y + t / 3, d / 2)}}}")
    return Body("union{" + "".join(parts) + tex + "}", math.hypot(w, d) / 2, h, m.textures)


def stand(m):
    """Things on legs: tripods, plant stands, easels, side tables, clothes rails."""
    h, rad, t = m.u(0.8, 1.8), m.u(0.3, 0.7), m.u(0.01, 0.05)
    legs = m.r.choice([3, 3, 4, 4, 5, 6])
    splay = m.u(0.6, 1.8)
    tex, top = m.tex(pattern_share=0.15), m.tex()
    turn = m.u(0, 2 * math.pi)
    at = lambda j, y: (rad * (splay + (1 - splay) * y) * math.cos(turn + 2 * math.pi * j / legs), h * y + t, rad * (splay + (1 - splay) * y) * math.sin(turn + 2 * math.pi * j / legs))
    gathered = m.chance(0.35)
    parts = []
    for j in range(legs):
        foot, head = at(j, 0), at(j, 1)
        parts.append(tube([foot, (0, h, 0) if gathered else head], t, tex))
    for y in [m.u(0.08, 0.9) for _ in range(m.r.randint(0, 3))]:
        k = 1 - y if gathered else 1
        ring = [tuple(c * (k if i != 1 else 1) for i, c in enumerate(at(j % legs, 0 if gathered else y))) for j in range(legs + 1)]
        parts.append(tube([(x, h * y + t, z) for x, _, z in ring], t * m.u(0.5, 1), tex))
    kind = m.r.choice(["disc", "box", "rail", "pot", "none"])
    if kind == "disc":
        parts.append(f"cylinder{{<0,{h:.3f},0>,<0,{h + m.u(0.02, 0.1):.3f},0>,{rad * m.u(0.9, 1.2):.3f} {top}}}")
    elif kind == "box":
        w = rad * m.u(0.9, 1.3)
        parts.append(f"box{{{v(-w, h, -w * 0.8)},{v(w, h + m.u(0.03, 0.4), w * 0.8)} {top}}}")
    elif kind == "rail":
        parts.append(tube([(-rad * 1.4, h, 0), (rad * 1.4, h, 0)], t * 1.3, tex))
    elif kind == "pot":
        parts.append(f"cone{{<0,{h - 0.05:.3f},0>,{rad * m.u(0.5, 0.8):.3f},<0,{h + m.u(0.2, 0.5):.3f},0>,{rad * m.u(0.7, 1):.3f} {top}}}")
    return Body("union{" + "".join(parts) + "}", rad * max(splay, 1.4), h * 1.2, m.textures)


def branch(m):
    """Bare twigs that fork, and antler-like stands."""
    tex = m.tex(pattern_share=0.3)
    parts = []

    def grow(p, direction, length, t, depth):
        q = tuple(a + b * length for a, b in zip(p, direction))
        if q[1] < t:
            q = (q[0], t, q[2])
        parts.append(tube([p, q], t, tex))
        if depth:
            for _ in range(m.r.choice([1, 2, 2, 3])):
                d = [b + m.r.gauss(0, 0.55) for b in direction]
                n = math.sqrt(sum(x * x for x in d)) or 1
                grow(q, [x / n for x in d], length * m.u(0.6, 0.95), t * m.u(0.55, 0.85), depth - 1)

    for _ in range(m.r.choice([1, 1, 2, 3])):
        grow((m.u(-0.1, 0.1), 0, m.u(-0.1, 0.1)), (m.u(-0.3, 0.3), 1, m.u(-0.3, 0.3)), m.u(0.3, 0.6), m.u(0.015, 0.06), m.r.choice([2, 3, 3]))
    return Body("union{" + "".join(parts) + "}", 0.9, 1.6, m.textures)


FAMILIES = {
    "turned": (turned, 16), "boxed": (boxed, 10), "book": (book, 5), "bag": (bag, 5), "wire": (wire, 9),
    "perforated": (perforated, 4), "brush": (brush, 4), "plant": (plant, 7), "flower": (flower, 5), "tool": (tool, 9),
    "blob": (blob, 7), "assembled": (assembled, 14), "rope": (rope, 4), "card": (card, 5), "bulb": (bulb, 2),
    "glassware": (glassware, 8), "frame": (frame, 5), "stand": (stand, 6), "branch": (branch, 3),
    "kettle": (kettle, 1), "chair": (chair, 1), "spring": (spring, 1), "boot": (boot, 1), "bouquet": (bouquet, 1),
    "gridbox": (gridbox, 1), "mallet": (mallet, 1), "vessel": (vessel, 1),
}


def make_body(rnd, held_out=False, only=None):
    """One random body of a trained family (of those in `only`), or of a held-out one. Returns (family, Body)."""
    names = [n for n in FAMILIES if (n in HELD_OUT) == held_out and n not in HELD_OUT_GLASS and (n in only if only else n not in BY_NAME)]
    if only and HELD_OUT_GLASS & set(only):
        names = sorted(HELD_OUT_GLASS & set(only))
    name = rnd.choices(names, [FAMILIES[n][1] for n in names])[0]
    palette = rnd.choices(["any", "white", "black", "hue", "brown"], [50, 20, 10, 12, 8])[0]
    return name, FAMILIES[name][0](Maker(rnd, palette))
