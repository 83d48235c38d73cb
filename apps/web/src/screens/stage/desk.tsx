import { memo } from 'react';
import { Accordion } from 'radix-ui';
import { elementKind } from '@scenograph/core/elements/index';
import type { Shot } from '@scenograph/core/shot/document';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { useKit } from '../../api/brand';
import { Button } from '../../ui/controls';
import { ChecksSection } from './checks-section';
import { PlacesNote, SlotNote, type CellChoice } from './desk-notes';
import { EffectsDesk } from './effects-desk';
import { FitDesk } from './fit-desk';
import { kindUi } from './kinds/index';
import { forDesk } from './overlays/for-desk';
import { ownHere, OwnHereContext } from './overlays/own-here';
import { PlaceSection } from './place-section';
import { Section } from './section';
import type { FedSlot } from './size-strip';
import { useStage } from './store';
import { useProductPalette } from './use-product-palette';
import type { Editing } from './use-editing';
import type { VariantChoice } from './variant-search';
import { msg } from '../../language/language';

/** The desk on the right: its sections follow the order of work. */
export const Desk = memo(function Desk({
  shot,
  resolved,
  active,
  cell,
  fed,
  results,
  editing,
  open,
  onOpen,
  onAddText,
  onSwap,
}: {
  shot: Shot;
  resolved: ResolvedShot;
  /** The slot that is edited; its key is the cell's own where changes stay in one cell. */
  active: FedSlot | null;
  cell: CellChoice;
  fed: FedSlot[];
  results: CheckResult[] | null;
  editing: Editing;
  open: string[];
  onOpen(open: string[]): void;
  onAddText(): void;
  onSwap(choice: VariantChoice): void;
}) {
  const selected = useStage((s) => s.selected);
  const { patch, during } = editing;
  const kit = useKit();
  const palette = useProductPalette(resolved);
  const element = resolved.elements.find((e) => e.id === selected) ?? null;
  const written = shot.elements.find((e) => e.id === selected) ?? null;
  const difference = active && selected ? shot.fits[active.key]?.elements[selected] : undefined;
  const ui = element && kindUi(element);
  const own = { shot: resolved, palette, during, commit: patch };
  const chosen = element && written ? { element, written, ui: kindUi(element) } : null;
  const forOverlay = chosen && forDesk(chosen.written, difference, chosen.element, kit);
  const ownValues =
    active && written && difference ? ownHere(active.key, written, difference, resolved) : null;
  const overlays = shot.elements.filter((e) => elementKind(e.kind).role === 'overlay' && !e.hidden).length;
  const differing = fed.filter((s) => shot.fits[s.key]).length;
  return (
    <aside aria-label={msg('Desk')} className="border-line bg-card w-78 shrink-0 overflow-y-auto border-l">
      {active && <SlotNote active={active} cell={cell} />}
      <PlacesNote shot={shot} onOpen={onOpen} />
      <Accordion.Root type="multiple" value={open} onValueChange={onOpen}>
        <PlaceSection element={chosen?.element ?? null} editing={editing} own={own} onSwap={onSwap} />
        <Section
          n={2}
          id="light"
          title={msg('Light')}
          summary={(element && ui?.lightSummary?.(element, resolved)) || ''}
        >
          {element && ui?.Light ? (
            <ui.Light key={element.id} element={element} {...own} />
          ) : (
            <p className="text-ink-2">{msg('Choose a product to light it.')}</p>
          )}
        </Section>
        <Section n={3} id="tone" title={msg('Tone')} summary={(element && ui?.toneSummary?.(element)) || ''}>
          {element && ui?.Tone && <ui.Tone key={element.id} element={element} {...own} />}
          {forOverlay && elementKind(chosen.element.kind).role !== 'ground' ? (
            <EffectsDesk key={forOverlay.id} element={forOverlay} during={during} commit={patch} />
          ) : (
            <NothingToTone />
          )}
        </Section>
        <Section n={4} id="overlays" title={msg('Overlays')} summary={String(overlays)}>
          {forOverlay && chosen.ui.Overlay ? (
            <OwnHereContext value={ownValues}>
              <chosen.ui.Overlay
                key={forOverlay.id}
                element={forOverlay}
                placed={chosen.element.box}
                elements={resolved.elements}
                frame={resolved}
                during={during}
                commit={patch}
              />
            </OwnHereContext>
          ) : (
            <NoOverlay onAddText={onAddText} />
          )}
        </Section>
        <Section
          n={5}
          id="fit"
          title={msg('Fit')}
          summary={msg('{differing} of {fed} differ', { differing, fed: fed.length })}
        >
          <FitDesk {...{ shot, resolved, active, element, written }} onPatch={patch} />
        </Section>
        <ChecksSection results={results} resolved={resolved} active={active} />
      </Accordion.Root>
    </aside>
  );
});

function NoOverlay({ onAddText }: { onAddText(): void }) {
  return (
    <div className="grid gap-2">
      <p className="text-ink-2">{msg('Choose an overlay to change it, or add one.')}</p>
      <Button onClick={() => onAddText()}>{msg('Add a text')}</Button>
    </div>
  );
}

const NothingToTone = () => (
  <p className="text-ink-2">{msg('Choose a product or an overlay to change its tone and effects.')}</p>
);
