import type { Remote } from 'comlink';
import { useEffect, useRef } from 'react';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import type { DeskWorker } from '../../workers/desk.worker';
import { msg } from '../../language/language';

const SIDE = 88;
/** Photo pixels across a pane. */
const ACROSS = 16;

/** The same place of the edge on white, on black and on the scene it will stand in, side by side. */
export function EdgeLoupe({
  worker,
  recipe,
  version,
  size,
  at,
  scene,
  sceneTitle,
}: {
  worker: Remote<DeskWorker> | null;
  recipe: CutoutRecipe;
  version: number;
  size: { width: number; height: number };
  at: { x: number; y: number } | null;
  scene: ImageBitmap | null;
  sceneTitle: string;
}) {
  const panes = useRef<(HTMLCanvasElement | null)[]>([]);
  const wish = useRef<(() => Promise<void>) | null>(null);
  const busy = useRef(false);
  useEffect(() => {
    if (!worker || !at || !version) return;
    const left = Math.round(Math.min(Math.max(0, at.x - ACROSS / 2), Math.max(0, size.width - ACROSS)));
    const top = Math.round(Math.min(Math.max(0, at.y - ACROSS / 2), Math.max(0, size.height - ACROSS)));
    const view = {
      left,
      top,
      k: 1,
      width: Math.min(ACROSS, size.width),
      height: Math.min(ACROSS, size.height),
    };
    wish.current = async () => {
      const { cut } = await worker.view(view, recipe, { photo: false, rings: false });
      panes.current.forEach((pane, i) => {
        const c = pane?.getContext('2d');
        if (!c) return;
        c.imageSmoothingEnabled = true;
        if (i === 2 && scene) {
          // A part of the scene's lower half, where products stand.
          c.drawImage(scene, scene.width * 0.4, scene.height * 0.62, 120, 120, 0, 0, SIDE, SIDE);
        } else {
          c.fillStyle = ['#ffffff', '#000000', '#9c8262'][i];
          c.fillRect(0, 0, SIDE, SIDE);
        }
        c.imageSmoothingEnabled = false;
        c.drawImage(cut, 0, 0, SIDE, SIDE);
      });
    };
    const work = async () => {
      if (busy.current) return;
      busy.current = true;
      while (wish.current) {
        const job = wish.current;
        wish.current = null;
        await job().catch(() => undefined);
      }
      busy.current = false;
    };
    void work();
  }, [worker, recipe, version, size, at, scene]);
  return (
    <div>
      <div className="grid grid-cols-3 gap-1.5">
        {[msg('white'), msg('black'), sceneTitle].map((name, i) => (
          <figure key={i} className="border-line relative border">
            <canvas
              ref={(el) => {
                panes.current[i] = el;
              }}
              width={SIDE}
              height={SIDE}
              className="block w-full"
              role="img"
              aria-label={msg('Edge on {name}', { name })}
            />
            <figcaption className="measure absolute bottom-1 left-1 max-w-[90%] truncate rounded-sm bg-[#171b19b0] px-1 text-[10px] text-white">
              {name}
            </figcaption>
          </figure>
        ))}
      </div>
      <p className="text-ink-2 mt-2 text-[12px]">
        {msg('Edge loupe, {zoom} %, follows the pointer', { zoom: Math.round((SIDE / ACROSS) * 100) })}
      </p>
    </div>
  );
}
