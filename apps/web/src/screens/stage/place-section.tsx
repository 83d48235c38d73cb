import { elementKind, type ShotElement } from '@scenograph/core/elements/index';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { useState } from 'react';
import { Button } from '../../ui/controls';
import { kindUi } from './kinds/index';
import { PlaceDesk } from './place-desk';
import { Section } from './section';
import { useStage } from './store';
import { trueSize, type TrueSize } from './true-size';
import type { Editing } from './use-editing';
import { VariantSearch, type VariantChoice } from './variant-search';
import { msg } from '../../language/language';

const summaryOf = (element: ShotElement | null, size: TrueSize | null) => {
  if (size) return msg('{ratio} % of true size', { ratio: Math.round(size.ratio * 100) });
  return element ? element.name : msg('nothing chosen');
};

/** Where the chosen element stands and how large it is, with what its kind adds. */
export function PlaceSection({
  element,
  editing,
  own,
  onSwap,
}: {
  element: ShotElement | null;
  editing: Editing;
  own: {
    shot: ResolvedShot;
    palette: string[];
    during(value: Partial<ShotElement>): void;
    commit(label: string, value: Partial<ShotElement>): void;
  };
  /** Another product is to take the chosen one's place. */
  onSwap(choice: VariantChoice): void;
}) {
  const also = useStage((s) => s.also);
  const [swapping, setSwapping] = useState(false);
  const size = element ? trueSize(own.shot, element) : null;
  const ui = element && kindUi(element);
  return (
    <Section n={1} id="place" title={msg('Place')} summary={summaryOf(element, size)}>
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
          {ui?.Place && elementKind(element.kind).role === 'subject' && (
            <Button className="mt-2" onClick={() => setSwapping(true)}>
              {msg('Swap for another product')}
            </Button>
          )}
          <VariantSearch
            title={msg('Swap {element} for', { element: element.name })}
            open={swapping}
            onPick={onSwap}
            onClose={() => setSwapping(false)}
          />
        </>
      ) : (
        <p className="text-ink-2">{msg('Choose something on the stage or in the depth strip.')}</p>
      )}
    </Section>
  );
}
