import { isIP } from 'node:net';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';

/** Who may ask, how often, and what a page of ours may load. */

const SENTENCES = {
  host: 'Scenograph does not answer under this name. Open it by its address, or add the name to SCENOGRAPH_HOSTS.',
  foreign:
    'Another page asked for this in your name, which is refused. Open Scenograph itself and do it there.',
  often: 'That is asked for too often. Wait a minute, then try again.',
};

/** Requests a minute from one address: fifty people at one desk each stay below. */
const LIMITS = { all: 60_000, computing: 1200 };

/** Addresses under /api that paint or encode while somebody waits. */
const COMPUTES = /\/(picture|export|layers|trials|proof|option-sheet|inks|bundle|files|export\.zip)$/;

/** The name of a `Host` header without its port. */
const nameOf = (host: string) =>
  host
    .replace(/:\d+$/, '')
    .replace(/^\[|\]$/g, '')
    .toLowerCase();

/**
 * Names that this server answers to: numbers, `localhost`, and what `HOST` and `SCENOGRAPH_HOSTS` say. A page elsewhere that
 * lets its own name point here is refused (DNS rebinding).
 */
export function knownHost(host: string | undefined, named: readonly string[]): boolean {
  if (!host) return false;
  const name = nameOf(host);
  return isIP(name) > 0 || name === 'localhost' || name.endsWith('.localhost') || named.includes(name);
}

/** Whether a page of another origin asks; browsers say so, other clients do not. Source: W3C, Fetch Metadata. */
export function isForeign(headers: Request['headers']): boolean {
  const site = headers['sec-fetch-site'];
  // No page can set this header itself; where it is missing, the origin is all there is.
  if (site) return site === 'cross-site' || site === 'same-site';
  const { origin, host } = headers;
  if (!origin) return false;
  try {
    return new URL(origin).host !== host;
  } catch {
    // "null": a page that hides where it is from.
    return true;
  }
}

const refuse = (response: Response, status: number, message: string) =>
  void response.status(status).json({ message });

function guard(named: readonly string[]): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    if (!knownHost(request.headers.host, named)) return refuse(response, 403, SENTENCES.host);
    const asks = request.path.startsWith('/api/') || !/^(GET|HEAD)$/.test(request.method);
    if (asks && isForeign(request.headers)) return refuse(response, 403, SENTENCES.foreign);
    next();
  };
}

const limited = (limit: number, skip?: (request: Request) => boolean) =>
  rateLimit({
    windowMs: 60_000,
    limit,
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    skip,
    handler: (_, response) => refuse(response, 429, SENTENCES.often),
  });

export function guardDoors(app: NestExpressApplication): void {
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          // WebAssembly of the segmentation model and of HarfBuzz.
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          workerSrc: ["'self'", 'blob:'],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:'],
          connectSrc: ["'self'", 'data:', 'blob:'],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      frameguard: { action: 'deny' },
      referrerPolicy: { policy: 'same-origin' },
      // It is served on loopback without TLS; who puts it behind a proxy sets this there.
      strictTransportSecurity: false,
    }),
  );
  const named = [process.env.HOST ?? '', ...(process.env.SCENOGRAPH_HOSTS ?? '').split(',')]
    .map((name) => name.trim().toLowerCase())
    .filter(Boolean);
  app.use(guard(named));
  app.use(limited(LIMITS.all));
  app.use(limited(LIMITS.computing, (request) => !COMPUTES.test(request.path)));
}
