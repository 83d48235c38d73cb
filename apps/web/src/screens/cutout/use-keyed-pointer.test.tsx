import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { PLAIN_RECIPE, type Point, type Step } from '@scenograph/core/cutout/recipe';
import type { Camera } from './desk-canvas';
import type { Gesture } from './desk-traces';
import { useDeskPointer } from './use-desk-pointer';

const gestures: Gesture[] = [];
const moves: { id: string; index: number; to: Point; done: boolean }[] = [];
const closePath = jest.fn();
let camera: Camera;
afterEach(() => {
  gestures.length = 0;
  moves.length = 0;
  closePath.mockClear();
});

/** A view of 400 x 300 screen pixels on a photo of 800 x 600, at half its size. */
function View({ tool, polygon, chosen }: { tool: Gesture['tool']; polygon: boolean; chosen: Step | null }) {
  const [cam, setCamera] = useState<Camera>({ zoom: 0.5, x: 400, y: 300 });
  camera = cam;
  const { handlers, gesture, pointer, keyed } = useDeskPointer({
    ...{ tool, polygon, chosen, cam, setCamera },
    recipe: PLAIN_RECIPE,
    base: null,
    size: { width: 800, height: 600 },
    box: { width: 400, height: 300 },
    toPhoto: ({ clientX, clientY }) => [clientX, clientY],
    onGesture: (g) => void gestures.push(g),
    onPoint: () => undefined,
    onMovePoint: (id, index, to, done) => void moves.push({ id, index, to, done }),
  });
  return (
    <div role="application" tabIndex={0} {...handlers}>
      <p>{keyed && pointer ? pointer.join() : 'no cross'}</p>
      <p>{gesture ? 'drawing' : 'idle'}</p>
    </div>
  );
}

function show(tool: Gesture['tool'], more: { polygon?: boolean; chosen?: Step } = {}) {
  cleanup();
  render(
    // What closes paths hears what the view leaves.
    <div onKeyDown={(e) => e.key === 'Enter' && closePath()}>
      <View tool={tool} polygon={more.polygon ?? false} chosen={more.chosen ?? null} />
    </div>,
  );
  screen.getByRole('application').focus();
  return userEvent.setup();
}

test('arrow keys bring a cross from the middle of the view, by a few screen pixels, with Shift farther', async () => {
  const user = show('keep');
  expect(screen.getByText('no cross')).toBeTruthy();
  await user.keyboard('{ArrowRight}');
  expect(screen.getByText('408,300')).toBeTruthy();
  await user.keyboard('{Shift>}{ArrowUp}{/Shift}{ArrowLeft}');
  expect(screen.getByText('400,236')).toBeTruthy();
});

test('a stroke is drawn from Enter to Enter, through where the arrows went', async () => {
  const user = show('keep');
  await user.keyboard('{ArrowRight}{Enter}');
  expect(screen.getByText('drawing')).toBeTruthy();
  await user.keyboard('{ArrowRight}{ArrowDown}{Enter}');
  expect(gestures).toEqual([{ tool: 'keep', points: [[408, 300], [416, 300], [416, 308]], shift: false }]); // prettier-ignore
  expect(screen.getByText('idle')).toBeTruthy();
  expect(closePath).not.toHaveBeenCalled();
});

test('Escape gives up what is being drawn', async () => {
  const user = show('box');
  await user.keyboard('{ArrowRight}{Enter}{ArrowRight}{Escape}{ArrowRight}');
  expect(screen.getByText('idle')).toBeTruthy();
  expect(gestures).toEqual([]);
});

test('tools that are clicked need one Enter; a second in the same place closes the path', async () => {
  const user = show('trace');
  await user.keyboard('{ArrowRight}{Enter}{ArrowRight}{Enter}{ArrowDown}{Enter}');
  expect(gestures.map((g) => g.points)).toEqual([[[408, 300]], [[416, 300]], [[416, 308]]]);
  expect(closePath).not.toHaveBeenCalled();
  await user.keyboard('{Enter}');
  expect(gestures).toHaveLength(3);
  expect(closePath).toHaveBeenCalledTimes(1);
});

test('corners of a polygon are clicked, an ellipse is drawn; a colour may be picked twice in one place', async () => {
  const user = show('shape', { polygon: true });
  await user.keyboard('{ArrowRight}{Enter}');
  expect(gestures).toHaveLength(1);
  const picking = show('colour');
  await picking.keyboard('{ArrowRight}{Enter}{Shift>}{Enter}{/Shift}');
  expect(gestures.slice(1).map((g) => [g.tool, g.shift])).toEqual([['colour', false], ['colour', true]]); // prettier-ignore
});

test('a point of the chosen step is taken along from Enter to Enter', async () => {
  const chosen = {
    ...{ id: 'path', name: 'Path', on: true, kind: 'trace', mode: 'add' },
    points: [[408, 300], [600, 300], [500, 500]], // prettier-ignore
  } as Step;
  const user = show('trace', { chosen });
  await user.keyboard('{ArrowRight}{Enter}{ArrowDown}{ArrowDown}{Enter}');
  expect(moves).toEqual([
    { id: 'path', index: 0, to: [408, 308], done: false },
    { id: 'path', index: 0, to: [408, 316], done: false },
    { id: 'path', index: 0, to: [408, 316], done: true },
  ]);
  expect(gestures).toEqual([]);
});

test('the cross stays on the photo, and the view moves along before it would leave it', async () => {
  const user = show('keep');
  for (let i = 0; i < 7; i++) await user.keyboard('{Shift>}{ArrowRight}{/Shift}');
  expect(screen.getByText('800,300')).toBeTruthy();
  expect(camera).toMatchObject({ zoom: 0.5, x: 496, y: 300 });
});

test('with the tool that moves the view arrows move the view, and the mouse takes the pointer back', async () => {
  const user = show('move');
  await user.keyboard('{ArrowRight}');
  expect(camera.x).toBeGreaterThan(400);
  expect(screen.getByText('no cross')).toBeTruthy();
  const drawing = show('keep');
  await drawing.keyboard('{ArrowRight}');
  expect(screen.getByText('408,300')).toBeTruthy();
  await drawing.pointer({ target: screen.getByRole('application'), coords: { x: 10, y: 10 } });
  expect(screen.queryByText('408,300')).toBeNull();
});
