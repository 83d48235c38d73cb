import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import type { Request, RequestHandler, Response } from 'express';
import sirv from 'sirv';

/** Built files whose names change with what is in them. */
const HASHED = /^\/assets\//;

/** Answers are compressed as they are sent; files come compressed already, and streams of events must not be held back. */
export const isWorthCompressing: compression.CompressionFilter = (request, response) =>
  !/^text\/event-stream/.test(String(response.getHeader('Content-Type'))) &&
  !/^image\/svg/.test(String(response.getHeader('Content-Type'))) &&
  compression.filter(request, response);

/**
 * Serves the built application, where there is one: files as they were compressed by the build, those with a hash in their
 * name kept for good, and its page for every address that is not the interface of the server.
 * @param folder where the application was built to; a new build there is served at once
 */
export function servePages(app: { use(handler: RequestHandler): unknown }, folder: string): void {
  if (!existsSync(folder)) return;
  const files = sirv(folder, {
    dev: true,
    etag: true,
    brotli: true,
    gzip: true,
    extensions: [],
  });
  app.use((request: Request, response: Response, next: () => void) => {
    if (request.path.startsWith('/api/')) return next();
    response.setHeader(
      'Cache-Control',
      HASHED.test(request.path) ? 'public, max-age=31536000, immutable' : 'no-cache',
    );
    files(request, response, () => {
      response.removeHeader('Cache-Control');
      next();
    });
  });
  app.use((request: Request, response: Response, next: () => void) => {
    if (request.method !== 'GET' || request.path.startsWith('/api/') || /\.\w+$/.test(request.path))
      return next();
    response.set('Cache-Control', 'no-cache').sendFile(join(folder, 'index.html'));
  });
}
