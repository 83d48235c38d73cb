import type { Slot, SpecSheet } from '@scenograph/core/spec/slot';
import { bytesText } from '../../ui/status';
import { msg } from '../../language/language';

const percent = (share: number) => `${Math.round(share * 1000) / 10} %`;

/** How much of the frame the product takes, in words. */
export function coverageText({ coverage: { min, max } }: Pick<Slot, 'coverage'>): string {
  if (min !== null && max !== null) return msg('{min} to {max}', { min: percent(min), max: percent(max) });
  if (min !== null) return msg('{min} or more', { min: percent(min) });
  return max !== null ? msg('{max} or less', { max: percent(max) }) : 'any';
}

const HEADS = [
  msg('Slot'),
  msg('Pixels'),
  msg('Formats'),
  msg('Bytes'),
  msg('Background'),
  msg('Coverage'),
  msg('Margin'),
  msg('Text, logos'),
  msg('File name'),
];

/** A sheet's slots with what each asks for. */
export function SlotTable({ sheet }: { sheet: SpecSheet }) {
  return (
    <table className="border-line bg-card w-full border">
      <thead>
        <tr className="border-line text-ink-2 border-b text-left text-[12px]">
          {HEADS.map((t) => (
            <th key={t} className="px-3 py-1.5 font-medium whitespace-nowrap">
              {t}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {sheet.slots.map((slot) => (
          <SlotRow key={slot.id} slot={slot} />
        ))}
      </tbody>
    </table>
  );
}

function SlotRow({ slot }: { slot: Slot }) {
  return (
    <tr className="border-line border-b last:border-b-0">
      <td className="px-3 py-1.5" title={slot.note}>
        <span className="font-semibold">{slot.title}</span>
        {!slot.required && <span className="text-ink-2"> {msg('optional')}</span>}
      </td>
      <td className="measure px-3 py-1.5 whitespace-nowrap">
        {slot.width} x {slot.height}
      </td>
      <td className="measure px-3 py-1.5">{slot.formats.join(', ')}</td>
      <td className="measure px-3 py-1.5 whitespace-nowrap">{bytesText(slot.maxBytes)}</td>
      <td className="px-3 py-1.5 whitespace-nowrap">
        {slot.background.kind === 'any' ? (
          msg('any')
        ) : (
          <>
            {slot.background.kind === 'white' ? msg('pure white') : msg('transparent')}{' '}
            <span className="measure text-ink-2">{percent(slot.background.minShare)}</span>
          </>
        )}
      </td>
      <td className="measure px-3 py-1.5 whitespace-nowrap">{coverageText(slot)}</td>
      <td className="measure px-3 py-1.5">{percent(slot.marginShare)}</td>
      <td className="px-3 py-1.5">{slot.overlays === 'allowed' ? msg('allowed') : msg('none')}</td>
      <td className="measure text-ink-2 px-3 py-1.5">{slot.fileName}</td>
    </tr>
  );
}
