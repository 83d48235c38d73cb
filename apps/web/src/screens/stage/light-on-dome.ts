import type { Light } from '@scenograph/core/stage/light';

/** The picture of a dome over the product, seen a little from above: its size, and where the dome stands in it. */
export const DOME = { width: 268, height: 136, cx: 134, base: 114, radius: 106 };
const { cx: CX, base: BASE, radius: R } = DOME;
/** The dome's height in the picture, and how deep its foot looks. */
const TALL = R - 8;
const DEEP = 8;
const LOWEST = 5;
const HIGHEST = 85;

const rad = (d: number) => (d * Math.PI) / 180;
const deg = (r: number) => (r * 180) / Math.PI;

/** Whether a light stands behind the product. */
export const isBehind = (light: Light) => Math.abs(light.azimuthDeg) > 90;

/** Where a light is seen on the dome; `depth` is 1 in front of the product, -1 behind it. */
export function onDome({ azimuthDeg, elevationDeg }: Light): { x: number; y: number; depth: number } {
  const depth = Math.cos(rad(elevationDeg)) * Math.cos(rad(azimuthDeg));
  return {
    x: CX + R * Math.cos(rad(elevationDeg)) * Math.sin(rad(azimuthDeg)),
    y: BASE - TALL * Math.sin(rad(elevationDeg)) + DEEP * depth,
    depth,
  };
}

/** The light dragged to a place of the picture; it stays on its side, before or behind the product. */
export function lightAt(light: Light, x: number, y: number): Light {
  const u = (x - CX) / R;
  const v = (BASE - y) / TALL;
  const length = Math.hypot(u, v);
  const [un, vn] = length > 0.995 ? [(u / length) * 0.995, (v / length) * 0.995] : [u, v];
  const up = deg(Math.asin(Math.min(1, Math.max(0, vn))));
  const elevation = Math.min(HIGHEST, Math.max(LOWEST, up));
  const side = deg(Math.asin(Math.min(1, Math.max(-1, un / Math.cos(rad(elevation))))));
  const azimuth = isBehind(light) ? (side >= 0 ? 180 - side : -180 - side) : side;
  return { ...light, azimuthDeg: Math.round(azimuth), elevationDeg: Math.round(elevation) };
}

/** The light turned by so many degrees about the product, and raised by so many. */
export function turnedBy(light: Light, azimuth: number, elevation: number): Light {
  return {
    ...light,
    azimuthDeg: ((((light.azimuthDeg + azimuth + 180) % 360) + 360) % 360) - 180,
    elevationDeg: Math.min(HIGHEST, Math.max(LOWEST, light.elevationDeg + elevation)),
  };
}

/** The light on the other side of the product, as high and as far aside. */
export function flipped(light: Light): Light {
  const { azimuthDeg } = light;
  return { ...light, azimuthDeg: azimuthDeg >= 0 ? 180 - azimuthDeg : -180 - azimuthDeg };
}
