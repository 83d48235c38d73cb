import type { AnswerOf, RouteName } from '@scenograph/contract';
import { http, HttpResponse } from 'msw';
import { server } from './server';

/** What a route is asked with. */
export interface Sent {
  params: Record<string, string>;
  query: Record<string, string>;
  /** The JSON that came, or the text where it was none; null where nothing came. */
  body: unknown;
}

class Refusal {
  constructor(
    readonly message: string,
    readonly status: number,
  ) {}
}
/** An answer that refuses with a sentence. */
export const refusal = (message: string, status = 409): never => new Refusal(message, status) as never;

type Answers = {
  [N in RouteName]?: AnswerOf<N> | ((sent: Sent) => AnswerOf<N> | Promise<AnswerOf<N>>);
};

/** Lets the server answer routes of the contract; gives what they are asked from now on, in order, reading left out. */
export function answering(answers: Answers): { name: string; sent: Sent }[] {
  const asked: { name: string; sent: Sent }[] = [];
  const handlers = Object.entries(answers).map(([name, answer]) => {
    const [method, path] = name.split(' ');
    const verb = http[method.toLowerCase() as 'get' | 'post' | 'put' | 'patch' | 'delete'];
    return verb(`*${path}`, async ({ request, params }) => {
      const text = await request.text();
      let body: unknown = text || null;
      try {
        body = text ? (JSON.parse(text) as unknown) : null;
      } catch {
        // A file's bytes stay text.
      }
      const query = Object.fromEntries(new URL(request.url).searchParams);
      const sent = { params: params as Record<string, string>, query, body };
      if (method !== 'GET') asked.push({ name, sent });
      const value = (typeof answer === 'function' ? await answer(sent) : answer) as object;
      return value instanceof Refusal
        ? HttpResponse.json({ message: value.message }, { status: value.status })
        : HttpResponse.json(value);
    });
  });
  server.use(...handlers);
  return asked;
}
