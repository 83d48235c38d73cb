import { beforeEach, expect, test } from '@jest/globals';
import { act, render, screen } from '@testing-library/react';
import { emptyShot } from '@scenograph/core/shot/document';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { newText } from '@scenograph/core/shot/starters';
import { useHeld, useIsMoving, useMoved, useMoving, useTellMoving } from './moving';
import { useGestures } from './use-gestures';
import { useStage } from './store';

const frame = { width: 400, height: 400 };
const text = {
  ...newText('title', 'Sale', frame),
  box: { x: 10, y: 20, width: 100, height: 40, rotation: 0 },
};
const other = {
  ...newText('note', 'Now', frame),
  box: { x: 200, y: 20, width: 100, height: 40, rotation: 0 },
};
const shot = { ...emptyShot(frame.width, frame.height), elements: [text, other] };

/** As the stage does it: what lies around the picture is held, the numbers follow. */
function Screen() {
  const document = useStage((s) => s.document)!;
  const selected = useStage((s) => s.selected);
  const resolved = resolveBase(document, null);
  const moving = useIsMoving();
  const { drag } = useGestures(resolved, null);
  useTellMoving(resolved, selected, moving);
  const still = useHeld(resolved, moving);
  const dragTo = (x: number, done: boolean) => drag('title', x, 0, 0, done);
  return (
    <>
      <button onClick={() => dragTo(30, false)}>Drag</button>
      <button onClick={() => dragTo(50, true)}>Let go</button>
      <output aria-label="Seen">{resolved.elements[0].box.x}</output>
      <output aria-label="Strip">{still.elements[0].box.x}</output>
      <PlaceOf of="title" still={still} />
      <PlaceOf of="note" still={still} />
    </>
  );
}

function PlaceOf({ of: id, still }: { of: string; still: ReturnType<typeof resolveBase> }) {
  const element = useMoved(still.elements.find((e) => e.id === id)!);
  return <output aria-label={`Number of ${id}`}>{element.box.x}</output>;
}

const shown = () =>
  ['Seen', 'Strip', 'Number of title', 'Number of note'].map((name) =>
    Number(screen.getByLabelText(name).textContent),
  );
const press = (name: string) => act(() => screen.getByRole('button', { name }).click());

beforeEach(() => {
  useMoving.setState({ on: false, element: null });
  useStage.setState({
    ...{ id: 'a', document: shot, past: [], future: [], revision: 1, saving: 'saved', gestureBase: null },
    ...{ selected: 'title', also: [], slot: null },
  });
  render(<Screen />);
});

test('while something is dragged the picture and its numbers follow, all else waits until it is let go', () => {
  expect(shown()).toEqual([10, 10, 10, 200]);
  press('Drag');
  expect(shown()).toEqual([40, 10, 40, 200]);
  press('Let go');
  expect(shown()).toEqual([60, 60, 60, 200]);
  expect(useStage.getState().past).toHaveLength(1);
  expect(useMoving.getState()).toEqual({ on: false, element: null });
});

test('a drag that is given up holds nothing back', () => {
  press('Drag');
  act(() => useStage.getState().abandon());
  expect(shown()).toEqual([10, 10, 10, 200]);
  act(() => useStage.getState().edit('Move', (s) => ({ ...s, elements: [other, text] })));
  expect(shown().slice(0, 2)).toEqual([200, 200]);
});

test('a slider of the desk changes all at once: it is no drag on the picture', () => {
  const wider = { ...text, box: { ...text.box, x: 15 } };
  act(() => useStage.getState().during((s) => ({ ...s, elements: [wider, other] })));
  expect(shown()).toEqual([15, 15, 15, 200]);
});
