import { fireEvent } from '@testing-library/react';
import { PLAIN_RECIPE, type CutoutRecipe } from '@scenograph/core/cutout/recipe';
import type { CutoutDesk } from '../src/api/client';
import type { DeskWorker, SolvedNote } from '../src/workers/desk.worker';
import type { Running } from '../src/workers/live-worker';
import { painting } from './painters';

/** A photo's desk as the server has it. */
export const deskOf = (recipe: CutoutRecipe = PLAIN_RECIPE, over: Partial<CutoutDesk> = {}): CutoutDesk => ({
  recipe,
  history: { past: [], future: [] },
  revision: 3,
  outlines: [],
  inUse: true,
  standsIn: [],
  ...over,
});

const bitmap = () => ({ width: 8, height: 8, close() {} }) as ImageBitmap;

/** Stands in for the cutout worker: cuts nothing, and answers what a test tells it to. */
export function deskWorker(told: Partial<SolvedNote> = {}, over: object = {}) {
  const solved: CutoutRecipe[] = [];
  let breakDown!: (error: Error) => void;
  let starts = 0;
  const none = { mean: 0, worst: 0 };
  const histogram = { red: [], green: [], blue: [], clippedDark: 0, clippedLight: 0 };
  const shown = () => ({
    view: { left: 0, top: 0, k: 1, width: 8, height: 8 },
    cut: bitmap(),
    photo: null,
    rings: [],
  });
  const worker = {
    load: () => Promise.resolve({ width: 3000, height: 2000 }),
    tidy: () => Promise.resolve({ width: 3000, height: 2000, histogram }),
    solve: (recipe: CutoutRecipe) => {
      solved.push(recipe);
      return Promise.resolve({
        confidence: 0.7,
        doubts: [],
        milliseconds: 12,
        empty: false,
        paths: {},
        shown: null,
        ...told,
      });
    },
    view: () => Promise.resolve(shown()),
    fringe: () => Promise.resolve({ white: none, black: none, worstAt: null, around: [] }),
    base: () => Promise.resolve(null),
    trace: (points: unknown) => Promise.resolve(points),
    colourPreview: () => Promise.resolve(null),
    keptAt: () => Promise.resolve(true),
    colourAt: () => Promise.resolve('#808080'),
    matte: () => Promise.resolve(new Blob(['png'])),
    ...over,
  };
  painting.desk = () => {
    starts++;
    const stopped = new Promise<never>((_, reject) => (breakDown = reject));
    stopped.catch(() => undefined);
    return { remote: worker, stopped, end() {} } as unknown as Running<DeskWorker>;
  };
  return {
    /** Recipes that were carried out, the newest last. */
    solved,
    breakDown: (message: string) => breakDown(new Error(message)),
    starts: () => starts,
  };
}

/** What draws on a canvas in jsdom: everything can be called, nothing is drawn. */
export function drawNothing(): void {
  const drawn: Record<string | symbol, unknown> = {};
  const context = new Proxy(drawn, {
    get: (target, key) => target[key] ?? (() => undefined),
    set: (target, key, value) => ((target[key] = value), true),
  });
  HTMLCanvasElement.prototype.getContext = (() => context) as never;
}

/** Draws on an element from place to place, in CSS pixels. */
export function dragOver(element: Element, ...places: [number, number][]): void {
  dragWith(0, element, ...places);
}

/** The same with another button of the mouse: 1 is the middle one. */
export function dragWith(button: number, element: Element, ...places: [number, number][]): void {
  const event = (type: string, [clientX, clientY]: [number, number]) =>
    fireEvent(
      element,
      new MouseEvent(type, { bubbles: true, cancelable: true, clientX, clientY, button, buttons: 1 }),
    );
  event('pointerdown', places[0]);
  for (const place of places) event('pointermove', place);
  event('pointerup', places[places.length - 1]);
}
