import { Catch, HttpException, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import { log } from '../watch/logs';
import { metMeanwhile, troubleOf, unfitFor, type DatabaseTrouble } from '../database/trouble';

const TROUBLE: Record<DatabaseTrouble, [number, string]> = {
  gone: [503, 'The database cannot be reached for now. Nothing was changed; try again in a moment.'],
  clash: [503, 'Somebody else was changing the same at this moment. Nothing was changed; try again.'],
  full: [507, 'The disk of the database is full. Nothing was changed; make room, then try again.'],
};

/** What reading a request's body can fail on, by body-parser's names. */
const PARSING: Record<string, string> = {
  'entity.parse.failed': 'The request is not valid JSON.',
  'entity.too.large': 'The request is larger than the 16 MB that are taken.',
  'encoding.unsupported': 'The request is compressed in a way that is not read here; send it plain.',
  'charset.unsupported': 'The request is not written in UTF-8.',
  'request.size.invalid': 'The request is not as long as it says. Send it again.',
  'request.aborted': 'The request was broken off.',
};

/** Answers what reading a request failed on; stands right behind the parsers. */
export function readingFailed(error: unknown, _: Request, response: Response, next: NextFunction): void {
  const { type, status } = (error as { type?: string; status?: number }) ?? {};
  const message =
    error instanceof URIError
      ? 'The address is not written as addresses are.'
      : type && Object.hasOwn(PARSING, type) && PARSING[type];
  if (message) response.status(status ?? 400).json({ message });
  else next(error);
}

/** Every error leaves as JSON with one sentence; what is not ours to explain is logged, never shown. */
@Catch()
export class SentenceFilter implements ExceptionFilter {
  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.destroy();
      return;
    }
    if (error instanceof HttpException) {
      const body = error.getResponse();
      const told =
        typeof body === 'string'
          ? body
          : ((body as { message?: string | string[] }).message ?? error.message);
      // The router's own words for an address that nothing answers.
      const message = /^Cannot [A-Z]+ \//.test(String(told)) ? 'There is nothing at this address.' : told;
      const extra = typeof body === 'object' ? (body as { detail?: unknown }).detail : undefined;
      response.status(error.getStatus()).json({
        message: Array.isArray(message) ? message.join(' ') : message,
        ...(extra ? { detail: extra } : {}),
      });
      return;
    }
    const trouble = troubleOf(error);
    if (trouble) {
      const [code, message] = TROUBLE[trouble];
      response.status(code).json({ message });
      return;
    }
    const unfit = unfitFor(error);
    const meanwhile = metMeanwhile(error);
    if (unfit ?? meanwhile) {
      response.status(unfit ? 400 : 409).json({ message: unfit ?? meanwhile });
      return;
    }
    const id = response.getHeader('X-Request-Id');
    log.error({
      request: id,
      error: error instanceof Error ? (error.stack ?? error.message) : String(error),
    });
    response.status(500).json({
      message: `Something went wrong on the server. Nothing was changed; try again. In its log this is ${String(id)}.`,
    });
  }
}
