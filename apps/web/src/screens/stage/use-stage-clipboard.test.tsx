import { beforeEach, expect, jest, test } from '@jest/globals';
import { createEvent, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { boxOf, onStage, stage, STAGED } from '../../../test/stage';
import { MOMENT, uuid } from '../../../test/listing';
import { Notices } from '../../ui/notices';
import { add } from './commands';
import { useStage } from './store';
import { useStageClipboard } from './use-stage-clipboard';

const addText = jest.fn();
function Stage() {
  useStageClipboard(add, addText);
  return (
    <>
      <input aria-label="Left" />
      <div data-drop-says="Drop">
        <canvas aria-label="picture" />
      </div>
      <Notices />
    </>
  );
}

/** What a clipboard holds, for as long as a test needs it. */
class Board {
  held = new Map<string, string>();
  files: File[] = [];
  setData(type: string, value: string) {
    this.held.set(type, value);
  }
  getData(type: string) {
    return this.held.get(type) ?? '';
  }
}
let board: Board;
const copy = (on: Element = document.body) => fireEvent.copy(on, { clipboardData: board });
const cut = () => fireEvent.cut(document.body, { clipboardData: board });
const paste = (on: Element = document.body) => fireEvent.paste(on, { clipboardData: board });
const ids = () => useStage.getState().document!.elements.map((e) => e.id);
const png = (name: string) => new File(['x'], name, { type: 'image/png' });
const PICTURE = {
  id: uuid(7),
  title: 'Tag',
  original: 'a'.repeat(64),
  picture: 'a'.repeat(64),
  width: 400,
  height: 200,
  createdAt: MOMENT,
};

beforeEach(() => {
  jest.clearAllMocks();
  board = new Board();
  answering({ 'PUT /api/shots/:id': { revision: 9 } as never });
  stage('left');
  render(<Stage />);
});

test('what is copied is pasted in front, a little aside, and chosen; undo takes it back', () => {
  copy();
  expect(board.held.get('text/plain')).toBe('left');
  paste();
  const pasted = useStage.getState().selected!;
  expect(ids().at(-1)).toBe(pasted);
  expect(boxOf(pasted).x).toBeGreaterThan(boxOf('left').x);
  expect(onStage(pasted).name).toBe('left, copy');
  useStage.getState().undo();
  expect(ids()).toEqual(STAGED.elements.map((e) => e.id));
});

test('several are cut as one step, and come back in their place and order', () => {
  useStage.getState().choose('right');
  const was = [boxOf('left'), boxOf('right')];
  cut();
  expect(ids()).not.toContain('left');
  expect(ids()).not.toContain('right');
  expect(useStage.getState().past).toHaveLength(1);
  paste();
  const { selected, also } = useStage.getState();
  expect([boxOf(selected!), boxOf(also[0])]).toEqual(was);
});

test('in another shot it keeps its share of the frame', () => {
  copy();
  const half = { width: STAGED.frame.width / 2, height: STAGED.frame.height / 2 };
  const before = boxOf('left');
  stage('product', [], { ...STAGED, frame: half, elements: STAGED.elements.filter((e) => e.id !== 'left') });
  paste();
  const { x, y, width, height } = boxOf(useStage.getState().selected!);
  expect([x, y, width, height]).toEqual([before.x, before.y, before.width, before.height].map((v) => v / 2));
});

test('a field keeps its own copying and pasting', () => {
  const field = screen.getByLabelText('Left');
  copy(field);
  expect(board.held.size).toBe(0);
  board.setData('text/plain', '12');
  paste(field);
  expect(addText).not.toHaveBeenCalled();
  expect(ids()).toHaveLength(STAGED.elements.length);
});

test('text from elsewhere becomes a text', () => {
  board.setData('text/plain', '  Back in stock \n');
  paste();
  expect(addText.mock.calls).toEqual([['Back in stock']]);
});

test('a clip that cannot be read is refused with a sentence', () => {
  board.setData('application/x-scenograph-clip+json', '{"version":999}');
  paste();
  expect(ids()).toHaveLength(STAGED.elements.length);
  expect(screen.getByText(/version 999/)).toBeTruthy();
});

test('a picture is taken into the library and laid in the shot; one that is refused is said', async () => {
  const asked = answering({
    'POST /api/pictures': ({ query }) =>
      query.name === 'bad.png' ? refusal('This file is no picture.', 422) : PICTURE,
  });
  board.files = [png('tag.png'), png('bad.png')];
  paste();
  expect(await screen.findByText('This file is no picture.')).toBeTruthy();
  expect(asked.map((a) => a.sent.query.name)).toEqual(['tag.png', 'bad.png']);
  expect(onStage(ids().at(-1)!)).toMatchObject({ kind: 'picture', name: 'Tag', picture: PICTURE.picture });
});

test('a picture that is dropped lies where it was dropped, within the frame', async () => {
  answering({ 'POST /api/pictures': PICTURE });
  const canvas = screen.getByLabelText('picture');
  canvas.getBoundingClientRect = () => ({ left: 100, top: 50, width: 600, height: 450 }) as DOMRect;
  const { frame } = STAGED;
  const drop = async (clientX: number, clientY: number) => {
    const n = ids().length;
    // jsdom's drag events have no place.
    const event = createEvent.drop(canvas, { dataTransfer: { files: [png('tag.png')] } });
    fireEvent(
      canvas,
      Object.defineProperties(event, { clientX: { value: clientX }, clientY: { value: clientY } }),
    );
    await waitFor(() => expect(ids()).toHaveLength(n + 1));
    return boxOf(ids().at(-1)!);
  };
  const middle = await drop(400, 275);
  expect([middle.x + middle.width / 2, middle.y + middle.height / 2]).toEqual([
    frame.width / 2,
    frame.height / 2,
  ]);
  const corner = await drop(101, 51);
  expect([corner.x, corner.y]).toEqual([0, 0]);
});
