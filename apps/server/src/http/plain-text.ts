import type { NextFunction, Request, Response } from 'express';

/** Documents of ours are nested less than twenty deep. */
const MOST_DEEP = 100;

/** Zero characters and half of a surrogate pair: PostgreSQL stores neither, and no keyboard writes them. */
const isText = (value: string) => !value.includes('\u0000') && !/\p{Surrogate}/u.test(value);

/** What of a parsed request cannot be stored, in words; null where it can. Never recursive: it may be nested a million deep. */
export function unstorable(value: unknown): string | null {
  let level: unknown[] = [value];
  for (let depth = 0; level.length; depth++) {
    if (depth > MOST_DEEP) return `it is nested more than ${MOST_DEEP} deep`;
    const next: unknown[] = [];
    for (const one of level) {
      if (typeof one === 'string' && !isText(one)) return 'a text in it holds a character that is none';
      if (typeof one === 'object' && one !== null)
        for (const [key, inner] of Object.entries(one)) {
          if (!isText(key)) return 'a name in it holds a character that is none';
          next.push(inner);
        }
    }
    level = next;
  }
  return null;
}

/** Refuses what could not be stored before anything is done with it. */
export function onlyPlainText(request: Request, response: Response, next: NextFunction): void {
  let why: string | null;
  try {
    why = unstorable([decodeURIComponent(request.path), request.query, request.body]);
  } catch {
    why = 'its address is not written as addresses are';
  }
  if (why) response.status(400).json({ message: `The request cannot be used: ${why}.` });
  else next();
}
