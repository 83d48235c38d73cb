import { ArrowDown, ArrowUp, ArrowUpToLine, Undo2 } from 'lucide-react';
import { elementKind, type ShotElement } from '@scenograph/core/elements/index';
import { importanceOrder } from '@scenograph/core/shot/fit/importance';
import type { Shot } from '@scenograph/core/shot/document';
import { makeBase, resetFit } from '@scenograph/core/shot/edit';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { Button, IconButton, Switch } from '../../ui/controls';
import { ownHere } from './overlays/own-here';
import type { FedSlot } from './size-strip';
import { useStage } from './store';
import { msg } from '../../language/language';

/** How sizes follow the base: what a slot does differently, what it dropped, and what matters most. */
export function FitDesk({
  shot,
  resolved,
  active,
  element,
  written,
  onPatch,
}: {
  shot: Shot;
  resolved: ResolvedShot;
  active: FedSlot | null;
  element: ShotElement | null;
  written: ShotElement | null;
  onPatch(label: string, patch: Partial<ShotElement>): void;
}) {
  const edit = useStage((s) => s.edit);
  const select = useStage((s) => s.select);
  const differences = active ? shot.fits[active.key] : undefined;
  const name = (id: string) => shot.elements.find((e) => e.id === id)?.name ?? msg('removed element');
  return (
    <div className="grid gap-3">
      {active &&
        (differences ? (
          <ul className="grid gap-1.5">
            {Object.entries(differences.elements).map(([id, d]) => (
              <Difference
                key={id}
                base={shot.elements.find((e) => e.id === id)}
                difference={d}
                slotKey={active.key}
                resolved={resolved}
              />
            ))}
            <li>
              <Button onClick={() => edit(msg('Reset this slot'), (s) => resetFit(s, active.key))}>
                {msg('Reset all of this slot')}
              </Button>
            </li>
          </ul>
        ) : (
          <p className="text-ink-2">
            {msg(
              'This slot follows the base by rule. Move something here and it stays a difference of this slot.',
            )}
          </p>
        ))}
      {active && !!resolved.dropped?.length && (
        <div>
          <p className="mb-1">{msg('Left out by rule, for want of room:')}</p>
          <ul className="grid gap-1">
            {resolved.dropped.map((id) => (
              <li key={id} className="flex items-center justify-between gap-2">
                <span className="truncate">{name(id)}</span>
                <Button
                  tone="quiet"
                  aria-label={msg('Show {id} here', { id: name(id) })}
                  onClick={() => {
                    select(id);
                    showHere(id, active.key, active.slot);
                  }}
                >
                  {msg('Show it here')}
                </Button>
              </li>
            ))}
          </ul>
        </div>
      )}
      {!active && (
        <p className="text-ink-2">{msg('Choose a size below the stage to see and change its fit.')}</p>
      )}
      {element && written && elementKind(element.kind).role === 'overlay' && !active && (
        <Switch
          label={msg('{element} stretches with the frame', { element: element.name })}
          on={written.spread}
          onChange={(spread) => onPatch(msg('Stretch with the frame'), { spread })}
        />
      )}
      <Importance shot={shot} />
    </div>
  );
}

function showHere(id: string, key: string, slot: FedSlot['slot']): void {
  useStage.getState().edit(msg('Show in this slot'), (s) => {
    const fit = s.fits[key] ?? { frame: { width: slot.width, height: slot.height }, elements: {} };
    const elements = { ...fit.elements, [id]: { ...fit.elements[id], hidden: false } };
    return { ...s, fits: { ...s.fits, [key]: { ...fit, elements } } };
  });
}

/** The order in which overlays are kept where a size has no room for all. */
function Importance({ shot }: { shot: Shot }) {
  const edit = useStage((s) => s.edit);
  const overlays = shot.elements.filter((e) => elementKind(e.kind).role === 'overlay');
  if (overlays.length < 2) return null;
  const order = importanceOrder(overlays, shot.importance);
  const move = (at: number, by: number) => {
    const next = [...order];
    const [id] = next.splice(at, 1);
    next.splice(at + by, 0, id);
    edit(msg('Change importance'), (s) => ({ ...s, importance: next }));
  };
  return (
    <div>
      <p className="mb-1 font-medium">{msg('Importance')}</p>
      <p className="text-ink-2 mb-1.5 text-[12px]">
        {msg('Where a size has too little room, the last is dropped first.')}
      </p>
      <ol aria-label={msg('Importance of overlays')} className="grid gap-0.5">
        {order.map((id, i) => (
          <li key={id} className="flex items-center gap-1.5">
            <span className="measure text-ink-2 w-5">{i + 1}</span>
            <span className="min-w-0 grow truncate">{overlays.find((e) => e.id === id)!.name}</span>
            <IconButton
              label={msg('More important: {find}', { find: overlays.find((e) => e.id === id)!.name })}
              disabled={i === 0}
              onClick={() => move(i, -1)}
            >
              <ArrowUp size={13} aria-hidden />
            </IconButton>
            <IconButton
              label={msg('Less important: {find}', { find: overlays.find((e) => e.id === id)!.name })}
              disabled={i === order.length - 1}
              onClick={() => move(i, 1)}
            >
              <ArrowDown size={13} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ol>
    </div>
  );
}

const KEY_TITLES: Record<string, string> = {
  box: msg('place'),
  hidden: msg('shown or hidden'),
  fill: msg('backdrop'),
  shadow: msg('shadow'),
  text: msg('words'),
  pose: msg('how it sits'),
  pack: msg('multipack'),
};

const titleOf = (key: string) => KEY_TITLES[key] ?? key;

/** What a slot does differently with one element, whole and value by value, each with the two ways to end it. */
function Difference({
  base,
  difference,
  slotKey,
  resolved,
}: {
  base: ShotElement | undefined;
  difference: Partial<ShotElement>;
  slotKey: string;
  resolved: ResolvedShot;
}) {
  const edit = useStage((s) => s.edit);
  if (!base) return null;
  const { id, name } = base;
  const own = ownHere(slotKey, base, difference, resolved);
  const keys = [...own.keys];
  return (
    <li className="grid gap-1">
      <span className="flex items-center gap-2">
        <span className="border-spruce h-2 w-2 shrink-0 border-[1.5px]" aria-hidden />
        <span className="truncate">{name}</span>
        {keys.length === 1 && <span className="text-ink-2 text-[12px]">{titleOf(keys[0])}</span>}
      </span>
      {keys.length > 1 && (
        <ul aria-label={msg('What this slot changes of {name}', { name })} className="grid gap-0.5 pl-4">
          {keys.map((key) => (
            <li key={key} className="text-ink-2 flex items-center gap-1.5 text-[12px]">
              <span className="grow truncate">{titleOf(key)}</span>
              <IconButton
                label={msg('{name}, {key}: follow the base', { name, key: titleOf(key) })}
                onClick={() => own.follow(key)}
              >
                <Undo2 size={13} aria-hidden />
              </IconButton>
              <IconButton
                label={msg('{name}, {key}: make it the base', { name, key: titleOf(key) })}
                onClick={() => own.intoBase(key)}
              >
                <ArrowUpToLine size={13} aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
      <span className="flex gap-1.5 pl-4">
        <Button
          tone="quiet"
          aria-label={msg('Reset {name}', { name })}
          onClick={() => edit(msg('Reset a difference'), (s) => resetFit(s, slotKey, id))}
        >
          {msg('Reset')}
        </Button>
        <Button
          tone="quiet"
          aria-label={msg('Make {name} the base', { name })}
          onClick={() => edit(msg('Make a difference the base'), (s) => makeBase(s, resolved, slotKey, id))}
        >
          {msg('Make it the base')}
        </Button>
      </span>
    </li>
  );
}
