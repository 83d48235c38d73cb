import { expose } from 'comlink';
import { decodeText, type TextEncodingName } from '@scenograph/core/table/decode-text';
import { matchColumns, type Target } from '@scenograph/core/table/match-columns';
import { planImport, type ImportContext, type ImportPlan } from '@scenograph/core/table/plan-import';
import { readTable, type Table } from '@scenograph/core/table/read-table';

/** Reads tables away from the main thread; the last one read is held. */

let table: Table | null = null;

export interface TableHead {
  encoding: TextEncodingName;
  delimiter: string;
  columns: string[];
  sample: string[][];
  rows: number;
  targets: Target[];
}

const api = {
  read(bytes: Uint8Array, encoding: TextEncodingName | null, delimiter: string | null): TableHead {
    const decoded = decodeText(
      bytes,
      (b, name, fatal) => new TextDecoder(name, { fatal }).decode(b),
      encoding,
    );
    table = readTable(decoded.text, delimiter);
    return {
      encoding: decoded.encoding,
      delimiter: table.delimiter,
      columns: table.columns,
      sample: table.rows.slice(0, 3),
      rows: table.rows.length,
      targets: matchColumns(table.columns),
    };
  },

  plan(targets: Target[], context: ImportContext): ImportPlan {
    return planImport(table!, targets, context);
  },
};

export type TableWorker = typeof api;
expose(api);
