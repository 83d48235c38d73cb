import { createPlane, createRgba, type Plane, type Rgba } from '../raster/pixels';
import { fromLinear, LINEAR } from '../raster/colour';
import { measureBase, PLAIN_BASE, withDrawnBase } from './base';
import { bodyNormals, type BodyNormals } from './body-normals';
import { bodyOf, isWithin } from './body';
import { contactShadow } from './contact-shadow';
import { ownShading, shadingAt, USUAL_SHADING, type OwnShading } from './own-shading';
import { lightChange, relit, withinColour } from './relight';
import { lightOnTurned, sceneLight, type Linear } from './scene-light';

const PITCH = 16;
const SIN = Math.sin((PITCH * Math.PI) / 180);
const COS = Math.cos((PITCH * Math.PI) / 180);

function drawn(width: number, height: number, inside: (x: number, y: number) => boolean): Plane {
  const plane = createPlane(width, height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (const [dx, dy] of [
        [0.25, 0.25],
        [0.75, 0.25],
        [0.25, 0.75],
        [0.75, 0.75],
      ])
        if (inside(x + dx, y + dy)) sum += 0.25;
      plane.data[y * width + x] = sum;
    }
  return plane;
}

/** A cylinder of radius r and height h seen from PITCH degrees above, in pixels; its picture is 2r wide. */
function cylinder(r: number, h: number): Plane {
  const [b, tall] = [r * SIN, h * COS];
  const height = Math.ceil(tall + 2 * b);
  return drawn(2 * r, height, (x, y) => {
    const round = Math.sqrt(Math.max(0, 1 - ((x - r) / r) ** 2)) * b;
    return y >= b - round && y <= b + tall + round;
  });
}

/** A box with sides a and c, h high, turned by an angle and seen from PITCH degrees above. */
function box(a: number, c: number, h: number, degrees: number): Plane {
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const width = Math.ceil(a * cos + c * sin);
  const corner = { x: c * sin, y: (a * sin + c * cos) * SIN + h * COS };
  const height = Math.ceil(corner.y);
  // The lower edge rises from the corner along both sides; the upper edge is the same, beyond the far corner.
  const lower = (x: number) =>
    x < corner.x
      ? corner.y - ((corner.x - x) / (c * sin)) * c * cos * SIN
      : corner.y - ((x - corner.x) / (a * cos)) * a * sin * SIN;
  const back = a * cos;
  const upper = (x: number) =>
    x < back ? ((back - x) / back) * a * sin * SIN : ((x - back) / (c * sin)) * c * cos * SIN;
  return drawn(width, height, (x, y) => y >= upper(x) && y <= lower(x));
}

const normalAt = ({ width, data }: BodyNormals, x: number, y: number) =>
  Array.from(data.subarray((y * width + x) * 3, (y * width + x) * 3 + 3));

/** A cutout whose pixels are paints times a shading by its normals. */
function painted(normals: BodyNormals, light: OwnShading, paint: (x: number, y: number) => Linear): Rgba {
  const { width, height } = normals;
  const out = createRgba(width, height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const n = normalAt(normals, x, y);
      if (!n.some(Boolean)) continue;
      const shade = shadingAt(light, n[0], n[1], n[2]);
      const i = (y * width + x) * 4;
      paint(x, y).forEach((v, c) => (out.data[i + c] = fromLinear(v * shade)));
      out.data[i + 3] = 255;
    }
  return out;
}

describe('the body behind a silhouette', () => {
  test('a turned body looks left on its left, right on its right and toward the camera in its middle', () => {
    const alpha = cylinder(60, 110);
    const normals = bodyNormals(alpha, measureBase(alpha), PITCH);
    expect(normals.kind).toBe('turned');
    const y = Math.round(alpha.height * 0.6);
    expect(normalAt(normals, 60, y)[1]).toBeLessThan(-0.99);
    expect(normalAt(normals, 8, y)[0]).toBeLessThan(-0.8);
    expect(normalAt(normals, 111, y)[0]).toBeGreaterThan(0.8);
    for (const x of [8, 40, 60, 111]) expect(Math.abs(normalAt(normals, x, y)[2])).toBeLessThan(0.1);
  });

  test.each([28, 45, 60])(
    'a box turned by %i degrees shows two faces at right angles, and its top',
    (turn) => {
      const alpha = box(100, 70, 90, turn);
      const base = measureBase(alpha);
      const normals = bodyNormals(alpha, base, PITCH);
      expect(normals.kind).toBe('box');
      expect(Math.abs(base.pitchDeg - PITCH)).toBeLessThan(2.5);
      const y = Math.round(alpha.height * 0.62);
      const [left, right] = [normalAt(normals, 6, y), normalAt(normals, alpha.width - 7, y)];
      const off = (n: number[]) => (Math.atan2(n[0], -n[1]) * 180) / Math.PI;
      expect(Math.abs(off(right) - turn)).toBeLessThan(5);
      expect(Math.abs(off(right) - off(left) - 90)).toBeLessThan(6);
      const middle = Math.round((base.y - base.corner!.tall) * alpha.width);
      expect(normalAt(normals, Math.round(base.x * alpha.width), middle)).toEqual([0, 0, 1]);
    },
  );

  test('a box’s base is the middle of its footprint, and its shadow’s levels are turned with it', () => {
    const alpha = box(100, 70, 90, 30);
    const base = measureBase(alpha);
    const w = alpha.width;
    expect(Math.abs(base.x * w - w / 2)).toBeLessThan(1.5);
    // The footprint's middle lies half of its picture's depth over the lowest corner.
    const depth = (100 * Math.sin(Math.PI / 6) + 70 * Math.cos(Math.PI / 6)) * SIN;
    expect(Math.abs(base.y * w - (alpha.height - depth / 2))).toBeLessThan(2);
    const body = bodyOf(alpha, base, 1, null);
    expect(Math.abs(body.height - 90)).toBeLessThan(4);
    const [foot] = body.layers;
    const along = (d: number, turn: number): [number, number] => [
      d * Math.cos((turn * Math.PI) / 180),
      d * Math.sin((turn * Math.PI) / 180),
    ];
    expect([44, 56].map((d) => isWithin(body, foot, ...along(d, 30)))).toEqual([true, false]);
    expect([30, 41].map((d) => isWithin(body, foot, ...along(d, 120)))).toEqual([true, false]);
    const { plane, x0, y0, mmPerPx } = contactShadow(body);
    const shade = ([x, y]: [number, number]) =>
      plane.data[Math.round((y - y0) / mmPerPx) * plane.width + Math.round((x - x0) / mmPerPx)];
    expect(shade(along(46, 30))).toBeGreaterThan(0.9);
    expect(shade(along(46, 120))).toBeLessThan(0.6);
  });

  test('a front seen straight, or with a side that hardly rises, has no corner', () => {
    const straight = drawn(120, 100, () => true);
    const tilted = drawn(120, 100, (x, y) => y < 96 - Math.max(0, 20 - x) * 0.06);
    for (const alpha of [straight, tilted]) expect(measureBase(alpha)).not.toHaveProperty('corner');
  });

  test('a base that is drawn by hand is an ellipse, whatever corner was found before', () => {
    const alpha = box(100, 70, 90, 30);
    const bounds = { x: 0, y: 0, width: alpha.width };
    const drawn = withDrawnBase(measureBase(alpha), { x: 60, y: 120, halfWidth: 50, halfDepth: 14 }, bounds);
    expect(drawn).not.toHaveProperty('corner');
    expect(bodyOf(alpha, drawn, 1, null).turn).toBeNull();
    expect(bodyNormals(alpha, drawn, PITCH).kind).not.toBe('box');
  });

  test('a disc that is no turned body is inflated to a half-sphere', () => {
    const alpha = drawn(100, 100, (x, y) => Math.hypot(x - 50, y - 50) < 49);
    const normals = bodyNormals(alpha, { ...PLAIN_BASE(1), confidence: 0 }, 0);
    expect(normals.kind).toBe('inflated');
    for (const [x, y] of [
      [50, 50],
      [25, 50],
      [50, 78],
      [70, 30],
    ]) {
      const [right, away, up] = normalAt(normals, x, y);
      expect(Math.abs(right - (x + 0.5 - 50) / 49)).toBeLessThan(0.09);
      expect(Math.abs(up + (y + 0.5 - 50) / 49)).toBeLessThan(0.09);
      expect(away).toBeLessThan(0);
    }
  });

  test('what lies flat looks up; an empty matte has no normals', () => {
    const alpha = drawn(20, 20, (x) => x > 10);
    expect(normalAt(bodyNormals(alpha, PLAIN_BASE(1), 40, true), 15, 5)).toEqual([0, 0, 1]);
    expect(bodyNormals(createPlane(12, 12), PLAIN_BASE(1), 10).data.some(Boolean)).toBe(false);
  });
});

describe('a photo’s own light', () => {
  const alpha = cylinder(40, 90);
  const normals = bodyNormals(alpha, measureBase(alpha), PITCH);

  test.each([
    ['left', { ...USUAL_SHADING, right: -0.45 }],
    ['right', { ...USUAL_SHADING, right: 0.4 }],
    ['front', { ...USUAL_SHADING, away: -0.5 }],
  ])('from the %s is found whatever the paints are', (_, light) => {
    const [teal, cream]: Linear[] = [
      [0.03, 0.2, 0.22],
      [0.7, 0.62, 0.48],
    ];
    const seen = painted(normals, light, (x, y) => (((x >> 3) + (y >> 4)) % 2 ? teal : cream));
    const found = ownShading(seen, normals);
    const side = (l: OwnShading) => shadingAt(l, 0.8, -0.6, 0) / shadingAt(l, -0.8, -0.6, 0);
    expect(Math.abs(Math.log(side(found) / side(light)))).toBeLessThan(0.12);
    const front = (l: OwnShading) => shadingAt(l, 0, -1, 0) / shadingAt(l, 1, 0, 0);
    expect(Math.abs(Math.log(front(found) / front(light)))).toBeLessThan(0.3);
  });

  test('is the usual one where too little is seen', () => {
    expect(ownShading(createRgba(normals.width, normals.height), normals)).toEqual(USUAL_SHADING);
  });
});

describe('a scene’s light on a product', () => {
  const alpha = cylinder(40, 90);
  const base = measureBase(alpha);
  const normals = bodyNormals(alpha, base, PITCH);
  const cream: Linear = [0.6, 0.52, 0.4];
  const seen = painted(normals, USUAL_SHADING, () => cream);
  const own = ownShading(seen, normals);
  const ground: Linear = [0.3, 0.3, 0.3];
  const from = (azimuthDeg: number, elevationDeg = 35, strength = 1, by = ground) =>
    lightChange(
      normals,
      own,
      sceneLight({ azimuthDeg, elevationDeg, softness: 0.2 }, by, null),
      strength,
      base.y * alpha.width,
    );
  const at = (change: ReturnType<typeof from>, share: number) => {
    const y = Math.round(alpha.height * 0.5);
    return change.data[(y * change.width + Math.round(share * (change.width - 1))) * 3];
  };

  test('brightens the side it comes from, and from behind leaves the near side dark with brighter rims', () => {
    const left = from(-80);
    expect(at(left, 0.1)).toBeGreaterThan(1.8 * at(left, 0.9));
    const right = from(80);
    expect(at(right, 0.9)).toBeGreaterThan(1.8 * at(right, 0.1));
    const behind = from(180);
    const front = from(0);
    expect(at(behind, 0.5)).toBeLessThan(0.5 * at(front, 0.5));
    const rim = from(120);
    expect(at(rim, 0.97)).toBeGreaterThan(2 * at(rim, 0.5));
  });

  test('takes the ground’s colour on what looks down, darkens toward the foot, and at no strength changes nothing', () => {
    expect(from(30, 35, 0).data.every((v) => v === 1)).toBe(true);
    const orange = from(180, 35, 1, [0.5, 0.2, 0.05]);
    const i = (Math.round(alpha.height * 0.5) * orange.width + 40) * 3;
    expect(orange.data[i]).toBeGreaterThan(1.2 * orange.data[i + 2]);
    const column = (y: number) => from(180).data[(Math.round(y) * normals.width + 40) * 3];
    expect(column(base.y * alpha.width - 1)).toBeLessThan(0.85 * column(alpha.height * 0.4));
  });

  test('a product shown turned is lit from where the light is, not from where its picture was', () => {
    const light = sceneLight({ azimuthDeg: -80, elevationDeg: 35, softness: 0.2 }, ground, null);
    const turned = (degrees: number) =>
      lightChange(normals, own, lightOnTurned(light, degrees, PITCH), 1, Infinity);
    // On its head, what is its left shows on the right.
    expect(at(turned(180), 0.9)).toBeGreaterThan(1.8 * at(turned(180), 0.1));
    expect(turned(360).data[600]).toBeCloseTo(turned(0).data[600], 5);
    const { to, up } = lightOnTurned(light, 90, 0);
    // Turned clockwise by a quarter, its left is shown on top.
    expect(up[0]).toBeCloseTo(-1, 5);
    expect(to[2]).toBeCloseTo(light.to[0], 5);
  });

  test('a picture under no change stays as it is, to a step of its bytes', () => {
    const same = relit(seen, { width: 3, height: 2, data: new Float32Array(18).fill(1) });
    let most = 0;
    for (let i = 0; i < seen.data.length; i++) {
      const before = seen.data[i];
      // What is nearly white is bent under it.
      if (i % 4 === 3 || LINEAR[before] < 0.8) most = Math.max(most, Math.abs(same.data[i] - before));
    }
    expect(most).toBeLessThanOrEqual(1);
  });

  test('a tinted light is held back to the colour drift that is allowed; a grey one moves no colour at all', () => {
    const tinted = { ...from(0), data: from(0).data.map((v, i) => v * [1.5, 1, 0.55][i % 3]) };
    const free = withinColour(tinted, seen, 60);
    expect(free.held).toBe(false);
    expect(free.drift).toBeGreaterThan(10);
    const held = withinColour(tinted, seen, 4);
    expect(held).toMatchObject({ held: true });
    expect(held.drift).toBeLessThanOrEqual(4);
    expect(held.drift).toBeGreaterThan(3);
    const grey = { ...tinted, data: new Float32Array(tinted.data.length).fill(0.3) };
    expect(withinColour(grey, seen, 1)).toMatchObject({ held: false });
    expect(withinColour(grey, seen, 1).drift).toBeLessThan(0.01);
    expect(withinColour(grey, seen, 1).light).toBeCloseTo(0.3, 2);
  });
});
