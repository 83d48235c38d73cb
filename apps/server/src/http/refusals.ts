import { HttpException, HttpStatus, UnprocessableEntityException } from '@nestjs/common';
import { log } from '../watch/logs';

/** Too much is asked for at once; the message says of what. */
export class TooMany extends HttpException {
  constructor(message: string) {
    super(message, HttpStatus.TOO_MANY_REQUESTS);
  }
}

/** Errors that the language throws by itself: faults of ours, whose words help nobody. */
const FAULTS = [TypeError, RangeError, ReferenceError, SyntaxError];

/**
 * Refuses a document, with the sentence that its reader has for it.
 * @param what the document, to begin a sentence with
 */
export function refusalOf(error: unknown, what: string): UnprocessableEntityException {
  const isFault = !(error instanceof Error) || FAULTS.some((kind) => error instanceof kind);
  if (isFault) log.error({ error: error instanceof Error ? error.stack : String(error) });
  return new UnprocessableEntityException(
    isFault ? `${what} cannot be read: a part of it is not what it should be.` : error.message,
  );
}
