import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { newInset, newPair } from '@scenograph/core/shot/overlay-starters';
import { emptyShot, type Shot } from '@scenograph/core/shot/document';
import { newBackdrop, newText } from '@scenograph/core/shot/starters';
import type { ShotElement } from '@scenograph/core/elements/index';
import type { InsetElement } from '@scenograph/core/elements/inset/model';
import type { PairElement } from '@scenograph/core/elements/pair/model';
import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import fc from 'fast-check';
import { dragOver } from '../../../../test/desk';
import { useStage } from '../store';
import { useStageKeys } from '../use-stage-keys';
import { kindUi } from './index';
import { halfBox, movedFocus } from './pair/inside';

const frame = { width: 800, height: 600 };
const box = { x: 100, y: 100, width: 200, height: 100, rotation: 0 };
const inset: InsetElement = {
  ...newInset('lens', frame, 'picture'),
  ...{ name: 'Lens', box, spot: { x: 0.5, y: 0.5 }, across: 0.4, picture: 'a'.repeat(64) },
};
const text = { ...newText('words', 'New words', frame), name: 'Title', box };
const pair: PairElement = {
  ...newPair('pair', frame, false),
  name: 'Pair',
  box,
  sameCrop: false,
  split: 'vertical',
};
const picture = 'b'.repeat(64);

const chosen = () => useStage.getState().document!.elements[0];
const change = (value: Partial<ShotElement>) => (s: Shot) => ({
  ...s,
  elements: s.elements.map((e) => ({ ...e, ...value }) as ShotElement),
});

/** The stage as far as going inside needs it, at half the frame's size. */
function Stage() {
  const element = useStage((s) => s.document!.elements[0]);
  const inside = useStage((s) => s.inside);
  useStageKeys({ nudge: nudged, remove: () => undefined, duplicate: () => undefined });
  const Inside = inside === element.id ? kindUi(element).Inside : null;
  if (!Inside) return <p>outside</p>;
  return (
    <Inside
      element={element}
      elements={[element]}
      frame={frame}
      zoom={0.5}
      during={(value) => useStage.getState().during(change(value))}
      commit={(label, value) => useStage.getState().finish(label, change(value))}
      onLeave={() => useStage.getState().goInside(null)}
    />
  );
}
const nudged = jest.fn();

function show(element: ShotElement) {
  useStage.setState({
    ...{
      id: 'a',
      document: { ...emptyShot(800, 600), elements: [element] },
      past: [],
      future: [],
      gestureBase: null,
    },
    ...{ revision: 1, saving: 'saved', selected: element.id, also: [], slot: null, inside: null },
  });
  render(<Stage />);
  return userEvent.setup();
}

const RealImage = globalThis.Image;
beforeEach(() => {
  nudged.mockClear();
  // Pictures of 400 x 200 pixels.
  globalThis.Image = class {
    onload: (() => void) | null = null;
    naturalWidth = 400;
    naturalHeight = 200;
    set src(_: string) {
      this.onload?.();
    }
  } as never;
});
afterEach(() => {
  globalThis.Image = RealImage;
});

test('Enter goes inside what is chosen, arrows move its content and not the element, Escape comes out', async () => {
  const user = show(inset);
  await user.keyboard('{Enter}');
  const layer = screen.getByRole('application', { name: 'Content of Lens' });
  expect(layer).toBe(document.activeElement);
  await user.keyboard('{ArrowRight}');
  expect(nudged).not.toHaveBeenCalled();
  // A hundredth of the lens, of which 0.4 of the picture is seen.
  expect((chosen() as InsetElement).spot.x).toBeCloseTo(0.5 - 0.01 * 0.4, 4);
  expect(chosen().box).toEqual(box);
  await user.keyboard('{Escape}');
  expect(screen.getByText('outside')).toBeTruthy();
});

test('dragging a lens carries its content with the pointer, one step of history', async () => {
  const user = show(inset);
  await user.keyboard('{Enter}');
  dragOver(screen.getByRole('application'), [200, 200], [210, 190], [225, 175]);
  const { spot } = chosen() as InsetElement;
  // 50 pixels of the frame each way; the picture is twice as wide as high.
  expect(spot.x).toBeCloseTo(0.5 - (50 * 0.4) / 200, 4);
  expect(spot.y).toBeCloseTo(0.5 + ((50 * 0.4) / 200) * 2, 4);
  expect(useStage.getState().past.map((p) => p.label)).toEqual(['Move the content']);
  await user.keyboard('+');
  expect((chosen() as InsetElement).across).toBeCloseTo(0.4 / 1.1, 6);
});

test('what is locked, and what has no content of its own, is not gone into', async () => {
  const user = show({ ...inset, locked: true });
  await user.keyboard('{Enter}');
  expect(screen.getByText('outside')).toBeTruthy();
});

test('words are written in place: seen at once, kept as one step, given up with Escape', async () => {
  const user = show(text);
  await user.keyboard('{Enter}');
  const field = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Words of Title' });
  expect(field.value).toBe('New words');
  await user.keyboard('Sale');
  expect(chosen()).toMatchObject({ text: 'Sale' });
  await user.keyboard('{Escape}');
  expect(chosen()).toMatchObject({ text: 'New words' });
  expect(useStage.getState().past).toEqual([]);
  await user.keyboard('{Enter}');
  await user.keyboard('Two lines{Enter}here{Control>}{Enter}{/Control}');
  expect(chosen()).toMatchObject({ text: 'Two lines\nhere' });
  expect(useStage.getState().past.map((p) => p.label)).toEqual(['Change words']);
  expect(screen.getByText('outside')).toBeTruthy();
});

test('each half of a pair has its own content, and one goes from one to the other', async () => {
  const half = { ...pair.after, picture, focus: { x: 0.5, y: 0.5 }, zoom: 2 };
  const user = show({ ...pair, before: half, after: half });
  await user.keyboard('{Enter}');
  const before = screen.getByRole('application', { name: 'Before of Pair' });
  before.focus();
  await user.keyboard('{Shift>}{ArrowLeft}{/Shift}');
  const now = chosen() as PairElement;
  expect(now.before.focus.x).toBeGreaterThan(0.5);
  expect(now.after.focus.x).toBe(0.5);
  await user.tab();
  expect(document.activeElement).toBe(screen.getByRole('application', { name: 'After of Pair' }));
});

test('halves lie side by side in the box, turned with it', () => {
  const [left, right] = (['before', 'after'] as const).map((s) =>
    halfBox({ box, split: 'vertical', at: 0.25 }, s),
  );
  expect([left.x, left.width, right.x, right.width]).toEqual([100, 50, 150, 150]);
  const turned = halfBox({ box: { ...box, rotation: 90 }, split: 'vertical', at: 0.5 }, 'before');
  expect([turned.x + turned.width / 2, turned.y + turned.height / 2].map(Math.round)).toEqual([200, 100]);
});

test('however far a picture is moved, it covers its box', () => {
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  const far = fc.double({ min: -2000, max: 2000, noNaN: true });
  fc.assert(
    fc.property(
      share,
      share,
      fc.double({ min: 0.2, max: 5, noNaN: true }),
      fc.double({ min: 1, max: 8, noNaN: true }),
      far,
      far,
      (x, y, ratio, zoom, dx, dy) => {
        const focus = movedFocus({ x, y }, box, ratio, zoom, [dx, dy]);
        const width = Math.max(box.width, box.height * ratio) * zoom;
        for (const [at, side, drawn] of [
          [focus.x, box.width, width],
          [focus.y, box.height, width / ratio],
        ]) {
          expect(at * drawn - side / 2).toBeGreaterThan(-1e-6);
          expect((1 - at) * drawn - side / 2).toBeGreaterThan(-1e-6);
        }
      },
    ),
  );
});

test('inside a mockup the chosen design has the keys, and Escape comes out; a plain backdrop has no inside', async () => {
  const backdrop = newBackdrop('ground', frame, '#ffffff');
  const user = show(backdrop);
  const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
  svg.innerHTML = '<path data-design tabindex="0" /><path data-design tabindex="0" aria-pressed="true" />';
  document.body.append(svg);
  act(() => useStage.getState().goInside(backdrop.id));
  expect(document.activeElement).toBe(svg.lastElementChild);
  await user.keyboard('{Escape}');
  expect(useStage.getState().inside).toBeNull();
  svg.remove();
  act(() => useStage.getState().goInside(backdrop.id));
  expect(useStage.getState().inside).toBeNull();
});
