import type { Slot, SpecSheet } from '@scenograph/core/spec/slot';
import { bytesText } from '../../ui/status';
import { Table, type TableColumn } from '../../ui/table';
import { msg } from '../../language/language';

const percent = (share: number) => `${Math.round(share * 1000) / 10} %`;

/** How much of the frame the product takes, in words. */
export function coverageText({ coverage: { min, max } }: Pick<Slot, 'coverage'>): string {
  if (min !== null && max !== null) return msg('{min} to {max}', { min: percent(min), max: percent(max) });
  if (min !== null) return msg('{min} or more', { min: percent(min) });
  return max !== null ? msg('{max} or less', { max: percent(max) }) : msg('any');
}

/** A sheet's slots with what each asks for. */
export function SlotTable({ sheet }: { sheet: SpecSheet }) {
  return (
    <Table
      label={msg('Slots of {sheet}', { sheet: sheet.marketplace })}
      room="narrow"
      columns={COLUMNS}
      rows={sheet.slots}
      idOf={(slot) => slot.id}
    />
  );
}

const FIGURE = 'measure whitespace-nowrap';

const COLUMNS: readonly TableColumn<Slot>[] = [
  {
    id: 'title',
    title: msg('Slot'),
    by: (s) => s.title,
    hint: (s) => s.note,
    cell: (s) => (
      <>
        <span className="font-semibold">{s.title}</span>
        {!s.required && <span className="text-ink-2"> {msg('optional')}</span>}
      </>
    ),
  },
  {
    id: 'pixels',
    title: msg('Pixels'),
    by: (s) => s.width * s.height,
    className: FIGURE,
    cell: (s) => `${s.width} x ${s.height}`,
  },
  {
    id: 'formats',
    title: msg('Formats'),
    by: (s) => s.formats.join(),
    className: 'measure',
    cell: (s) => s.formats.join(', '),
  },
  {
    id: 'bytes',
    title: msg('Bytes'),
    by: (s) => s.maxBytes,
    className: FIGURE,
    cell: (s) => bytesText(s.maxBytes),
  },
  {
    id: 'background',
    title: msg('Background'),
    by: (s) => s.background.kind,
    className: 'whitespace-nowrap',
    cell: ({ background }) =>
      background.kind === 'any' ? (
        msg('any')
      ) : (
        <>
          {background.kind === 'white' ? msg('pure white') : msg('transparent')}{' '}
          <span className="measure text-ink-2">{percent(background.minShare)}</span>
        </>
      ),
  },
  {
    id: 'coverage',
    title: msg('Coverage'),
    by: ({ coverage }) => coverage.min ?? 0,
    className: FIGURE,
    cell: coverageText,
  },
  {
    id: 'margin',
    title: msg('Margin'),
    by: (s) => s.marginShare,
    className: 'measure',
    cell: (s) => percent(s.marginShare),
  },
  {
    id: 'overlays',
    title: msg('Text, logos'),
    by: (s) => s.overlays,
    cell: (s) => (s.overlays === 'allowed' ? msg('allowed') : msg('none')),
  },
  {
    id: 'file',
    title: msg('File name'),
    by: (s) => s.fileName,
    className: 'measure text-ink-2',
    cell: (s) => s.fileName,
  },
];
