/**
 * The items of the truth set that are printed on: surfaces as functions of a place on them, in centimetres. `whole` is
 * the item, the area is the part of it that takes the pattern.
 */
const rotateX =
  (deg) =>
  ([x, y, z]) => {
    const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
    return [x, y * c - z * s, y * s + z * c];
  };
const rotateY =
  (deg) =>
  ([x, y, z]) => {
    const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
    return [x * c + z * s, y, -x * s + z * c];
  };
const moved = (d) => (p) => p.map((v, i) => v + d[i]);
const through =
  (...steps) =>
  (p) =>
    steps.reduce((q, step) => step(q), p);
const dome = (t, power) => Math.max(0, 1 - t * t) ** power;

/** A filled bag, w x h, standing out by `out` where it is fullest; a -1..1 across, b 0..1 up. */
const bag = (w, h, out, fullest, power, place) => (a, b) => {
  const t = b < fullest ? (fullest - b) / fullest : (b - fullest) / (1 - fullest);
  return place([(a * w) / 2, b * h, -(0.15 + out * dome(a, power) * dome(t, power))]);
};
/** A round wall: radius at the foot and at the top, height; a -1..1 over `wrap` degrees. */
const wall = (r0, r1, h, wrap, place) => (a, b) => {
  const r = r0 + (r1 - r0) * b;
  const t = (a * wrap * Math.PI) / 360;
  return place([r * Math.sin(t), b * h, -r * Math.cos(t)]);
};
const face = (w, h, place) => (a, b) => place([(a * w) / 2, b * h, 0]);

export const PRINTED = [
  {
    name: 'pouch',
    shape: 'curve',
    whole: bag(12, 17, 1.9, 0.42, 0.8, through(rotateX(8), rotateY(-18))),
    area: [-0.8, 0.8, 0.1, 0.82],
    eye: [2, 18, -62],
    look: [0, 8, 0],
    angle: 26,
    to: [-0.7, 0.6, -0.45],
    size: 45,
    material: 'paper',
    stock: [0.72, 0.66, 0.55],
  },
  {
    name: 'tumbler',
    shape: 'curve',
    wrapDeg: 124,
    whole: wall(4.2, 4.2, 12, 360, rotateY(12)),
    area: [-124 / 360, 124 / 360, 0.2, 0.85],
    eye: [0, 17, -60],
    look: [0, 6, 0],
    angle: 22,
    to: [0.75, 0.5, -0.4],
    size: 60,
    material: 'ceramic',
    stock: [0.78, 0.77, 0.74],
  },
  {
    name: 'tin',
    shape: 'quad',
    whole: face(15, 10, through(rotateY(34), moved([0, 0, -3]))),
    area: [-0.86, 0.86, 0.12, 0.88],
    eye: [6, 20, -60],
    look: [0, 5, 0],
    angle: 24,
    to: [-0.4, 0.8, -0.45],
    size: 30,
    material: 'paper',
    stock: [0.6, 0.62, 0.6],
  },
  {
    name: 'cushion',
    shape: 'curve',
    whole: bag(26, 22, 4.6, 0.5, 0.62, through(rotateX(24), rotateY(14))),
    area: [-0.74, 0.74, 0.14, 0.86],
    eye: [-4, 26, -92],
    look: [0, 10, 0],
    angle: 28,
    to: [0.6, 0.65, -0.5],
    size: 70,
    material: 'cloth',
    stock: [0.7, 0.68, 0.63],
  },
  {
    name: 'bucket',
    shape: 'curve',
    wrapDeg: 110,
    whole: wall(4.6, 6.6, 13, 360, rotateY(-8)),
    area: [-110 / 360, 110 / 360, 0.25, 0.8],
    eye: [-3, 22, -66],
    look: [0, 6, 0],
    angle: 24,
    to: [-0.6, 0.55, -0.6],
    size: 40,
    material: 'ceramic',
    stock: [0.66, 0.7, 0.72],
  },
  {
    name: 'refill',
    shape: 'curve',
    whole: bag(10, 15, 2.3, 0.3, 0.7, through(rotateX(6), rotateY(22))),
    area: [-0.82, 0.82, 0.06, 0.74],
    eye: [0, 16, -58],
    look: [0, 7, 0],
    angle: 25,
    to: [0.8, 0.5, -0.3],
    size: 35,
    material: 'paper',
    stock: [0.5, 0.37, 0.22],
  },
];

/** A mesh of a surface over a part of it, in POV-Ray's words; `lift` raises it toward the camera. */
export function meshOf(name, surface, [a0, a1, b0, b1], lift, n = 64) {
  const at = (i, j) => surface(a0 + ((a1 - a0) * i) / n, b0 + ((b1 - b0) * j) / n);
  const vertices = [];
  const uv = [];
  const normals = [];
  const e = 1e-3;
  for (let j = 0; j <= n; j++)
    for (let i = 0; i <= n; i++) {
      const a = Math.min(a1 - e, Math.max(a0 + e, a0 + ((a1 - a0) * i) / n));
      const b = Math.min(b1 - e, Math.max(b0 + e, b0 + ((b1 - b0) * j) / n));
      const d = (p, q) => p.map((v, k) => v - q[k]);
      const [u, v] = [d(surface(a + e, b), surface(a - e, b)), d(surface(a, b + e), surface(a, b - e))];
      let normal = [v[1] * u[2] - v[2] * u[1], v[2] * u[0] - v[0] * u[2], v[0] * u[1] - v[1] * u[0]];
      normal = normal.map((x) => x / Math.hypot(...normal));
      const p = at(i, j);
      vertices.push(p.map((x, k) => x + normal[k] * lift));
      normals.push(normal);
      uv.push([i / n, j / n]);
    }
  const faces = [];
  for (let j = 0; j < n; j++)
    for (let i = 0; i < n; i++) {
      const q = j * (n + 1) + i;
      faces.push([q, q + 1, q + n + 1], [q + 1, q + n + 2, q + n + 1]);
    }
  const list = (rows) =>
    `${rows.length}, ${rows.map((r) => `<${r.map((v) => +v.toFixed(5)).join(',')}>`).join(',')}`;
  return `#declare ${name} = mesh2 { vertex_vectors { ${list(vertices)} } normal_vectors { ${list(normals)} } uv_vectors { ${list(uv)} } face_indices { ${list(faces)} } }\n`;
}

/** Places on an area's edges, equally spaced on the surface, and its sizes along its middle lines, in centimetres. */
export function edgesOf(surface, [a0, a1, b0, b1], points = 9) {
  const line = (f) => {
    const fine = Array.from({ length: 801 }, (_, i) => f(i / 800));
    const lengths = [0];
    for (let i = 1; i < fine.length; i++)
      lengths.push(lengths[i - 1] + Math.hypot(...fine[i].map((v, k) => v - fine[i - 1][k])));
    const total = lengths[lengths.length - 1];
    const places = Array.from({ length: points }, (_, k) => {
      const want = (total * k) / (points - 1);
      let i = lengths.findIndex((l) => l >= want - 1e-9);
      if (i < 0) i = fine.length - 1;
      return fine[i];
    });
    return { total, places };
  };
  const across = (b) => line((t) => surface(a0 + (a1 - a0) * t, b));
  const down = (a) => line((t) => surface(a, b1 + (b0 - b1) * t));
  return {
    top: across(b1).places,
    bottom: across(b0).places,
    left: down(a0).places,
    right: down(a1).places,
    width: across((b0 + b1) / 2).total,
    height: down((a0 + a1) / 2).total,
  };
}
