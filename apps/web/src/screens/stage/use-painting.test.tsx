import { act, renderHook, waitFor } from '@testing-library/react';
import { afterEach, expect, jest, test } from '@jest/globals';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { painting } from '../../../test/painters';
import { usePainting } from './use-painting';

const shot = (width: number) => ({ width }) as ResolvedShot;
const usual = painting.stage;
afterEach(() => {
  painting.stage = usual;
});

/** A canvas that takes bitmaps, and paintings that a test finishes by hand. */
function begin() {
  const shown: number[] = [];
  const canvas = document.createElement('canvas');
  canvas.getContext = (() => ({
    transferFromImageBitmap: ({ width }: ImageBitmap) => shown.push(width),
  })) as never;
  const asked: { shot: ResolvedShot; done(width: number): void; failed(message: string): void }[] = [];
  painting.stage = jest.fn(
    (asking: ResolvedShot) =>
      new Promise<ImageBitmap>((resolve, reject) =>
        asked.push({
          shot: asking,
          done: (width) => resolve({ width, height: 1 } as ImageBitmap),
          failed: (message) => reject(new Error(message)),
        }),
      ),
  );
  const ref = { current: canvas };
  const hook = renderHook(({ of }) => usePainting(ref, of, 1, false), {
    initialProps: { of: shot(1) },
  });
  const settled = (act_: () => void) =>
    act(async () => {
      act_();
      await Promise.resolve();
    });
  return { ...hook, asked, shown, canvas, settled };
}

test('the newest state is painted, those in between are skipped', async () => {
  const { rerender, asked, shown, canvas, settled } = begin();
  for (const width of [2, 3, 4]) rerender({ of: shot(width) });
  expect(canvas.getAttribute('aria-busy')).toBe('true');
  await settled(() => asked[0].done(1));
  await waitFor(() => expect(asked).toHaveLength(2));
  expect(asked[1].shot.width).toBe(4);
  await settled(() => asked[1].done(4));
  await waitFor(() => expect(canvas.getAttribute('aria-busy')).toBe('false'));
  expect(shown).toEqual([1, 4]);
  expect(canvas.dataset.painted).toBe('2');
});

test('what could not be painted is told, and goes when it is painted again', async () => {
  const { result, asked, shown, settled } = begin();
  await settled(() => asked[0].failed('A picture of this shot is not in the store any more.'));
  await waitFor(() => expect(result.current.trouble).toMatch(/not in the store/));
  expect(shown).toEqual([]);
  await settled(() => result.current.tryAgain());
  await waitFor(() => expect(asked).toHaveLength(2));
  await settled(() => asked[1].done(7));
  await waitFor(() => expect(result.current.trouble).toBeNull());
  expect(shown).toEqual([7]);
});

test('what could not be painted is tried again by itself when the network is back', async () => {
  const { result, asked, settled } = begin();
  await settled(() => asked[0].failed('The server cannot be reached. Is Scenograph still running?'));
  await waitFor(() => expect(result.current.trouble).toMatch(/cannot be reached/));
  await settled(() => window.dispatchEvent(new Event('online')));
  await waitFor(() => expect(asked).toHaveLength(2));
  await settled(() => asked[1].done(1));
  await waitFor(() => expect(result.current.trouble).toBeNull());
  await settled(() => window.dispatchEvent(new Event('online')));
  expect(asked).toHaveLength(2);
});
