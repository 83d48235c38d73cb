import { Link } from 'react-router';
import { allTicked, Checkbox } from '../../ui/controls';
import { slotKey, type Slot, type SpecSheet } from '@scenograph/core/spec/slot';
import type { DeliveryEstimate, Variant } from '../../api/client';
import { bytesText } from '../../ui/status';
import { secondsText } from './seconds-text';
import type { Order } from './use-order';
import { msg, rich } from '../../language/language';

/** So many variants are listed one by one; beyond, all or those chosen on the board are taken. */
const LISTED = 40;

const toggled = (list: string[], value: string, on: boolean) =>
  on ? [...list, value] : list.filter((x) => x !== value);

/** What the files will be called, and how many would have one name. */
export function FileNames({ estimate }: { estimate: DeliveryEstimate | null }) {
  if (!estimate) return null;
  const { names, clashes } = estimate;
  return (
    <>
      {names.length > 0 && (
        <details className="mt-2">
          <summary className="text-ink-2">
            {rich('Names, such as <measure>{names}</measure>', {
              measure: (inside) => <span className="measure text-ink">{inside}</span>,
              names: names[0],
            })}
          </summary>
          <ul className="measure mt-1 grid gap-0.5">
            {names.map((n) => (
              <li key={n}>{n}</li>
            ))}
          </ul>
        </details>
      )}
      {clashes > 0 && (
        <p className="text-amber-ink mt-1">
          {msg(
            "{clashes} {clashes, plural, one {file} other {files}} would have the name of another and {clashes, plural, one {gets} other {get}} a number. Put '{'sku'}', '{'slot'}' or '{'n'}' in the slot's pattern.",
            { clashes },
          )}
        </p>
      )}
    </>
  );
}

/** Pictures that nobody has seen and that may be wrong are told before they are delivered. */
export function Doubts({ estimate }: { estimate: DeliveryEstimate | null }) {
  if (!estimate?.doubtful) return null;
  return (
    <p role="status" className="text-amber-ink mt-2">
      {rich(
        '{doubtful, plural, one {# picture shows} other {# pictures show}} an automatic cutout that may be wrong and that nobody has looked at. <link>Look at the cutouts</link> first, or deliver all the same.',
        {
          doubtful: estimate.doubtful,
          link: (inside) => (
            <Link key="wall" to="/photos/review" className="underline">
              {inside}
            </Link>
          ),
        },
      )}
    </p>
  );
}

/** What the order will cost; what is not known is not guessed. */
export function Costs({ estimate, nothing }: { estimate: DeliveryEstimate | null; nothing: boolean }) {
  return (
    <dl className="measure grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5" aria-live="polite">
      {estimate ? (
        <>
          <dt className="text-ink-2">{msg('to be painted')}</dt>
          <dd>
            {msg('{toPaint} of {pictures}', { toPaint: estimate.toPaint, pictures: estimate.pictures })}
          </dd>
          <dt className="text-ink-2">{msg('about')}</dt>
          <dd>{estimate.seconds === null ? msg('no time known yet') : secondsText(estimate.seconds)}</dd>
          <dt className="text-ink-2">{msg('in all')}</dt>
          <dd>{estimate.bytes === null ? msg('no size known yet') : bytesText(estimate.bytes)}</dd>
          {estimate.missing > 0 && (
            <>
              <dt className="text-ink-2">{msg('missing, left out')}</dt>
              <dd>{estimate.missing}</dd>
            </>
          )}
        </>
      ) : (
        <dt className="text-ink-2">{nothing ? msg('nothing chosen') : msg('measuring')}</dt>
      )}
    </dl>
  );
}

/** The slots of one marketplace; what nothing fills cannot be taken. */
export function SheetSlots({
  sheet,
  order: { filled, slots, setSlots },
}: {
  sheet: SpecSheet;
  order: Order;
}) {
  const keys = sheet.slots.map((slot) => slotKey(sheet, slot)).filter(filled);
  return (
    <fieldset>
      <legend className="mb-1">
        <label className="flex items-center gap-2 font-semibold">
          <Checkbox
            checked={allTicked(keys.filter((k) => slots.includes(k)).length, keys.length)}
            disabled={!keys.length}
            onChange={(on) => setSlots((s) => [...s.filter((k) => !keys.includes(k)), ...(on ? keys : [])])}
          />
          {sheet.marketplace}
        </label>
      </legend>
      <ul className="grid grid-cols-2 gap-x-4 pl-5.5">
        {sheet.slots.map((slot) => {
          const key = slotKey(sheet, slot);
          return (
            <SlotLine
              key={key}
              slot={slot}
              filled={filled(key)}
              chosen={slots.includes(key)}
              onChoose={(on) => setSlots((s) => toggled(s, key, on))}
            />
          );
        })}
      </ul>
    </fieldset>
  );
}

function SlotLine({
  slot,
  filled,
  chosen,
  onChoose,
}: {
  slot: Slot;
  filled: boolean;
  chosen: boolean;
  onChoose(on: boolean): void;
}) {
  return (
    <li>
      <label className={`flex h-7 items-center gap-2 ${filled ? '' : 'text-ink-2'}`}>
        <Checkbox checked={chosen} disabled={!filled} onChange={onChoose} />
        <span className="truncate">{slot.title}</span>
        <span className="measure text-ink-2 ml-auto whitespace-nowrap">
          {filled ? `${slot.width} x ${slot.height}, ${bytesText(slot.maxBytes)}` : msg('missing')}
        </span>
      </label>
    </li>
  );
}

/** The variants that are taken, one by one while they are few. */
export function VariantChoice({
  variants,
  order: { variantIds, setVariantIds },
}: {
  variants: Variant[];
  order: Order;
}) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">
        <label className="flex items-center gap-2">
          <Checkbox
            checked={allTicked(variantIds.length, variants.length)}
            onChange={(on) => setVariantIds(on ? variants.map((v) => v.id) : [])}
          />
          {msg('Variants')} <span className="measure">{variantIds.length}</span>
        </label>
      </legend>
      {variants.length <= LISTED ? (
        variants.map((v) => (
          <label key={v.id} className="flex h-7 items-center gap-2 pl-5.5">
            <Checkbox
              checked={variantIds.includes(v.id)}
              onChange={(on) => setVariantIds((c) => toggled(c, v.id, on))}
            />
            <span className="truncate">{v.data.variant || v.data.title}</span>
            {!v.data.cutout && <span className="text-ink-2 whitespace-nowrap">{msg('no cutout')}</span>}
          </label>
        ))
      ) : (
        <p className="text-ink-2">{msg('To take some only, choose their cells on the board.')}</p>
      )}
    </fieldset>
  );
}
