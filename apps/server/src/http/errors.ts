import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Response } from 'express';
import { troubleOf, type DatabaseTrouble } from '../database/trouble';

const TROUBLE: Record<DatabaseTrouble, [number, string]> = {
  gone: [503, 'The database cannot be reached for now. Nothing was changed; try again in a moment.'],
  full: [507, 'The disk of the database is full. Nothing was changed; make room, then try again.'],
};

/** Every error leaves as JSON with one sentence; what is not ours to explain is logged, never shown. */
@Catch()
export class SentenceFilter implements ExceptionFilter {
  private readonly log = new Logger('http');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.destroy();
      return;
    }
    if (error instanceof HttpException) {
      const body = error.getResponse();
      const message =
        typeof body === 'string'
          ? body
          : ((body as { message?: string | string[] }).message ?? error.message);
      const extra = typeof body === 'object' ? (body as { detail?: unknown }).detail : undefined;
      response.status(error.getStatus()).json({
        message: Array.isArray(message) ? message.join(' ') : message,
        ...(extra ? { detail: extra } : {}),
      });
      return;
    }
    const parse = (error as { type?: string; status?: number }) ?? {};
    if (parse.type === 'entity.parse.failed') {
      response.status(400).json({ message: 'The request is not valid JSON.' });
      return;
    }
    if (parse.type === 'entity.too.large') {
      response.status(413).json({ message: 'The request is larger than the 16 MB that are taken.' });
      return;
    }
    const trouble = troubleOf(error);
    if (trouble) {
      const [status, message] = TROUBLE[trouble];
      response.status(status).json({ message });
      return;
    }
    this.log.error(error instanceof Error ? (error.stack ?? error.message) : String(error));
    response
      .status(500)
      .json({ message: 'Something went wrong on the server. Nothing was changed; try again.' });
  }
}
