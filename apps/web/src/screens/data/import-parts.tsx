import { useMemo } from 'react';
import { COLUMNS } from '@scenograph/core/table/variant-row';
import { fieldName, type Target } from '@scenograph/core/table/match-columns';
import type { ImportPlan } from '@scenograph/core/table/plan-import';
import { Select } from '../../ui/controls';
import { StatusMark } from '../../ui/status';
import { Table, type TableColumn } from '../../ui/table';
import type { TableHead } from '../../workers/table.worker';
import { msg } from '../../language/language';

/** So many problems are listed at once. */
const LISTED = 200;

/** The table's columns with their first values, and what each becomes. */
export function MatchTable({
  head,
  targets,
  onChange,
}: {
  head: TableHead;
  targets: readonly Target[];
  onChange(targets: Target[]): void;
}) {
  const columns = useMemo((): TableColumn<Matched>[] => {
    const put = (i: number, target: Target) => onChange(targets.map((old, n) => (n === i ? target : old)));
    return [
      {
        id: 'column',
        title: msg('Column'),
        className: 'font-medium',
        cell: ({ column, i }) => column || msg('column {place}', { place: i + 1 }),
      },
      {
        id: 'values',
        title: msg('First values'),
        className: 'measure text-ink-2 max-w-70 truncate',
        cell: ({ values }) => values.join('; '),
      },
      {
        id: 'target',
        title: msg('Goes to'),
        head: 'w-60',
        cell: (row) => <Goes row={row} target={targets[row.i]} onChange={(target) => put(row.i, target)} />,
      },
    ];
  }, [targets, onChange]);
  const rows = useMemo(
    () =>
      head.columns.map((column, i) => ({
        i,
        column,
        values: head.sample.map((r) => r[i]).filter(Boolean),
        field: fieldName(column) ?? `column_${i + 1}`,
      })),
    [head],
  );
  return (
    <Table
      label={msg('Columns of the table')}
      room="narrow"
      className="mt-4 w-full text-[12.5px]"
      columns={columns}
      rows={rows}
      idOf={(row) => String(row.i)}
    />
  );
}

/** A column of the table that is imported. */
interface Matched {
  i: number;
  column: string;
  values: readonly string[];
  /** The field that it would become. */
  field: string;
}

function Goes({
  row: { column, field },
  target,
  onChange,
}: {
  row: Matched;
  target: Target | undefined;
  onChange(target: Target): void;
}) {
  return (
    <Select
      label={msg('{column} goes to', { column })}
      className="w-full"
      value={target?.to ?? 'nowhere'}
      onChange={(to) => onChange(to === 'field' ? { to: 'field', name: field } : { to })}
      options={[
        ...COLUMNS.map((c) => ({ value: c.id, title: c.title })),
        { value: 'field' as const, title: msg("field '{'{field}'}'", { field }) },
        { value: 'nowhere' as const, title: msg('nowhere: leave it out') },
      ]}
    />
  );
}

/** What the import would do, or what is wrong, line by line. */
export function PlanReport({ plan }: { plan: ImportPlan }) {
  const { problems } = plan;
  return (
    <section aria-live="polite" className="mt-4">
      <p className="flex items-center gap-2 font-medium">
        <StatusMark mark={problems.length ? 'stop' : 'pass'} />
        {problems.length
          ? msg(
              '{problems, number} {problems, plural, one {problem} other {problems}}: mend them in the table, or match its columns otherwise',
              { problems: problems.length },
            )
          : planText(plan)}
      </p>
      {problems.length > 0 && (
        <ul
          className="border-line mt-2 max-h-44 overflow-y-auto border"
          tabIndex={0}
          aria-label={msg('Problems')}
        >
          {problems.slice(0, LISTED).map((p, i) => (
            <li key={i} className="border-line flex gap-3 border-b px-2.5 py-1 last:border-b-0">
              <span className="measure text-ink-2 w-20 shrink-0">{msg('line {line}', { line: p.line })}</span>
              <span className="w-28 shrink-0 truncate">{p.column}</span>
              <span>{p.text}</span>
            </li>
          ))}
          {problems.length > LISTED && (
            <li className="text-ink-2 px-2.5 py-1">
              {msg('and {problems} more', { problems: problems.length - LISTED })}
            </li>
          )}
        </ul>
      )}
    </section>
  );
}

function planText({ changes, same, pictures }: ImportPlan): string {
  const added = changes.filter((c) => !c.id).length;
  const withPictures = pictures.length
    ? msg(', {pictures, plural, one {# picture} other {# pictures}} to be imported', {
        pictures: pictures.length,
      })
    : '';
  return msg('{added} to be added, {changes} to be changed, {same} as they are{withPictures}', {
    added,
    changes: changes.length - added,
    same,
    withPictures,
  });
}
