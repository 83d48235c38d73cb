/** What went wrong with the database, as far as it decides what to do next. */
export type DatabaseTrouble = 'full' | 'gone' | 'clash';

const CODES: Record<string, DatabaseTrouble> = {
  // PostgreSQL, appendix A: disk_full, out_of_memory of shared buffers is not among them.
  '53100': 'full',
  ENOSPC: 'full',
  // Two that waited for each other, or could not be put in a row.
  '40P01': 'clash',
  '40001': 'clash',
  // Class 08 is connections; 57P01 to 57P03 a server that shuts down, crashed or starts.
  '08000': 'gone',
  '08003': 'gone',
  '08006': 'gone',
  '57P01': 'gone',
  '57P02': 'gone',
  '57P03': 'gone',
  ECONNREFUSED: 'gone',
  ECONNRESET: 'gone',
  EPIPE: 'gone',
  ETIMEDOUT: 'gone',
};

/** Reads an error of the database or the connection to it; null where it is something else. */
export function troubleOf(error: unknown): DatabaseTrouble | null {
  for (let e = error; typeof e === 'object' && e !== null; e = (e as { cause?: unknown }).cause) {
    const { code, message } = e as { code?: string; message?: string };
    if (code && CODES[code]) return CODES[code];
    if (
      /terminated unexpectedly|Connection terminated|connection timeout|not queryable|could not extend file|No space left/i.test(
        message ?? '',
      )
    )
      return /extend file|No space/i.test(message!) ? 'full' : 'gone';
  }
  return null;
}

/** PostgreSQL, appendix A: values that no column takes. */
const UNFIT: Record<string, string> = {
  '22003': 'A number in the request is larger than can be stored.',
  '22001': 'A text in the request is longer than can be stored.',
  '22021': 'A text in the request holds a character that cannot be stored.',
  '22P02': 'A value in the request is not of the kind that is stored there.',
  '22P05': 'A text in the request holds a character that cannot be stored.',
  '54000': 'The request is larger than can be stored.',
};

/** PostgreSQL, appendix A: what somebody else has done at the same moment. */
const MEANWHILE: Record<string, string> = {
  '23503': 'Something that this names or belongs to was removed at the same moment. Look at what stands now.',
  '23505': 'The same was made by somebody else at the same moment. Look at what stands now.',
};

const codesOf = function* (error: unknown) {
  for (let e = error; typeof e === 'object' && e !== null; e = (e as { cause?: unknown }).cause) {
    const { code } = e as { code?: string };
    if (code) yield code;
  }
};
const sentenceIn = (sentences: Record<string, string>, error: unknown): string | null => {
  for (const code of codesOf(error)) if (Object.hasOwn(sentences, code)) return sentences[code];
  return null;
};

/** The sentence for a value that the database does not take; null where the error is another. */
export const unfitFor = (error: unknown): string | null => sentenceIn(UNFIT, error);

/** The sentence for what somebody else has done at the same moment; null where the error is another. */
export const metMeanwhile = (error: unknown): string | null => sentenceIn(MEANWHILE, error);
