import type { In, Out, Schema } from './schema';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** Where a route is: its method and path, in which `:id` stands for a UUID and other names for words. */
export type Place = `${Method} /api/${string}`;

/** An answer that is a file. */
export interface FileAnswer {
  readonly file: string;
}

export interface Route<Q = unknown, B = unknown, A = unknown> {
  /** One sentence for OpenAPI. */
  readonly says: string;
  readonly query?: Q;
  readonly body?: B;
  /** A list that comes in parts: `from` and `limit` of its query say which, `X-Total-Count` of its answer how many there are. */
  readonly paged?: true;
  /** It makes something new, and answers with 201; all others answer with 200. */
  readonly creates?: true;
  /** The body is a file's bytes as they are. */
  readonly upload?: boolean;
  /**
   * It changes something that has a revision: the revision that the change is based on may come as `If-Match`, and what
   * somebody else changed since is answered with 409.
   */
  readonly revised?: true;
  readonly answer: A;
}

/** Checks a route's parts against each other and keeps their types. */
export const route = <
  A extends Schema | FileAnswer,
  Q extends Schema | undefined = undefined,
  B extends Schema | undefined = undefined,
>(
  parts: Route<Q, B, A>,
): Route<Q, B, A> => parts;

export const file = (mime: string): FileAnswer => ({ file: mime });

type Names<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | Names<Rest>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;

/** The parts of a path that are filled in. */
export type Params<P extends string> = { [K in Names<P>]: string };

type Part<R, K extends 'query' | 'body'> = R extends { readonly [k in K]?: infer S } ? NonNullable<S> : never;
type Given<S> = [S] extends [never] ? undefined : In<S>;
type Taken<S> = [S] extends [never] ? undefined : Out<S>;

/** Who changes something, and which revision of it they saw last; null where that is not said. */
export interface By {
  editor: string | null;
  revision: number | null;
}

/** The header by which a browser says whose steps its own are. */
export const EDITOR_HEADER = 'Scenograph-Editor';

/** What a client sends: parts that a route does not have are left out. */
export type Sent<P extends string, R> = (keyof Params<P> extends never ? unknown : { params: Params<P> }) &
  ([Part<R, 'query'>] extends [never]
    ? unknown
    : Record<never, never> extends In<Part<R, 'query'>>
      ? { query?: In<Part<R, 'query'>> }
      : { query: In<Part<R, 'query'>> }) &
  ([Part<R, 'body'>] extends [never] ? unknown : { body: Given<Part<R, 'body'>> });

/** What reaches the server's handler, checked. */
export interface Received<P extends string, R> {
  params: Params<P>;
  query: Taken<Part<R, 'query'>>;
  body: Taken<Part<R, 'body'>>;
  by: By;
}

/** What a client gets; a file is fetched by its address. */
export type Answered<R> = R extends { readonly answer: infer A }
  ? A extends Schema
    ? Out<A>
    : never
  : never;

/** What a handler may give back; one that answers with a file streams it by itself. */
export type Answer<R> = R extends { readonly answer: infer A } ? (A extends Schema ? In<A> : unknown) : never;

/**
 * A route's address with its parts filled in.
 * @throws Error for a part that is missing
 */
export function address(
  place: string,
  params: Readonly<Record<string, string>> = {},
  query: Readonly<Record<string, unknown>> = {},
): string {
  const path = place.slice(place.indexOf(' ') + 1).replace(/:(\w+)/g, (_, name: string) => {
    if (params[name] === undefined) throw new Error(`The address "${place}" needs "${name}".`);
    return encodeURIComponent(params[name]);
  });
  const words = Object.entries(query)
    .filter(([, value]) => value !== undefined && value !== null)
    .map(([name, value]) => `${encodeURIComponent(name)}=${encodeURIComponent(String(value))}`);
  return words.length ? `${path}?${words.join('&')}` : path;
}
