import { data, FRAME } from '@scenograph/core/shot/one-of-each.fixture';
import { emptyShot, type Shot } from '@scenograph/core/shot/document';
import type { ShotElement } from '@scenograph/core/elements/index';
import { newBackdrop, newPicture, newProduct, newText } from '@scenograph/core/shot/starters';
import { act } from '@testing-library/react';
import { useStage } from '../src/screens/stage/store';
import { HASH, ON_WHITE } from './listing';

const at = <E extends ShotElement>(element: E, x: number, y: number, width: number, height: number): E => ({
  ...element,
  box: { x, y, width, height, rotation: 0 },
});
const picture = (id: string) => newPicture(id, id, { picture: HASH, width: 200, height: 100 }, FRAME);

/** A shot of a backdrop, a product, two pictures side by side and a text. */
export const STAGED: Shot = {
  ...emptyShot(FRAME.width, FRAME.height),
  elements: [
    newBackdrop('backdrop', FRAME, '#ffffff'),
    { ...newProduct('product', data, FRAME, 'stand'), name: 'Planter' },
    at(picture('left'), 100, 100, 200, 100),
    at(picture('right'), 500, 300, 100, 50),
    at(newText('text', 'For {title}', FRAME), 300, 700, 400, 80),
  ],
};

/** Opens the shot on the stage with an element chosen; nothing is stored. */
export function stage(selected: string | null, also: string[] = [], document: Shot = STAGED): void {
  act(() =>
    useStage.setState({
      id: ON_WHITE,
      document,
      past: [],
      future: [],
      gestureBase: null,
      saving: 'saved',
      selected,
      also,
      slot: null,
    }),
  );
}

/** An element on the stage as it is now. */
export const onStage = (id: string) => useStage.getState().document!.elements.find((e) => e.id === id)!;
export const boxOf = (id: string) => onStage(id).box;
export const stepsBack = () => useStage.getState().past.map((p) => p.label);
