import { useRef, useState } from 'react';
import { touchedBy } from '@scenograph/core/shot/align';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { useStage } from './store';

interface Point {
  x: number;
  y: number;
}

/** Screen pixels below which a press is a click and draws no frame. */
const CLICK = 4;

const between = (a: Point, b: Point) => ({
  x: Math.min(a.x, b.x),
  y: Math.min(a.y, b.y),
  width: Math.abs(a.x - b.x),
  height: Math.abs(a.y - b.y),
});

/**
 * A frame drawn over the stage from where nothing is grabbed: it chooses what it touches, with Shift beside what is chosen.
 * @param toFrame from a place of the room to the shot's frame
 */
export function useChoosingFrame(resolved: ResolvedShot, toFrame: (at: Point) => Point) {
  const from = useRef<{ at: Point; before: string[] } | null>(null);
  const [drawn, setDrawn] = useState<ReturnType<typeof between> | null>(null);
  const end = () => {
    from.current = null;
    setDrawn(null);
  };
  return {
    drawn,
    begin(at: Point, more: boolean) {
      const { selected, also } = useStage.getState();
      from.current = { at, before: more && selected ? [selected, ...also] : [] };
    },
    to(at: Point | null, buttons: number) {
      if (!from.current || !at) return;
      if (!(buttons & 1)) return end();
      const frame = between(from.current.at, at);
      if (!drawn && Math.max(frame.width, frame.height) < CLICK) return;
      setDrawn(frame);
      const { before } = from.current;
      const touched = touchedBy(resolved.elements, between(toFrame(from.current.at), toFrame(at)));
      const [selected = null, ...also] = [...before, ...touched.filter((id) => !before.includes(id))];
      useStage.setState({ selected, also });
    },
    end,
  };
}
