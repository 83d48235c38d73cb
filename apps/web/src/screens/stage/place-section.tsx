import { elementKind, type ShotElement } from '@scenograph/core/elements/index';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { kindUi } from './kinds/index';
import { PlaceDesk } from './place-desk';
import { Section } from './section';
import { useStage } from './store';
import { trueSize, type TrueSize } from './true-size';
import type { Editing } from './use-editing';

/** Other products that could take the chosen one's place. */
export interface Swaps {
  choices: { id: string; title: string }[];
  onSwap(id: string): void;
}

const summaryOf = (element: ShotElement | null, size: TrueSize | null) => {
  if (size) return `${Math.round(size.ratio * 100)} % of true size`;
  return element ? element.name : 'nothing chosen';
};

/** Where the chosen element stands and how large it is, with what its kind adds. */
export function PlaceSection({
  element,
  editing,
  own,
  swaps: { choices, onSwap },
}: {
  element: ShotElement | null;
  editing: Editing;
  own: {
    shot: ResolvedShot;
    palette: string[];
    during(value: Partial<ShotElement>): void;
    commit(label: string, value: Partial<ShotElement>): void;
  };
  swaps: Swaps;
}) {
  const { also } = useStage();
  const size = element ? trueSize(own.shot, element) : null;
  const ui = element && kindUi(element);
  return (
    <Section n={1} id="place" title="Place" summary={summaryOf(element, size)}>
      {element ? (
        <>
          <PlaceDesk
            // What was typed for one element is not taken for another.
            key={element.id}
            element={element}
            size={size}
            several={also.length + 1}
            editing={editing}
            frame={own.shot}
            onPlace={(label, box, proportional) => editing.place(label, element, box, proportional)}
          />
          {ui?.Place && <ui.Place key={`own-${element.id}`} element={element} {...own} />}
          {ui?.Place && elementKind(element.kind).role === 'subject' && choices.length > 0 && (
            <label className="mt-2 flex items-center gap-3 text-[12px]">
              <span className="text-ink-2 w-19 shrink-0">Swap for</span>
              <select
                aria-label="Swap for another product"
                className="border-line bg-card h-7 min-w-0 grow rounded-md border px-2 text-[13px]"
                value=""
                onChange={(e) => e.target.value && onSwap(e.target.value)}
              >
                <option value="">another product or variant</option>
                {choices.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.title}
                  </option>
                ))}
              </select>
            </label>
          )}
        </>
      ) : (
        <p className="text-ink-2">Choose something on the stage or in the depth strip.</p>
      )}
    </Section>
  );
}
