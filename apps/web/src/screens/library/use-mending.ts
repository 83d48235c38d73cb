import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import type { MendStep } from '@scenograph/core/retouch/mend';
import { blobUrl, type Scene, upload } from '../../api/client';
import { say } from '../../ui/notices';
import type { MendWorker } from '../../workers/mend.worker';
import { msg } from '../../language/language';

export interface MendTool {
  kind: 'copy' | 'fill';
  radius: number;
  softness: number;
  /** Copying: what the strokes take, relative to what they cover; null until a source is chosen. */
  offset: [number, number] | null;
  source: [number, number] | null;
}

/** Covers marks on a scene's picture: the steps are kept, the picture is made anew from the original. */
export function useMending(scene: Scene, survey: SceneSurvey, commit: (value: Partial<SceneSurvey>) => void) {
  const [tool, setTool] = useState<MendTool | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const worker = useRef<Worker | null>(null);
  useEffect(() => () => worker.current?.terminate(), []);

  const cancel = () => {
    worker.current?.terminate();
    worker.current = null;
    setProgress(null);
  };
  /** Makes the picture for these steps and keeps both. */
  const carryOut = async (mends: MendStep[]) => {
    cancel();
    if (!mends.some((m) => !m.hidden)) return commit({ mends, mended: null });
    const mine = new Worker(new URL('../../workers/mend.worker.ts', import.meta.url), { type: 'module' });
    worker.current = mine;
    setProgress(0);
    try {
      const api: Remote<MendWorker> = wrap<MendWorker>(mine);
      const blob = await api.mend(
        blobUrl(scene.picture),
        mends,
        proxy((share: number) => {
          if (worker.current === mine) setProgress(share);
        }),
      );
      const { mended } = await upload('POST /api/scenes/:id/mended', {
        params: { id: scene.id },
        file: blob,
      });
      if (worker.current === mine) commit({ mends, mended });
    } catch (e) {
      if (worker.current === mine) say('stop', (e as Error).message);
    }
    if (worker.current === mine) cancel();
  };
  /** A finished stroke of the tool in hand. */
  const stroke = (points: [number, number][]) => {
    if (!tool) return;
    const { kind, radius, softness } = tool;
    const ids = new Set(survey.mends.map((m) => m.id));
    let n = 1;
    while (ids.has(`mend-${n}`)) n++;
    const base = { id: `mend-${n}`, hidden: false, points, radius, softness };
    if (kind === 'fill')
      return void carryOut([...survey.mends, { ...base, kind, name: `Fill ${n}`, seed: n }]);
    let { offset } = tool;
    if (!offset && tool.source) offset = [tool.source[0] - points[0][0], tool.source[1] - points[0][1]];
    if (!offset)
      return say('stop', msg('Choose first where to copy from: hold Alt and click on a clean place.'));
    setTool({ ...tool, offset });
    void carryOut([...survey.mends, { ...base, kind, name: `Copy ${n}`, offset }]);
  };
  return { tool, setTool, progress, cancel, carryOut, stroke };
}
