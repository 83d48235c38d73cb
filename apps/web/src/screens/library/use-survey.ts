import { useEffect, useRef, useState } from 'react';
import { surveyCamera, surveyView, type SceneSurvey } from '@scenograph/core/stage/survey';
import { areaSurface } from '@scenograph/core/surface/area-surface';
import { refresh, type Scene, call } from '../../api/client';
import { say } from '../../ui/notices';

/** What of a scene is edited in its survey. */
export type Surveyed = Pick<Scene, 'title' | 'survey' | 'palette' | 'season'>;

const KEPT = 200;

interface History {
  now: Surveyed;
  past: Surveyed[];
  future: Surveyed[];
}

const surveyed = ({ title, survey, palette, season }: Surveyed): Surveyed => ({
  title,
  survey,
  palette,
  season,
});

/** Steps kept in the browser are taken up again where they end in what the server has. */
function taken(scene: Scene): History {
  const now = surveyed(scene);
  try {
    const kept = JSON.parse(localStorage.getItem(`survey:${scene.id}`) ?? 'null') as History | null;
    if (kept && JSON.stringify(kept.now) === JSON.stringify(now)) return kept;
  } catch {
    // What cannot be read is no history.
  }
  return { now, past: [], future: [] };
}

/** A scene's survey being edited: saved as it is made, undone step by step, after a reload too. */
export function useSurvey(scene: Scene) {
  const [history, setHistory] = useState(() => taken(scene));
  const [saving, setSaving] = useState('saved');
  const begun = useRef<Surveyed | null>(null);
  const { now, past, future } = history;
  // What finishes later (a cutout taken over, a mark grown over) is added to what there is then.
  const latest = useRef(history);
  latest.current = history;

  const show = (next: History) => {
    latest.current = next;
    setHistory(next);
  };
  const keep = (next: History) => {
    show(next);
    try {
      localStorage.setItem(`survey:${scene.id}`, JSON.stringify(next));
    } catch {
      // Full or closed storage only shortens how far back a reload remembers.
    }
  };
  const store = async (next: Surveyed) => {
    setSaving('saving');
    try {
      await call('PUT /api/scenes/:id', { params: { id: scene.id }, body: next });
      refresh('/api/scenes');
      setSaving('saved');
    } catch (e) {
      // What stands on the server stays; here it can be set right.
      setSaving('not saved');
      say('stop', (e as Error).message);
    }
  };
  const during = (value: Partial<Surveyed>) => {
    const present = latest.current;
    begun.current ??= present.now;
    show({ ...present, now: { ...present.now, ...value } });
  };
  const commit = (value: Partial<Surveyed>, { stored = false } = {}) => {
    const present = latest.current;
    const next = { ...present.now, ...value };
    const before = begun.current ?? present.now;
    begun.current = null;
    if (JSON.stringify(before) === JSON.stringify(next)) return show({ ...present, now: next });
    keep({ now: next, past: [...present.past, before].slice(-KEPT), future: [] });
    if (stored) return;
    try {
      surveyCamera(next.survey);
      for (const area of next.survey.areas) areaSurface(area, surveyView(next.survey));
    } catch {
      setSaving('not saved: the measures do not fit');
      return;
    }
    void store(next);
  };
  const step = (by: -1 | 1) => {
    const to = by < 0 ? past[past.length - 1] : future[0];
    if (!to) return;
    keep(
      by < 0
        ? { now: to, past: past.slice(0, -1), future: [now, ...future] }
        : { now: to, past: [...past, now], future: future.slice(1) },
    );
    void store(to);
  };

  const stepping = useRef(step);
  stepping.current = step;
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || (e.target as HTMLElement).matches('input, textarea')) return;
      const letter = e.key.toLowerCase();
      if (letter !== 'z' && letter !== 'y') return;
      e.preventDefault();
      stepping.current(letter === 'y' || e.shiftKey ? 1 : -1);
    };
    window.addEventListener('keydown', key);
    return () => window.removeEventListener('keydown', key);
  }, []);

  return {
    now,
    saving,
    canUndo: past.length > 0,
    canRedo: future.length > 0,
    undo: () => step(-1),
    redo: () => step(1),
    /** A change while dragging: shown, not yet kept. */
    during,
    /** A finished change: one step; `stored` where the server has it already. */
    commit,
    duringSurvey: (value: Partial<SceneSurvey>) =>
      during({ survey: { ...latest.current.now.survey, ...value } }),
    commitSurvey: (value: Partial<SceneSurvey>, how?: { stored?: boolean }) =>
      commit({ survey: { ...latest.current.now.survey, ...value } }, how),
  };
}
