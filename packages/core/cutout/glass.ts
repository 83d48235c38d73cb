import { fromOklab } from '../raster/colour';
import { components } from '../raster/components';
import { grow, squaredDistance } from '../raster/distance';
import { blur } from '../raster/blur';
import type { Plane, Rgba } from '../raster/pixels';
import { samplePlane } from '../raster/resample';
import type { Expanded, Place } from './expand-matte';
import type { Analysis } from './segment';

/** Colour step across three pixels from which on it may be the rim of glass; shadows' slopes are below. */
const STEP = 0.011;
/** Half the widest gap in a rim that is closed, in reduced pixels. */
const GAP = 3;

/** What is known of a see-through product, at the reduced size. */
export interface Glass {
  /** 1 inside the product's outline, clear parts included. */
  envelope: Uint8Array;
  /** How surely a pixel lets nothing through, 0..1. */
  opaque: Plane;
  /** The least opacity that the glass itself has, 0..1: what its surfaces reflect away. */
  wall: Plane;
  /** The empty backdrop's colour in bytes, one plane a channel. */
  backdrop: [Plane, Plane, Plane];
}

/**
 * The outline of clear glass: what small lightness steps from the photo's border cannot reach, since even clear
 * glass shows a rim; and which parts of it are solid.
 */
// eslint-disable-next-line max-lines-per-function -- the steps of one method in their order
export function findGlass(analysis: Analysis): Glass {
  const { lab, width, height, model, product } = analysis;
  const n = width * height;
  // A rim is faint and broken: steps across three pixels, thickened so that its gaps close.
  const rim = new Uint8Array(n);
  for (let y = 2; y < height - 2; y++)
    for (let x = 2; x < width - 2; x++) {
      const i = y * width + x;
      const across = step(lab, i - 1, i + 2) + step(lab, i - 2, i + 1);
      const along = step(lab, i - width, i + 2 * width) + step(lab, i - 2 * width, i + width);
      if (Math.max(across, along) / 2 > STEP || product[i]) rim[i] = 1;
    }
  const wall = grow(rim, width, height, GAP);
  const reached = new Uint8Array(n);
  const stack = new Int32Array(n);
  let top = 0;
  for (let i = 0; i < n; i++) {
    const x = i % width;
    if ((x === 0 || x === width - 1 || i < width || i >= n - width) && !wall[i]) {
      reached[i] = 1;
      stack[top++] = i;
    }
  }
  while (top > 0) {
    const p = stack[--top];
    const x = p % width;
    for (let d = 0; d < 4; d++) {
      if ((d === 0 && x === 0) || (d === 1 && x === width - 1)) continue;
      const q = p + (d === 0 ? -1 : d === 1 ? 1 : d === 2 ? -width : width);
      if (q < 0 || q >= n || reached[q] || wall[q]) continue;
      reached[q] = 1;
      stack[top++] = q;
    }
  }
  let inside: Uint8Array = reached.map((v) => (v ? 0 : 1));
  // Back to the rim itself; then what is thinner than a rim was grain.
  inside = grow(inside, width, height, -GAP - 1);
  inside = grow(grow(inside, width, height, -1.5), width, height, 1.5);
  const outside = components(
    inside.map((v) => (v ? 0 : 1)),
    width,
    height,
  );
  for (let i = 0; i < n; i++) {
    const l = outside.labels[i];
    if (l && !outside.list[l - 1].touchesBorder) inside[i] = 1;
  }
  const groups = components(inside, width, height);
  const largest = groups.list.reduce((m, c) => Math.max(m, c.area), 0);
  const envelope = new Uint8Array(n);
  for (let i = 0; i < n; i++) {
    const l = groups.labels[i];
    if ((l && groups.list[l - 1].area > largest * 0.02) || product[i]) envelope[i] = 1;
  }

  const planes = backdropPlanes(analysis);
  const surface = model.surface();
  const solid: Plane = { width, height, data: new Float32Array(n) };
  const b = new Float64Array(3);
  const c = new Float64Array(3);
  for (let i = 0; i < n; i++) {
    if (!envelope[i]) continue;
    fromOklab(surface[i * 3], surface[i * 3 + 1], surface[i * 3 + 2], b);
    fromOklab(lab[i * 3], lab[i * 3 + 1], lab[i * 3 + 2], c);
    const hue = Math.hypot(lab[i * 3 + 1] - surface[i * 3 + 1], lab[i * 3 + 2] - surface[i * 3 + 2]);
    const dark = Math.max(0, ...[0, 1, 2].map((k) => (b[k] - c[k]) / Math.max(1, b[k])));
    // Solid things are coloured, or dark over an area; glass rims are dark in thin lines.
    solid.data[i] = Math.min(1, Math.max(0, (Math.max(hue / 0.05, dark / 0.62) - 0.75) * 4));
  }
  // Lights mirrored on solid parts are enclosed by them.
  const open = components(
    solid.data.reduce((o, v, i) => ((o[i] = v < 0.5 ? 1 : 0), o), new Uint8Array(n)),
    width,
    height,
  );
  for (let i = 0; i < n; i++) {
    const l = open.labels[i];
    if (l && envelope[i] && !open.list[l - 1].touchesBorder && open.list[l - 1].area < n * 0.004)
      solid.data[i] = 1;
  }
  const opaque = blur(solid, 1.6);
  for (let i = 0; i < n; i++) opaque.data[i] = Math.min(1, Math.max(0, (opaque.data[i] - 0.35) * 3.3));
  return {
    envelope,
    opaque,
    wall: wallOpacity(envelope, width, height),
    backdrop: planes,
  };
}

/**
 * From this on, the mean over its area of how far the ground shows through, a product is taken for glass, where a part of it
 * is surely seen through. Of solid things kept for measuring one in a hundred lies above, of glass four in ten.
 */
const GLASS_MEAN = 0.22;
const GLASS_SURELY = 0.55;
const SURE_SHARE = 0.05;

/**
 * Glass as the model recognises it: the outline is the product's, and what lets light through is what the model
 * says. Null where next to nothing is seen through.
 * @param seen how far the ground shows through, 0..1, at the analysis size
 */
export function recognisedGlass(analysis: Analysis, product: Uint8Array, seen: Plane): Glass | null {
  const { width, height } = analysis;
  let through = 0;
  let surely = 0;
  let area = 0;
  for (let i = 0; i < product.length; i++)
    if (product[i]) {
      area++;
      through += seen.data[i];
      if (seen.data[i] > GLASS_SURELY) surely++;
    }
  if (!area || through < area * GLASS_MEAN || surely < area * SURE_SHARE) return null;
  const opaque: Plane = { width, height, data: new Float32Array(product.length) };
  const wall: Plane = { width, height, data: new Float32Array(product.length) };
  for (let i = 0; i < product.length; i++) {
    opaque.data[i] = Math.min(1, Math.max(0, 1.25 - 2.5 * seen.data[i]));
    wall.data[i] = 1 - seen.data[i];
  }
  return { envelope: product, opaque, wall, backdrop: backdropPlanes(analysis) };
}

/** The empty backdrop's colour in bytes, one plane a channel. */
function backdropPlanes({ width, height, model }: Analysis): [Plane, Plane, Plane] {
  const surface = model.surface();
  const planes = [0, 1, 2].map(() => ({ width, height, data: new Float32Array(width * height) }));
  const b = new Float64Array(3);
  for (let i = 0; i < width * height; i++) {
    fromOklab(surface[i * 3], surface[i * 3 + 1], surface[i * 3 + 2], b);
    for (let k = 0; k < 3; k++) planes[k].data[i] = b[k];
  }
  return planes as [Plane, Plane, Plane];
}

/**
 * What light the glass itself turns away before it comes through: four surfaces (front and back wall), each
 * reflecting by Schlick's approximation (1994) of Fresnel's law at a refractive index of 1.5. The angle follows
 * from the distance to the outline as on a round vessel, so walls thicken to the eye toward the rim.
 */
function wallOpacity(envelope: Uint8Array, width: number, height: number): Plane {
  const plane: Plane = { width, height, data: new Float32Array(envelope.length) };
  const distance = squaredDistance(
    envelope.map((v) => (v ? 0 : 1)),
    width,
    height,
  );
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (!envelope[y * width + x]) continue;
      let end = x;
      while (end < width && envelope[y * width + end]) end++;
      const radius = Math.max(2, (end - x) / 2);
      for (; x < end; x++) {
        const i = y * width + x;
        const sine = Math.max(0, 1 - (Math.sqrt(distance[i]) - 0.5) / radius);
        const reflected = 0.04 + 0.96 * (1 - Math.sqrt(Math.max(0, 1 - sine * sine))) ** 5;
        plane.data[i] = 1 - (1 - reflected) ** 4;
      }
    }
  }
  return plane;
}

function step(lab: Float32Array, i: number, j: number): number {
  return Math.hypot(
    lab[i * 3] - lab[j * 3],
    lab[i * 3 + 1] - lab[j * 3 + 1],
    lab[i * 3 + 2] - lab[j * 3 + 2],
  );
}

/**
 * Opacity and own colour of a see-through product before a known backdrop, in place: the least opacity that
 * explains a pixel, alpha = max over channels of (B - C) / B where it is darker and (C - B) / (255 - B) where it
 * is lighter, so that tints stay faint and highlights stay; solid parts stay solid. The colour follows from the
 * compositing equation, C = alpha F + (1 - alpha) B.
 * @param picture the photo or a part of it; @param place its place on the fine size; `scale` reduced pixels a fine pixel
 * @param alpha the envelope's matte, 0..1; becomes the opacity
 */
export function seeThrough(
  picture: Rgba,
  place: Place,
  scale: number,
  glass: Glass,
  alpha: Plane,
  colours: Rgba,
): void {
  const { width, height, data } = picture;
  const b = new Float64Array(3);
  for (let y = 0; y < height; y++) {
    const sy = ((y + 0.5) * place.ky + place.top) * scale - 0.5;
    for (let x = 0; x < width; x++) {
      const p = y * width + x;
      const outline = alpha.data[p];
      if (outline === 0) continue;
      const sx = ((x + 0.5) * place.kx + place.left) * scale - 0.5;
      const solid = samplePlane(glass.opaque, sx, sy);
      let least = 0;
      for (let k = 0; k < 3; k++) {
        b[k] = samplePlane(glass.backdrop[k], sx, sy);
        const c = data[p * 4 + k];
        const a = c < b[k] ? (b[k] - c) / Math.max(1, b[k]) : (c - b[k]) / Math.max(1, 255 - b[k]);
        if (a > least) least = a;
      }
      const clear = Math.min(1, Math.max(least, samplePlane(glass.wall, sx, sy)));
      const a = outline * (clear + (1 - clear) * solid);
      alpha.data[p] = a;
      if (a <= 0 || solid > 0.98) continue;
      const own = clear + (1 - clear) * solid;
      for (let k = 0; k < 3; k++)
        colours.data[p * 4 + k] = own > 0 ? (data[p * 4 + k] - (1 - own) * b[k]) / own : data[p * 4 + k];
    }
  }
}

/**
 * The colours of a see-through product where a hand has given it another opacity, in place: by the same equation as in
 * `seeThrough`. Colours that were worked out for a faint trace would be loud where it is made firm.
 * @param was the opacity, 0..1, when the cutout's colours were worked out; `cutout` has the present one
 */
export function recolourGlass(
  picture: Rgba,
  place: Place,
  scale: number,
  glass: Glass,
  was: Float32Array,
  cutout: Expanded,
): void {
  const { width, data } = picture;
  const colours = cutout.colours;
  const alpha = cutout.alpha.data;
  for (let p = 0; p < alpha.length; p++) {
    const a = alpha[p];
    if (a === 0 || Math.abs(a - was[p]) < 0.01) continue;
    const x = p % width;
    const sx = ((x + 0.5) * place.kx + place.left) * scale - 0.5;
    const sy = (((p - x) / width + 0.5) * place.ky + place.top) * scale - 0.5;
    for (let k = 0; k < 3; k++) {
      const behind = samplePlane(glass.backdrop[k], sx, sy);
      colours.data[p * 4 + k] = (data[p * 4 + k] - (1 - a) * behind) / a;
    }
  }
}
