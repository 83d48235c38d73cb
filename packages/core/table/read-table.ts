import Papa from 'papaparse';

export interface Table {
  delimiter: string;
  columns: string[];
  /** Cells by row, as many as there are columns. */
  rows: string[][];
  /** Line of the file on which each row begins, from 1. */
  lines: number[];
  /** What is wrong with the file itself; with any of these it cannot be taken. */
  problems: { line: number; text: string }[];
}

export const DELIMITERS = [',', ';', '\t', '|'] as const;

/**
 * Reads a table (RFC 4180: quotes around values that hold delimiters, quotes or line breaks, doubled quotes inside) with
 * any delimiter, told or found. Cells stay texts, exactly as they are written; formulas are texts too. Empty lines are
 * left out. A broken quote, a row with too many or too few values, and columns without name or named twice are told
 * with their line.
 */
export function readTable(text: string, delimiter: string | null = null): Table {
  const parsed = Papa.parse<string[]>(text, {
    delimiter: delimiter ?? '',
    delimitersToGuess: [...DELIMITERS],
    skipEmptyLines: false,
  });
  const problems: Table['problems'] = [];
  const lines = lineNumbers(parsed.data);
  for (const e of parsed.errors) {
    if (e.code === 'UndetectableDelimiter') continue;
    const line = lines[Math.min(e.row ?? 0, lines.length - 1)] ?? 1;
    problems.push({
      line,
      text:
        e.type === 'Quotes'
          ? 'A quotation mark is opened and not closed, or stands inside a value. Write it twice ("") inside a quoted value.'
          : e.message,
    });
  }
  const [head = [], ...body] = parsed.data;
  const columns = head.map((c) => c.trim());
  if (!columns.some(Boolean))
    problems.push({ line: 1, text: 'The first line must name the columns; it is empty.' });
  const seen = new Set<string>();
  columns.forEach((c, i) => {
    if (!c) {
      if (body.some((row) => row[i]?.trim()))
        problems.push({
          line: 1,
          text: `Column ${i + 1} has values and no name. Name it in the first line.`,
        });
    } else if (seen.has(c.toLowerCase()))
      problems.push({ line: 1, text: `Two columns are named "${c}". Name them apart.` });
    seen.add(c.toLowerCase());
  });
  const rows: string[][] = [];
  const at: number[] = [];
  body.forEach((row, i) => {
    if (row.every((cell) => !cell.trim())) return;
    const line = lines[i + 1];
    if (row.length > columns.length && row.slice(columns.length).some((c) => c.trim()))
      problems.push({
        line,
        text: `This row has ${row.length} values, and there ${columns.length === 1 ? 'is 1 column' : `are ${columns.length} columns`}. Is a value with a "${parsed.meta.delimiter}" not quoted?`,
      });
    rows.push(columns.map((_, c) => row[c] ?? ''));
    at.push(line);
  });
  return {
    delimiter: parsed.meta.delimiter || ',',
    columns,
    rows,
    lines: at,
    problems: problems.sort((a, b) => a.line - b.line),
  };
}

/** Values may hold line breaks: the line on which each row begins. */
function lineNumbers(rows: string[][]): number[] {
  let line = 1;
  return rows.map((row) => {
    const at = line;
    line += 1 + row.reduce((n, cell) => n + (cell.match(/\r\n|\r|\n/g)?.length ?? 0), 0);
    return at;
  });
}
