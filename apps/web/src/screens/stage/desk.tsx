import { isProduct } from '@scenograph/core/elements/product/model';
import { Accordion } from 'radix-ui';
import { useEffect, useState } from 'react';
import { elementKind } from '@scenograph/core/elements/index';
import { openPlaces } from '@scenograph/core/templates/fill';
import { BASE } from '@scenograph/core/shot/edit';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { applyFix } from '@scenograph/core/spec/checks/index';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { Button } from '../../ui/controls';
import { StatusMark } from '../../ui/status';
import { paletteOfPicture } from '../../workers/painters';
import { EffectsDesk } from './effects-desk';
import { kindUi } from './kinds/index';
import { useKit } from '../../api/brand';
import { forDesk } from './overlays/for-desk';
import { frameSlot } from '../listings/cell-picture';
import { FitDesk } from './fit-desk';
import { PlaceDesk } from './place-desk';
import { Section } from './section';
import type { FedSlot } from './size-strip';
import { useStage } from './store';
import { trueSize } from './true-size';
import type { Editing } from './use-editing';

/** The desk on the right: its sections follow the order of work. */
export function Desk({
  resolved,
  active,
  cell,
  fed,
  results,
  editing,
  open,
  onOpen,
  onAddText,
  swaps,
  onSwap,
}: {
  resolved: ResolvedShot;
  /** The slot that is edited; its key is the cell's own where changes stay in one cell. */
  active: FedSlot | null;
  /** The one variant that changes can be kept to; null where there is no choice. */
  cell: { title: string; on: boolean; onChange(on: boolean): void } | null;
  fed: FedSlot[];
  results: CheckResult[] | null;
  editing: Editing;
  open: string[];
  onOpen(open: string[]): void;
  onAddText(): void;
  /** Other products that could take the chosen one's place. */
  swaps: { id: string; title: string }[];
  onSwap(id: string): void;
}) {
  const stage = useStage();
  const { document: shot, selected, also } = stage;
  const { patch, during } = editing;
  const element = resolved.elements.find((e) => e.id === selected) ?? null;
  const written = shot?.elements.find((e) => e.id === selected) ?? null;
  const size = element ? trueSize(resolved, element) : null;
  const stops = results?.filter((r) => r.verdict === 'stop').length ?? 0;
  const looks = results?.filter((r) => r.verdict === 'look').length ?? 0;
  const differing = fed.filter((s) => shot?.fits[s.key]).length;
  const kit = useKit();
  const difference = active && selected ? shot?.fits[active.key]?.elements[selected] : undefined;
  const palette = useProductPalette(resolved);
  const ui = element && kindUi(element);
  const ground = element && elementKind(element.kind).role === 'ground';
  if (!shot) return null;
  const places = openPlaces(shot);
  const own = { shot: resolved, palette, during, commit: patch };
  return (
    <aside aria-label="Desk" className="border-line bg-card w-78 shrink-0 overflow-y-auto border-l">
      {active && (
        <p className="bg-spruce px-3.5 py-1.5 text-[12.5px] text-white">
          You are on <b>{active.slot.title}</b>, {active.marketplace}. Changes stay in this slot
          {cell?.on ? ` of ${cell.title}` : ''}.{' '}
          <button type="button" className="underline" onClick={() => stage.showSlot(null)}>
            Back to the base
          </button>
          {cell && (
            <label className="mt-1 flex items-center gap-2">
              <input
                type="checkbox"
                className="accent-limelight"
                checked={cell.on}
                onChange={(e) => cell.onChange(e.target.checked)}
              />
              For {cell.title} only
            </label>
          )}
        </p>
      )}
      {places.length > 0 && (
        <div className="border-line bg-spruce-tint border-b px-3.5 py-2 text-[12.5px]">
          <p className="font-medium">Places of the template still to be filled</p>
          <ul className="mt-1 grid gap-1">
            {places.map((e) => (
              <li key={e.id} className="flex items-center justify-between gap-2">
                <span>{e.place?.hint || e.name}</span>
                <Button
                  aria-label={`Fill ${e.name}`}
                  onClick={() => {
                    stage.select(e.id);
                    onOpen([elementKind(e.kind).role === 'overlay' ? 'overlays' : 'place']);
                  }}
                >
                  Fill it
                </Button>
              </li>
            ))}
          </ul>
        </div>
      )}
      <Accordion.Root type="multiple" value={open} onValueChange={onOpen}>
        <Section
          n={1}
          id="place"
          title="Place"
          summary={
            size
              ? `${Math.round(size.ratio * 100)} % of true size`
              : element
                ? element.name
                : 'nothing chosen'
          }
        >
          {element && written ? (
            <>
              <PlaceDesk
                element={element}
                size={size}
                several={also.length + 1}
                editing={editing}
                frame={resolved}
                onPlace={(label, box, proportional) => editing.place(label, element, box, proportional)}
              />
              {ui?.Place && (
                <>
                  <ui.Place element={element} {...own} />
                  {elementKind(element.kind).role === 'subject' && swaps.length > 0 && (
                    <label className="mt-2 flex items-center gap-3 text-[12px]">
                      <span className="text-ink-2 w-19 shrink-0">Swap for</span>
                      <select
                        aria-label="Swap for another product"
                        className="border-line bg-card h-7 min-w-0 grow rounded-md border px-2 text-[13px]"
                        value=""
                        onChange={(e) => e.target.value && onSwap(e.target.value)}
                      >
                        <option value="">another product or variant</option>
                        {swaps.map((s) => (
                          <option key={s.id} value={s.id}>
                            {s.title}
                          </option>
                        ))}
                      </select>
                    </label>
                  )}
                </>
              )}
            </>
          ) : (
            <p className="text-ink-2">Choose something on the stage or in the depth strip.</p>
          )}
        </Section>
        <Section
          n={2}
          id="light"
          title="Light"
          summary={(element && ui?.lightSummary?.(element, resolved)) || ''}
        >
          {element && ui?.Light ? (
            <ui.Light element={element} {...own} />
          ) : (
            <p className="text-ink-2">Choose a product to light it.</p>
          )}
        </Section>
        <Section n={3} id="tone" title="Tone" summary={(element && ui?.toneSummary?.(element)) || ''}>
          {element && ui?.Tone && <ui.Tone element={element} {...own} />}
          {element && written && !ground ? (
            <EffectsDesk
              element={forDesk(written, difference, element, kit)}
              during={during}
              commit={patch}
            />
          ) : (
            <p className="text-ink-2">Choose a product or an overlay to change its tone and effects.</p>
          )}
        </Section>
        <Section
          n={4}
          id="overlays"
          title="Overlays"
          summary={String(
            shot.elements.filter((e) => elementKind(e.kind).role === 'overlay' && !e.hidden).length,
          )}
        >
          {ui?.Overlay && element && written ? (
            <ui.Overlay
              element={forDesk(written, difference, element, kit)}
              placed={element.box}
              elements={resolved.elements}
              frame={resolved}
              during={during}
              commit={patch}
            />
          ) : (
            <div className="grid gap-2">
              <p className="text-ink-2">Choose an overlay to change it, or add one.</p>
              <Button onClick={onAddText}>Add a text</Button>
            </div>
          )}
        </Section>
        <Section n={5} id="fit" title="Fit" summary={`${differing} of ${fed.length} differ`}>
          <FitDesk
            shot={shot}
            resolved={resolved}
            active={active}
            element={element}
            written={written}
            onPatch={patch}
          />
        </Section>
        <Section
          n={6}
          id="checks"
          title="Checks"
          tone={stops ? 'text-coral-ink' : looks ? 'text-amber-ink' : undefined}
          summary={
            !results
              ? 'measuring'
              : stops || looks
                ? [stops && `${stops} failed`, looks && `${looks} warning${looks > 1 ? 's' : ''}`]
                    .filter(Boolean)
                    .join(', ')
                : 'all pass'
          }
        >
          {!active && (
            <p className="text-ink-2 mb-2">
              The base has no specification; its words are watched over. Choose a size below the stage to
              measure it against its own.
            </p>
          )}
          {results && (
            <ul className="grid gap-2.5">
              {results.map((r, i) => (
                <CheckRow
                  key={`${r.check}-${i}`}
                  result={r}
                  onShow={() => {
                    if (r.about) stage.select(r.about.id);
                  }}
                  onFix={() =>
                    stage.edit(r.fix!.title, (s) =>
                      applyFix(
                        r.check,
                        s,
                        resolved,
                        active?.key ?? BASE,
                        active?.slot ?? frameSlot(resolved),
                        r.about,
                      ),
                    )
                  }
                />
              ))}
            </ul>
          )}
        </Section>
      </Accordion.Root>
    </aside>
  );
}

/** Colours of the shot's first product. */
function useProductPalette(resolved: ResolvedShot): string[] {
  const [palette, setPalette] = useState<string[]>([]);
  const first = resolved.elements.find(isProduct);
  const picture = first?.picture ?? null;
  useEffect(() => {
    if (!picture) return setPalette([]);
    let here = true;
    paletteOfPicture(picture)
      .then((p) => here && setPalette(p))
      .catch(() => undefined);
    return () => {
      here = false;
    };
  }, [picture]);
  return palette;
}

function CheckRow({ result, onShow, onFix }: { result: CheckResult; onShow(): void; onFix(): void }) {
  return (
    <li className="flex gap-2">
      <span className="pt-1">
        <StatusMark mark={result.verdict} />
      </span>
      <div className="min-w-0 grow">
        <p className="flex justify-between gap-2">
          <span className="font-medium">{result.title}</span>
          <span className="measure text-right">{result.measured}</span>
        </p>
        <p className="text-ink-2 flex justify-between gap-2 text-[12px]">
          <span>limit</span> <span className="measure text-right">{result.limit}</span>
        </p>
        {result.verdict !== 'pass' && <p className="mt-0.5 text-[12.5px]">{result.sentence}</p>}
        {result.about && result.verdict !== 'pass' && (
          <Button tone="quiet" className="mt-1.5 mr-1.5" onClick={onShow}>
            Choose it
          </Button>
        )}
        {result.fix && (
          <Button className="mt-1.5" onClick={onFix}>
            {result.fix.title}
          </Button>
        )}
      </div>
    </li>
  );
}
