import { createRgba, type Plane, type Rgba } from '../raster/pixels';
import { isWithin, type Body } from './body';
import { shadowFalls, type Light } from './light';

/** A body and where its base's middle lies, in millimetres from the receiver's: right and away. */
export interface Caster {
  body: Body;
  x: number;
  y: number;
  lift: number;
  strength: number;
}

/** Steps of a ray through a caster's depth. */
const STEPS = 5;
const SAMPLES = 10;

/**
 * The shadow that other bodies throw on a product: for points of its surface, rays to points of the light are
 * followed through each caster's levels.
 * @param alpha the receiver's matte, reduced; the result has its size
 * @param receiver its own body and how it shows: base's middle in pixels of `alpha`, pixels a mm, cosine of its pitch
 * @returns black with the shade as alpha, or null where nothing is shaded
 */
export function shadeOn(
  alpha: Plane,
  receiver: { body: Body; x: number; y: number; pxPerMm: number; cos: number; lift: number },
  casters: Caster[],
  light: Light,
  colour: readonly [number, number, number],
): Rgba | null {
  const falls = shadowFalls(light, SAMPLES);
  const { width, height } = alpha;
  const out = createRgba(width, height);
  let any = false;
  const levels = casters.map(({ body }) => levelIndex(body));
  const rows = levelIndex(receiver.body);
  for (let y = 0; y < height; y++) {
    const z = (receiver.y - y) / (receiver.pxPerMm * receiver.cos);
    if (z < -receiver.body.height * 0.3) continue;
    const here = rows(Math.min(receiver.body.height, Math.max(0, z)));
    for (let x = 0; x < width; x++) {
      const a = alpha.data[y * width + x];
      if (a < 0.02) continue;
      const mx = (x + 0.5 - receiver.x) / receiver.pxPerMm;
      // The surface bulges toward the camera.
      const layer = here.find((l) => mx >= l.left && mx <= l.right);
      const half = layer ? (layer.right - layer.left) / 2 : 1;
      const u = layer ? (mx - (layer.left + layer.right) / 2) / half : 0;
      const front = layer
        ? -layer.halfDepth * (receiver.body.round ? Math.sqrt(Math.max(0, 1 - u * u)) : 1)
        : 0;
      const pz = Math.max(0, z) + receiver.lift;
      let through = 1;
      for (const [n, caster] of casters.entries()) {
        let hits = 0;
        const { body } = caster;
        for (const fall of falls) {
          // Toward the light a ray runs against the fall of shadows.
          for (let s = 0; s < STEPS; s++) {
            const depth = ((s + 0.5) / STEPS) * 2 - 1;
            const climb = rayTo(caster, body, mx, front, fall, depth);
            if (climb === null || climb <= 0.5) continue;
            const level = pz + climb - caster.lift;
            if (level < 0 || level > body.height) continue;
            const cx = mx - fall.x * climb - caster.x;
            const cy = front - fall.y * climb - caster.y;
            const inside = levels[n](level).some((l) => isWithin(body, l, cx - (l.left + l.right) / 2, cy));
            if (inside) {
              hits++;
              break;
            }
          }
        }
        through *= 1 - (hits / falls.length) * caster.strength;
      }
      if (through > 0.995) continue;
      any = true;
      const j = (y * width + x) * 4;
      out.data[j] = colour[0];
      out.data[j + 1] = colour[1];
      out.data[j + 2] = colour[2];
      out.data[j + 3] = 255 * (1 - through) * Math.min(1, a * 1.02);
    }
  }
  return any ? out : null;
}

/** How far a ray has climbed where it meets a slice of a caster's depth; null where it never does. */
function rayTo(
  caster: Caster,
  body: Body,
  x: number,
  y: number,
  fall: { x: number; y: number },
  depth: number,
): number | null {
  // The axis along which the light runs most decides where the slices stand.
  if (Math.abs(fall.y) >= Math.abs(fall.x)) {
    if (Math.abs(fall.y) < 1e-4) return null;
    return (y - (caster.y + depth * body.foot.halfDepth)) / fall.y;
  }
  return (x - (caster.x + depth * body.foot.halfWidth)) / fall.x;
}

/** The levels of a body at a height. */
function levelIndex(body: Body): (z: number) => Body['layers'] {
  const n = 64;
  const index = Array.from({ length: n + 1 }, (): Body['layers'] => []);
  const step = body.height / n;
  const heights = [...new Set(body.layers.map((l) => l.z))];
  for (let i = 0; i <= n; i++) {
    const z = heights.reduce(
      (m, v) => (Math.abs(v - i * step) < Math.abs(m - i * step) ? v : m),
      heights[0] ?? 0,
    );
    index[i] = body.layers.filter((l) => l.z === z);
  }
  return (z) => index[Math.min(n, Math.max(0, Math.round(z / step)))];
}
