import { createPlane, createRgba, type Plane, type Rgba } from '../raster/pixels';
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

/** A product that is shaded: its body and how it shows. */
export interface Receiver {
  body: Body;
  /** Its base's middle in pixels of its matte. */
  x: number;
  y: number;
  pxPerMm: number;
  /** Cosine of the pitch under which it was photographed. */
  cos: number;
  lift: number;
}

/** Visits each pixel of a product's matte with its place: right of, away from and above the base's middle, in millimetres. */
export function surfacePoints(
  alpha: Plane,
  { body, x: baseX, y: baseY, pxPerMm, cos, lift }: Receiver,
  visit: (pixel: number, place: { x: number; y: number; z: number }) => void,
): void {
  const rows = levelIndex(body);
  const { width, height } = alpha;
  for (let y = 0; y < height; y++) {
    const z = (baseY - y) / (pxPerMm * cos);
    if (z < -body.height * 0.3) continue;
    const here = rows(Math.min(body.height, Math.max(0, z)));
    for (let x = 0; x < width; x++) {
      if (alpha.data[y * width + x] < 0.02) continue;
      const mx = (x + 0.5 - baseX) / pxPerMm;
      // The surface bulges toward the camera.
      const layer = here.find((l) => mx >= l.left && mx <= l.right);
      const half = layer ? (layer.right - layer.left) / 2 : 1;
      const u = layer ? (mx - (layer.left + layer.right) / 2) / half : 0;
      const front = layer ? -layer.halfDepth * (body.round ? Math.sqrt(Math.max(0, 1 - u * u)) : 1) : 0;
      visit(y * width + x, { x: mx, y: front, z: Math.max(0, z) + lift });
    }
  }
}

/**
 * The shadow that other bodies throw on a product: for points of its surface, rays to points of the light are
 * followed through each caster's levels.
 * @param alpha the receiver's matte, reduced; the result has its size
 * @returns black with the shade as alpha, or null where nothing is shaded
 */
export function shadeOn(
  alpha: Plane,
  receiver: Receiver,
  casters: Caster[],
  light: Light,
  colour: readonly [number, number, number],
): Rgba | null {
  const falls = shadowFalls(light, SAMPLES);
  const levels = casters.map(({ body }) => levelIndex(body));
  const lack = lackOnSurface(alpha, receiver, ({ x, y, z }) => {
    let through = 1;
    for (const [n, caster] of casters.entries()) {
      let hits = 0;
      const { body } = caster;
      for (const fall of falls) {
        // Toward the light a ray runs against the fall of shadows.
        for (let s = 0; s < STEPS; s++) {
          const depth = ((s + 0.5) / STEPS) * 2 - 1;
          const climb = rayTo(caster, body, x, y, fall, depth);
          if (climb === null || climb <= 0.5) continue;
          const level = z + climb - caster.lift;
          if (level < 0 || level > body.height) continue;
          const cx = x - fall.x * climb - caster.x;
          const cy = y - fall.y * climb - caster.y;
          const inside = levels[n](level).some((l) => isWithin(body, l, cx - (l.left + l.right) / 2, cy));
          if (inside) {
            hits++;
            break;
          }
        }
      }
      through *= 1 - (hits / falls.length) * caster.strength;
    }
    return 1 - through;
  });
  return lack && shadePicture(lack, alpha, colour);
}

/** How much of the light each pixel of a product's matte lacks, 0..1; null where none lacks any. */
export function lackOnSurface(
  alpha: Plane,
  receiver: Receiver,
  lacks: (place: { x: number; y: number; z: number }) => number,
): Plane | null {
  const out = createPlane(alpha.width, alpha.height);
  let any = false;
  surfacePoints(alpha, receiver, (i, place) => {
    const dark = lacks(place);
    if (dark < 0.005) return;
    any = true;
    out.data[i] = dark;
  });
  return any ? out : null;
}

/** What a product lacks of the light as a picture of one colour, with the lack as alpha. */
export function shadePicture(
  lack: Plane,
  alpha: Plane,
  [r, g, b]: readonly [number, number, number],
  strength = 1,
): Rgba {
  const out = createRgba(lack.width, lack.height);
  lack.data.forEach((dark, i) => {
    if (dark) out.data.set([r, g, b, 255 * dark * strength * Math.min(1, alpha.data[i] * 1.02)], i * 4);
  });
  return out;
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
