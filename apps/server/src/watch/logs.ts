import { randomUUID } from 'node:crypto';
import type { LoggerService } from '@nestjs/common';
import { pino } from 'pino';
import { pinoHttp } from 'pino-http';

/**
 * The log: a JSON object a line, to the standard output. What is asked for is named by method and path; what was sent,
 * documents and words that were looked for among it, is never written down. `LOG_LEVEL` says how much is: `warn` usually,
 * `info` for every request.
 */
const LEVELS = ['trace', 'debug', 'info', 'warn', 'error', 'fatal', 'silent'];
const wanted = process.env.LOG_LEVEL ?? '';
export const log = pino({ level: LEVELS.includes(wanted) ? wanted : 'warn' });

/** Writes a line for every request, with the number by which a person can name it. */
export const logRequests = pinoHttp({
  logger: log,
  genReqId(_, response) {
    const id = randomUUID();
    response.setHeader('X-Request-Id', id);
    return id;
  },
  customLogLevel: (_, response, error) => (error || response.statusCode >= 500 ? 'error' : 'info'),
  wrapSerializers: false,
  serializers: {
    req: (request: { id: unknown; method?: string; url?: string }) => ({
      id: request.id,
      method: request.method,
      path: request.url?.split('?')[0],
    }),
    res: (response: { statusCode: number }) => ({ status: response.statusCode }),
    err: (error: Error) => ({ message: error.message }),
  },
});

/** What the framework has to say goes the same way. */
export const frameworkLog: LoggerService = {
  log: () => undefined,
  warn: (message: unknown) => log.warn(String(message)),
  error: (message: unknown, ...rest: unknown[]) =>
    log.error({ where: rest.map(String).join(' ') }, String(message)),
};
