import { msg, rich } from '../../language/language';
export interface BoardCounts {
  total: number;
  filled: number;
  /** Missing pictures of required slots. */
  missing: number;
  pass: number;
  look: number;
  stop: number;
}

/**
 * Counts the cells of a board.
 * @param rows one letter a column: o missing, c left empty on purpose, p passed, l warning, x and f failed
 * @param columns whether each column's slot is required
 */
export function boardCounts(
  rows: readonly { states: string }[],
  variants: number,
  columns: readonly { slot: { required: boolean } }[],
): BoardCounts {
  const n: Record<string, number> = {};
  let missing = 0;
  for (const row of rows)
    [...row.states].forEach((letter, i) => {
      n[letter] = (n[letter] ?? 0) + 1;
      if ((letter === 'o' || letter === 'c') && columns[i]?.slot.required) missing++;
    });
  const of = (letters: string) => [...letters].reduce((sum, l) => sum + (n[l] ?? 0), 0);
  const total = variants * columns.length;
  return { total, filled: total - of('oc'), missing, pass: of('p'), look: of('l'), stop: of('xf') };
}

/** The counts over a board; dashes while they are not known. */
export function CountsRow({ counts }: { counts: BoardCounts | null }) {
  const unknown = '\u2013';
  return (
    <>
      <Figure n={counts ? `${counts.filled} / ${counts.total}` : unknown} what={msg('pictures filled')} />
      <Figure n={counts ? String(counts.missing) : unknown} what={msg('required missing')} />
      <div className="w-44">
        {counts && <Shares counts={counts} />}
        <p className="text-ink-2 mt-1 text-[12px] whitespace-nowrap">
          {rich(
            'pass <measure>{pass}</measure>, warnings <measure>{look}</measure>, failed <measure>{stop}</measure>',
            {
              measure: (inside) => <span className="measure">{inside}</span>,
              pass: counts?.pass ?? unknown,
              look: counts?.look ?? unknown,
              stop: counts?.stop ?? unknown,
            },
          )}
        </p>
      </div>
    </>
  );
}

function Figure({ n, what }: { n: string; what: string }) {
  return (
    <div className="whitespace-nowrap">
      <p className="font-mono text-[16px]">{n}</p>
      <p className="text-ink-2 text-[12px]">{what}</p>
    </div>
  );
}

/** Shares of the board as a bar; the words under it say the same. */
function Shares({ counts }: { counts: BoardCounts }) {
  const share = (n: number) => `${counts.total ? (n / counts.total) * 100 : 0}%`;
  return (
    <div className="bg-line flex h-2.5 overflow-hidden rounded-[2px]" aria-hidden>
      <div className="bg-spruce" style={{ width: share(counts.pass) }} />
      <div className="bg-amber" style={{ width: share(counts.look) }} />
      <div className="bg-coral" style={{ width: share(counts.stop) }} />
      <div
        className="bg-ink-3/40"
        style={{ width: share(counts.filled - counts.pass - counts.look - counts.stop) }}
      />
    </div>
  );
}
