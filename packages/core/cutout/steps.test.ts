import { createPlane, createRgba, type Rgba } from '../raster/pixels';
import { solve } from './solve';
import { openSource } from './source';
import { renderChanged, renderView, wholeView, type Rendered } from './view';
import { measureFringe } from './fringe';
import { cutOut } from './index';
import { contours } from '../raster/contours';
import { outlineToSvg } from './outline-path';
import { mapRecipe, PLAIN_EDGE, PLAIN_RECIPE, readRecipe, type CutoutRecipe, type Step } from './recipe';

const W = 400;
const H = 300;

/** A blue box and a pale disc, whose colour is close to the paper's, on paper with a soft shadow under the box. */
function photo(): Rgba {
  const out = createRgba(W, H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const box = x >= 60 && x < 180 && y >= 80 && y < 200;
      const disc = Math.hypot(x - 290, y - 150) < 50;
      const shade = 1 - 0.35 * Math.exp(-(((x - 130) / 70) ** 2) - ((y - 205) / 10) ** 2);
      const grain = ((x * 7 + y * 13) % 5) - 2;
      const colour = box ? [40, 70, 160] : disc ? [219, 218, 217] : [226 * shade, 224 * shade, 220 * shade];
      colour.forEach((v, c) => (out.data[(y * W + x) * 4 + c] = v + grain));
      out.data[(y * W + x) * 4 + 3] = 255;
    }
  return out;
}

const step = (value: Partial<Step> & { kind: Step['kind'] }, on = true): Step =>
  ({ id: `${Math.random()}`, name: '', on, ...value }) as Step;
const withSteps = (...steps: Step[]): CutoutRecipe => ({ ...PLAIN_RECIPE, steps });
const source = openSource(photo());
const at = (recipe: CutoutRecipe) => {
  const { alpha } = renderView(source, solve(source, recipe), wholeView(source.photo));
  return (x: number, y: number) => alpha.data[y * W + x];
};

test('a keep stroke brings in a part whose colour it teaches, far beyond the stroke itself', () => {
  const keep = step({ kind: 'stroke', side: 'keep', points: [[275, 150], [305, 150]], radius: 5 }); // prettier-ignore
  expect(at(PLAIN_RECIPE)(290, 120)).toBe(0);
  const matte = at(withSteps(keep));
  expect(matte(290, 120)).toBeGreaterThan(0.9);
  expect(matte(290, 180)).toBeGreaterThan(0.9);
  expect(matte(360, 150)).toBe(0);
  expect(at(withSteps({ ...keep, on: false }))(290, 120)).toBe(0);
});

test('a keep stroke on open paper keeps what it touches and little of the paper around it', () => {
  const keep = step({ kind: 'stroke', side: 'keep', points: [[300, 40], [340, 40]], radius: 6 }); // prettier-ignore
  const matte = at(withSteps(keep));
  const before = at(PLAIN_RECIPE);
  let beside = 0;
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const off = Math.hypot(x - Math.min(340, Math.max(300, x)), y - 40);
      if (off < 5) expect(matte(x, y)).toBeGreaterThan(0.9);
      else if (off > 20 && Math.abs(matte(x, y) - before(x, y)) > 0.1) beside++;
    }
  expect(beside).toBe(0);
});

test('a drop stroke takes its part away, and the later of two strokes wins where they cross', () => {
  const drop = step({ kind: 'stroke', side: 'drop', points: [[70, 140], [170, 140]], radius: 45 }); // prettier-ignore
  const keep = step({ kind: 'stroke', side: 'keep', points: [[120, 140]], radius: 12 });
  expect(at(withSteps(drop))(120, 140)).toBe(0);
  expect(at(withSteps(drop, keep))(120, 140)).toBeGreaterThan(0.95);
  expect(at(withSteps(keep, drop))(120, 140)).toBe(0);
});

test('by colour: touching stays in its patch, anywhere takes all that is alike', () => {
  const pick = (reach: 'touching' | 'anywhere'): Step =>
    step({ kind: 'colour', mode: 'take', seeds: [[70, 90]], tolerance: 8, reach });
  expect(at(withSteps(pick('touching')))(120, 140)).toBe(0);
  const two = photo();
  for (let y = 20; y < 50; y++)
    for (let x = 300; x < 360; x++) two.data.set([40, 70, 160, 255], (y * W + x) * 4);
  const other = openSource(two);
  const value = (reach: 'touching' | 'anywhere') =>
    renderView(other, solve(other, withSteps(pick(reach))), wholeView(two)).alpha.data[35 * W + 330];
  expect(value('touching')).toBeGreaterThan(0.9);
  expect(value('anywhere')).toBe(0);
});

test('a rough shape snaps to the real edge; one without snap stays as drawn', () => {
  const rough = (snap: number): Step =>
    step({ kind: 'shape', mode: 'overlap', shape: 'rectangle', points: [[52, 72], [187, 206]], snap }); // prettier-ignore
  const off = step({ kind: 'shape', mode: 'add', shape: 'rectangle', points: [[52, 72], [187, 206]], snap: 0 }); // prettier-ignore
  expect(at(withSteps(rough(12)))(56, 140)).toBeLessThan(0.05);
  expect(at(withSteps(off))(56, 140)).toBe(1);
  expect(at(withSteps(off))(120, 140)).toBe(1);
});

test('a traced edge follows the box between four rough points', () => {
  const trace = step({ kind: 'trace', mode: 'overlap', points: [[64, 84], [177, 78], [183, 197], [57, 203]] }); // prettier-ignore
  const everything = { ...withSteps(step({ kind: 'shape', mode: 'add', shape: 'rectangle', points: [[0, 0], [W, H]], snap: 0 }), trace) }; // prettier-ignore
  const matte = at(everything);
  let wrong = 0;
  for (let y = 60; y < 220; y++)
    for (let x = 40; x < 200; x++) {
      const box = x >= 60 && x < 180 && y >= 80 && y < 200;
      if (Math.abs(matte(x, y) - (box ? 1 : 0)) > 0.5) wrong++;
    }
  // Corners may be cut: of the box's 14,400 pixels at most two along each side.
  expect(wrong).toBeLessThan(700);
});

test('painting is exact and soft, invert turns everything round, a stroke outside the picture does nothing', () => {
  const paint = step({ kind: 'paint', side: 'keep', points: [[330, 60]], radius: 20, softness: 0.5 });
  const matte = at(withSteps(paint));
  expect(matte(330, 60)).toBe(1);
  expect(matte(344, 60)).toBeGreaterThan(0.3);
  expect(matte(344, 60)).toBeLessThan(0.9);
  expect(matte(352, 60)).toBe(0);
  const turned = at(withSteps(step({ kind: 'invert' })));
  expect(turned(120, 140)).toBe(0);
  expect(turned(20, 20)).toBe(1);
  const outside = step({ kind: 'stroke', side: 'keep', points: [[-900, -900], [-800, 9000]], radius: 30 }); // prettier-ignore
  expect(at(withSteps(outside))(120, 140)).toBe(at(PLAIN_RECIPE)(120, 140));
});

test('a saved outline of another size is put in place; a missing one is passed over', () => {
  const matte = createPlane(40, 30);
  for (let y = 0; y < 30; y++) for (let x = 20; x < 40; x++) matte.data[y * 40 + x] = 1;
  const hash = 'a'.repeat(64);
  source.outlines.set(hash, matte);
  const replaced = at(withSteps(step({ kind: 'outline', mode: 'replace', matte: hash })));
  expect(replaced(300, 20)).toBe(1);
  expect(replaced(120, 140)).toBe(0);
  expect(at(withSteps(step({ kind: 'outline', mode: 'take', matte: 'b'.repeat(64) })))(120, 140)).toBe(1);
});

test('edge controls move, soften and steepen the edge by what they say, in any view', () => {
  const edged = (edge: Partial<CutoutRecipe['edge']>) => ({
    ...PLAIN_RECIPE,
    edge: { ...PLAIN_EDGE, ...edge },
  });
  const crossing = (recipe: CutoutRecipe) => {
    const matte = at(recipe);
    let width = 0;
    for (let x = 120; x < 220; x++) width += matte(x, 140);
    return width;
  };
  const plain = crossing(PLAIN_RECIPE);
  expect(crossing(edged({ shift: 2.5 })) - plain).toBeCloseTo(2.5, 0);
  expect(crossing(edged({ shift: -2 })) - plain).toBeCloseTo(-2, 0);
  expect(crossing(edged({ soften: 3 })) - plain).toBeCloseTo(0, 0);
  const soft = at(edged({ soften: 3 }));
  expect(soft(182, 140)).toBeGreaterThan(0.15);
  expect(at(edged({ soften: 3, crispness: 1 }))(184, 140)).toBeLessThan(0.02);

  const recipe = edged({ shift: 3, soften: 2 });
  const solved = solve(source, recipe);
  const whole = renderView(source, solved, wholeView(source.photo)).alpha;
  const part = renderView(source, solved, { width: 60, height: 50, left: 150, top: 120, k: 1 }).alpha;
  for (let y = 0; y < 50; y += 7)
    for (let x = 0; x < 60; x += 3)
      expect(part.data[y * 60 + x]).toBeCloseTo(whole.data[(y + 120) * W + x + 150], 2);
});

test("the camera's own shadow is a soft layer under and beside the product, and nothing elsewhere", async () => {
  const { shadow } = await cutOut(photo(), { ...PLAIN_RECIPE, ownShadow: true }, null);
  expect(shadow).not.toBeNull();
  const { image, bounds } = shadow!;
  const density = (x: number, y: number) => {
    const [sx, sy] = [
      Math.floor(((x - bounds.x) / bounds.width) * image.width),
      Math.floor(((y - bounds.y) / bounds.height) * image.height),
    ];
    if (sx < 0 || sy < 0 || sx >= image.width || sy >= image.height) return 0;
    return image.data[(sy * image.width + sx) * 4 + 3] / 255;
  };
  expect(density(130, 206)).toBeGreaterThan(0.22);
  expect(density(130, 206)).toBeLessThan(0.4);
  expect(density(130, 250)).toBeLessThan(0.05);
  expect((await cutOut(photo(), PLAIN_RECIPE, null)).shadow).toBeNull();
});

test('repair pieces lie in front of and behind the product and reach beyond it', async () => {
  const piece = (place: 'front' | 'behind') => ({
    id: place,
    shape: 'ellipse' as const,
    points: [[150, 100], [230, 140]] as [number, number][], // prettier-ignore
    corner: 0,
    fill: '#ff0000',
    outline: null,
    softness: 0,
    place,
    on: true,
  });
  for (const place of ['front', 'behind'] as const) {
    const { image, bounds } = await cutOut(photo(), { ...PLAIN_RECIPE, repairs: [piece(place)] }, null);
    const pixel = (x: number, y: number) => [
      ...image.data.subarray(((y - bounds.y) * image.width + x - bounds.x) * 4).subarray(0, 4),
    ];
    expect(pixel(215, 120)).toEqual([255, 0, 0, 255]);
    const [r, g, b] = pixel(170, 120);
    if (place === 'front') expect([r, g, b]).toEqual([255, 0, 0]);
    else expect(Math.hypot(r - 40, g - 70, b - 160)).toBeLessThan(8);
  }
});

test('the fringe meter sees a rim of the backdrop and points to it', () => {
  const dirty = createRgba(120, 120);
  const alpha = createPlane(120, 120);
  for (let y = 0; y < 120; y++)
    for (let x = 0; x < 120; x++) {
      const a = Math.min(1, Math.max(0, (42 - Math.hypot(x - 60, y - 60)) / 3 + 0.5));
      alpha.data[y * 120 + x] = a;
      // The right side keeps some of a white backdrop in its edge colours.
      const mix = x > 60 ? 1 - a : 0;
      dirty.data.set([30 + 200 * mix, 60 + 180 * mix, 90 + 160 * mix, 255], (y * 120 + x) * 4);
    }
  const fringe = measureFringe(dirty, alpha);
  expect(fringe.black.mean).toBeGreaterThan(4);
  expect(fringe.worstAt!.x).toBeGreaterThan(60);
  expect(fringe.around[16]).toBeGreaterThan(fringe.around[48] + 4);
});

test('an outline becomes one path that gives the same area back', () => {
  const plane = createPlane(60, 50);
  for (let y = 0; y < 50; y++)
    for (let x = 0; x < 60; x++) {
      const d = Math.hypot(x + 0.5 - 30, y + 0.5 - 25);
      plane.data[y * 60 + x] = Math.min(1, Math.max(0, 18 - d + 0.5)) * Math.min(1, Math.max(0, d - 7 + 0.5));
    }
  const rings = contours(plane);
  expect(rings).toHaveLength(2);
  const area = (ring: [number, number][]) =>
    ring.reduce((s, [x, y], i) => {
      const [nx, ny] = ring[(i + 1) % ring.length];
      return s + (x * ny - nx * y) / 2;
    }, 0);
  expect(Math.abs(rings.reduce((s, r) => s + area(r), 0))).toBeCloseTo(Math.PI * (18 ** 2 - 7 ** 2), -1);
  expect(outlineToSvg(plane)).toMatch(/^<svg [^>]*viewBox="0 0 60 50"><path fill-rule="evenodd" d="M/);
});

test('a recipe is checked at the door and carried over to a photo of another size', () => {
  const recipe = withSteps(step({ kind: 'stroke', side: 'keep', points: [[10, 20]], radius: 6 }));
  expect(readRecipe(JSON.parse(JSON.stringify(recipe)))).toEqual(recipe);
  expect(() => readRecipe({ ...recipe, steps: [{ kind: 'wish' }] })).toThrow(
    /unknown kind; the kinds are stroke/,
  );
  const twice = mapRecipe(recipe, (x, y) => [x * 2, y * 2], 2);
  expect(twice.steps[0]).toMatchObject({ points: [[20, 40]], radius: 12 });
});

test('solving on from what was solved before gives the same matte as solving afresh', () => {
  const keep = step({ kind: 'stroke', side: 'keep', points: [[275, 150], [305, 150]], radius: 5 }); // prettier-ignore
  const without = withSteps({ ...keep, on: false });
  const on = solve(source, without, false, solve(source, withSteps(keep)));
  const whole = wholeView(source.photo);
  const a = renderView(source, on, whole).alpha.data;
  const b = renderView(source, solve(source, without), whole).alpha.data;
  let most = 0;
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i] - b[i]));
  expect(most).toBeLessThan(0.05);
  expect(a[150 * W + 290]).toBe(0);
});

test('strokes rendered into what was shown give the view rendered whole; other changes render it anew', () => {
  const view = wholeView(source.photo, 300);
  const drop = step({ kind: 'stroke', side: 'drop', points: [[70, 95], [100, 95]], radius: 6 }); // prettier-ignore
  const paint = step({ kind: 'paint', side: 'keep', points: [[220, 260]], radius: 9, softness: 0.5 });
  const longer = { ...drop, points: [[70, 95], [100, 95], [100, 130]] } as Step; // prettier-ignore
  let solved = solve(source, PLAIN_RECIPE, true);
  let shown: Rendered = { view, recipe: PLAIN_RECIPE, ...renderView(source, solved, view) };
  for (const steps of [[drop], [longer], [longer, paint], [longer], []]) {
    const recipe = withSteps(...steps);
    solved = solve(source, recipe, true, solved);
    const around = renderChanged(source, solved, shown);
    const whole = renderView(source, solved, view);
    expect(around.alpha.data).toEqual(whole.alpha.data);
    const differ = around.colours.data.reduce((n, v, i) => n + (v !== whole.colours.data[i] ? 1 : 0), 0);
    expect(differ).toBe(0);
    shown = { view, recipe, ...around };
  }
  const wide = { ...withSteps(drop), edge: { ...PLAIN_EDGE, spill: 0 } };
  solved = solve(source, wide, true, solved);
  expect(renderChanged(source, solved, shown).alpha.data).toEqual(
    renderView(source, solved, view).alpha.data,
  );
});
