import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { msg } from '../../language/language';

/** Makes a handle at a place of the picture; dragged, or moved by arrow keys, it makes a change of the survey. */
export type MakeHandle<Change = Partial<SceneSurvey>> = (
  label: string,
  at: [number, number],
  change: (to: [number, number]) => Change,
  how?: HandleLook<Change>,
) => React.ReactNode;

export interface HandleLook<Change> {
  colour?: string;
  /** Whether it is drawn to what the picture shows; with Alt it is not. */
  snaps?: boolean;
  /** One of many. */
  small?: boolean;
  /** The change that removes it, by Delete. */
  without?: Change;
}

interface Hands<Change> {
  /** Picture pixels a screen pixel. */
  px: number;
  /** Where the pointer is in the picture. */
  at(e: React.PointerEvent): [number, number];
  /** A place drawn to a strong corner of the picture where one lies near. */
  snap(to: [number, number]): [number, number];
  during(value: Change): void;
  commit(value: Change): void;
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** What `MakeHandle` makes, for one survey's picture. Arrows move by one picture pixel, with Shift by ten. */
export function handlesFor<Change>({ px, at, snap, during, commit }: Hands<Change>): MakeHandle<Change> {
  function handle(
    label: string,
    [x, y]: [number, number],
    change: (to: [number, number]) => Change,
    { colour = '#ffffff', snaps = false, small = false, without }: HandleLook<Change> = {},
  ) {
    const to = (e: React.PointerEvent) => (snaps && !e.altKey ? snap(at(e)) : at(e));
    return (
      <circle
        key={label}
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuetext={msg('{x}, {y} pixels', { x: Math.round(x), y: Math.round(y) })}
        aria-valuenow={Math.round(x)}
        cx={x}
        cy={y}
        r={(small ? 5.5 : 8) * px}
        fill={colour}
        stroke="#12463a"
        strokeWidth={(small ? 2 : 2.5) * px}
        className="cursor-grab"
        onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
        onPointerMove={(e) => e.buttons && during(change(to(e)))}
        onPointerUp={(e) => commit(change(to(e)))}
        onKeyDown={(e) => {
          if (without && (e.key === 'Delete' || e.key === 'Backspace')) {
            e.preventDefault();
            return commit(without);
          }
          const arrow = ARROWS[e.key];
          if (!arrow) return;
          e.preventDefault();
          const by = e.shiftKey ? 10 : 1;
          commit(change([x + arrow[0] * by, y + arrow[1] * by]));
        }}
      />
    );
  }
  return handle;
}
