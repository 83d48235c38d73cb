import { NO_ITEM, type SceneSurvey } from '../stage/survey';
import { emptyShot, readShot, type Shot } from './document';
import { data, FRAME, HASH, ONE_OF_EACH } from './one-of-each.fixture';
import { RESIZINGS, resizedShot } from './resize-shot';
import { resolveBase } from './resolve';
import { newBackdrop, newText, sceneShot } from './starters';

const base = emptyShot(1000, 800);
const text = {
  ...newText('text', 'Hello', base.frame),
  box: { x: 100, y: 80, width: 400, height: 100, rotation: 0 },
};
const shot: Shot = {
  ...base,
  elements: [newBackdrop('backdrop', base.frame, '#ffffff'), text],
  guides: [{ axis: 'x', at: 250 }],
};
const survey: SceneSurvey = {
  width: 1600,
  height: 1200,
  plane: null,
  known: null,
  horizonY: null,
  light: { azimuthDeg: 0, elevationDeg: 45, softness: 0.3 },
  gloss: 0,
  spots: [],
  occluder: null,
  ...NO_ITEM,
};

test('kept, everything has its size about the middle, on a ground that covers the picture', () => {
  const { elements, frame, guides } = resizedShot(shot, { width: 1200, height: 600 }, 'keep');
  expect(frame).toEqual({ width: 1200, height: 600 });
  expect(elements[0].box).toMatchObject({ x: 0, y: 0, width: 1200, height: 600 });
  expect(elements[1]).toMatchObject({ box: { x: 200, y: -20, width: 400, height: 100 }, size: text.size });
  expect(guides).toEqual([{ axis: 'x', at: 300 }]);
});

test('scaled, everything grows with the narrower side, and so do the lengths within it', () => {
  const { elements } = resizedShot(shot, { width: 3000, height: 1600 }, 'scale');
  expect(elements[1]).toMatchObject({
    box: { x: 700, y: 160, width: 800, height: 200 },
    size: text.size * 2,
  });
});

test('arranged, words lie whole within another picture', () => {
  const { elements, frame } = resizedShot(shot, { width: 300, height: 1200 }, 'arrange');
  const { x, y, width, height } = elements[1].box;
  expect(x).toBeGreaterThanOrEqual(0);
  expect(y).toBeGreaterThanOrEqual(0);
  expect(x + width).toBeLessThanOrEqual(frame.width + 0.01);
  expect(y + height).toBeLessThanOrEqual(frame.height + 0.01);
});

test('a product stays where it stands in its scene, at its size in it', () => {
  const staged = sceneShot(data, 'stand', { title: 'Bench', picture: HASH, survey });
  const share = (s: Shot) => {
    const [scene, product] = resolveBase(s, null).elements;
    return {
      x: (product.box.x - scene.box.x) / scene.box.width,
      y: (product.box.y - scene.box.y) / scene.box.height,
      width: product.box.width / scene.box.width,
    };
  };
  const was = share(staged);
  for (const how of ['keep', 'scale'] as const) {
    const now = share(resizedShot(staged, { width: 1000, height: 1000 }, how));
    for (const key of ['x', 'y', 'width'] as const) expect(now[key]).toBeCloseTo(was[key], 6);
  }
});

test.each(RESIZINGS)('a shot of every kind of element can be read after it was resized: %s', (how) => {
  const whole: Shot = { ...emptyShot(FRAME.width, FRAME.height), elements: ONE_OF_EACH };
  for (const frame of [
    { width: 2400, height: 400 },
    { width: 90, height: 728 },
  ]) {
    const resized = resizedShot(whole, frame, how);
    expect(readShot(JSON.parse(JSON.stringify(resized))).frame).toEqual(frame);
    expect(resized.elements.map((e) => e.id)).toEqual(whole.elements.map((e) => e.id));
  }
  expect(resizedShot(whole, FRAME, how)).toBe(whole);
});
