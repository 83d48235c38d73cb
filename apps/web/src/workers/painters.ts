import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import type { Slot } from '@scenograph/core/spec/slot';
import type { SceneFill } from '@scenograph/core/elements/backdrop/model';
import type { Reach } from '@scenograph/core/surface/uv-map';
import type { DeskWorker } from './desk.worker';
import { liveWorker, runWorker, type Running } from './live-worker';
import type { PaintWorker, StagingNote } from './paint.worker';

const open = () => new Worker(new URL('./paint.worker.ts', import.meta.url), { type: 'module' });
/** Paints the picture being worked on; the other one paints thumbnails and measures. */
const front = liveWorker<PaintWorker>(open);
const back = liveWorker<PaintWorker>(open);

let stageWork: Promise<unknown> = Promise.resolve();

/** Paints the picture being worked on; thumbnails and checks, which have a worker of their own, wait meanwhile. */
export function paintStage(shot: ResolvedShot, scale: number, draft = false): Promise<ImageBitmap> {
  const painting = front.ask((w) => w.paint(shot, scale, draft, true));
  stageWork = painting.catch(() => undefined);
  return painting;
}

/** What is in view comes before what is not, and every painting before any check. */
export type Turn = 'seen' | 'unseen' | 'check';
const ORDER: readonly Turn[] = ['seen', 'unseen', 'check'];

interface Task {
  run(): Promise<void>;
  wanted(): boolean;
}

const waiting: Record<Turn, Task[]> = { seen: [], unseen: [], check: [] };
let busy = false;

async function work(): Promise<void> {
  if (busy) return;
  busy = true;
  for (;;) {
    const turn = ORDER.find((t) => waiting[t].length);
    if (!turn) break;
    const task = waiting[turn].shift()!;
    await stageWork;
    if (task.wanted()) await task.run();
  }
  busy = false;
}

function inTurn<T>(job: () => Promise<T>, wanted: () => boolean, turn: Turn): Promise<T | null> {
  return new Promise((resolve, reject) => {
    waiting[turn].push({
      wanted: () => wanted() || (resolve(null), false),
      run: () => job().then(resolve, reject),
    });
    void work();
  });
}

/** A small painting, in turn; null when it is not wanted any more by the time its turn comes. */
export function paintThumbnail(
  shot: ResolvedShot,
  scale: number,
  wanted: () => boolean,
  turn: Turn = 'seen',
): Promise<ImageBitmap | null> {
  return inTurn(() => back.ask((w) => w.paint(shot, scale)), wanted, turn);
}

export function checkShot(
  shot: ResolvedShot,
  slot: Slot,
  slotKey: string,
  sources: [string, { width: number; height: number }][],
  wanted: () => boolean,
): Promise<CheckResult[] | null> {
  return inTurn(() => back.ask((w) => w.check(shot, slot, slotKey, sources)), wanted, 'check');
}

/** What can be said of the base without a slot's rules. */
export function watchShot(
  shot: ResolvedShot,
  slot: Slot,
  sources: [string, { width: number; height: number }][],
  wanted: () => boolean,
): Promise<CheckResult[] | null> {
  return inTurn(() => back.ask((w) => w.watch(shot, slot, sources)), wanted, 'check');
}

/** What the painter finds where a product stands. */
export function measureStaging(shot: ResolvedShot, id: string): Promise<StagingNote | null> {
  return front.ask((w) => w.staging(shot, id));
}

/** The colours that make up a picture. */
export function paletteOfPicture(hash: string): Promise<string[]> {
  return back.ask((w) => w.palette(hash));
}

/** A desk worker of one's own: it holds one photo open. Ending it lets go of the photo. */
export function startDesk(): Running<DeskWorker> {
  return runWorker(() => new Worker(new URL('./desk.worker.ts', import.meta.url), { type: 'module' }));
}

/** How far a mockup's item reaches over one of its areas. */
export function reachOfItem(fill: SceneFill, areaId: string): Promise<Reach> {
  return back.ask((w) => w.itemReach(fill, areaId));
}
