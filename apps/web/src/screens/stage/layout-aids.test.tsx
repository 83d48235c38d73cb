import { beforeEach, expect, jest, test } from '@jest/globals';
import { addGuide } from '@scenograph/core/shot/guides';
import { emptyShot } from '@scenograph/core/shot/document';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { dragOver } from '../../../test/desk';
import { LayoutAids } from './layout-aids';
import { LayoutMenu } from './layout-menu';
import { toggleRulers, useLayoutAids } from './rulers';
import { useStage } from './store';

const shot = emptyShot(1000, 500);
const guides = () => useStage.getState().document!.guides ?? [];

/** The frame lies 100 and 50 pixels into the view, at half its size; in a slot it may be of another size. */
function show(frame = shot.frame) {
  render(
    <div data-stage-room>
      <LayoutAids left={100} top={50} zoom={0.5} frame={frame} size={{ width: 800, height: 400 }} />
      <LayoutMenu className="" />
    </div>,
  );
}

beforeEach(() => {
  useLayoutAids.setState({ rulers: true, grid: false, spacing: 100, centre: false });
  useStage.setState({
    ...{ id: 'a', document: shot, past: [], future: [], revision: 1, saving: 'saved', gestureBase: null },
  });
});

test('a guide is dragged out of a ruler, in pixels of the picture, and is one step to undo', () => {
  show();
  dragOver(screen.getByTestId('ruler-y'), [5, 200], [220, 210]);
  expect(guides()).toEqual([{ axis: 'x', at: 240 }]);
  dragOver(screen.getByTestId('ruler-x'), [300, 4], [300, 150]);
  expect(guides()[1]).toEqual({ axis: 'y', at: 200 });
  expect(useStage.getState().past.map((s) => s.label)).toEqual(['Add a guide', 'Add a guide']);
});

test('one that is let go outside the picture is not made', () => {
  show();
  dragOver(screen.getByTestId('ruler-y'), [5, 200], [60, 210]);
  dragOver(screen.getByTestId('ruler-x'), [300, 4], [300, 399]);
  expect(guides()).toEqual([]);
  expect(useStage.getState().past).toEqual([]);
});

test('in a slot of another size it is kept in pixels of the base', () => {
  show({ width: 400, height: 500 });
  dragOver(screen.getByTestId('ruler-y'), [5, 200], [200, 210]);
  expect(guides()).toEqual([{ axis: 'x', at: 500 }]);
  expect(screen.getByRole('separator').getAttribute('aria-valuenow')).toBe('200');
});

test('a guide is moved by dragging it, and taken off by dropping it outside', () => {
  useStage.setState({ document: addGuide(shot, { axis: 'x', at: 240 }) });
  show();
  const line = () => screen.getByRole('separator');
  dragOver(line(), [220, 100], [250, 100], [300, 100]);
  expect(guides()).toEqual([{ axis: 'x', at: 400 }]);
  expect(useStage.getState().past).toHaveLength(1);
  dragOver(line(), [300, 100], [40, 100]);
  expect(guides()).toEqual([]);
  expect(useStage.getState().past.at(-1)!.label).toBe('Remove a guide');
});

test('with the focus it is moved by arrow keys, a held key one step, and Delete takes it off', async () => {
  useStage.setState({ document: addGuide(shot, { axis: 'y', at: 100 }) });
  show();
  const user = userEvent.setup();
  screen.getByRole('separator').focus();
  // However slow the machine is, the key is held.
  const clock = jest.spyOn(Date, 'now').mockReturnValue(Date.now());
  await user.keyboard('{ArrowDown}{ArrowDown}{Shift>}{ArrowDown}{/Shift}{ArrowUp}');
  clock.mockRestore();
  expect(guides()).toEqual([{ axis: 'y', at: 111 }]);
  expect(useStage.getState().past).toHaveLength(1);
  await user.keyboard('{Delete}');
  expect(guides()).toEqual([]);
});

test('places are typed in the menu, and what is switched off is not there', async () => {
  show();
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Rulers, guides and grid' }));
  await user.click(screen.getByRole('button', { name: 'Add level' }));
  const field = screen.getByLabelText('Top');
  await user.clear(field);
  await user.type(field, '120.5{Enter}');
  expect(guides()).toEqual([{ axis: 'y', at: 120.5 }]);
  await user.click(screen.getByRole('button', { name: /Remove the guide at 120.5/ }));
  expect(guides()).toEqual([]);
  await user.click(screen.getByRole('switch', { name: 'Grid' }));
  expect(screen.getByTestId('grid-lines')).toBeTruthy();
  await user.click(screen.getByRole('switch', { name: 'Rulers and guides' }));
  expect(screen.queryByTestId('ruler-x')).toBeNull();
});

test('a grid that would be too close to see shows fewer lines, and rulers are kept for the next visit', () => {
  useLayoutAids.setState({ grid: true, spacing: 2 });
  show();
  const lines = screen.getByTestId('grid-lines').querySelector('path')!.getAttribute('d')!;
  expect(lines.split('M').length).toBeLessThan(140);
  toggleRulers();
  expect(JSON.parse(localStorage.getItem('scenograph-layout-aids')!)).toMatchObject({
    state: { rulers: false },
  });
});
