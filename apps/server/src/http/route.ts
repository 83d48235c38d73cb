import {
  applyDecorators,
  BadRequestException,
  createParamDecorator,
  Delete,
  Get,
  HttpCode,
  HttpStatus,
  NotFoundException,
  Patch,
  Post,
  Put,
  SetMetadata,
  Sse,
  UseInterceptors,
  type CallHandler,
  type ExecutionContext,
  type NestInterceptor,
} from '@nestjs/common';
import {
  contract,
  EDITOR_HEADER,
  type By,
  type CallOf,
  type FileAnswer,
  type Method,
  type ResultOf,
  type Route,
  type RouteName,
} from '@scenograph/contract';
import { isId } from '@scenograph/contract/openapi';
import type { Schema } from '@scenograph/contract/schema';
import type { Request, Response } from 'express';
import { map, type Observable } from 'rxjs';

const ROUTE = 'scenograph:route';
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;
const METHODS = { GET: Get, POST: Post, PUT: Put, PATCH: Patch, DELETE: Delete } satisfies Record<
  Method,
  unknown
>;

const answered = new Set<RouteName>();

/** Routes of the contract that no handler answers. */
export const unanswered = (): RouteName[] =>
  (Object.keys(contract) as RouteName[]).filter((name) => !answered.has(name));

type Handler<N extends RouteName> = (
  call: CallOf<N>,
  // What a handler needs besides, such as the response to stream into.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  ...rest: any[]
) => Given<ResultOf<N>> | Promise<Given<ResultOf<N>>>;

/** What a handler gives: a list may come as the part of it that was asked for. */
type Given<T> = T extends readonly (infer Item)[] ? T | Page<Item> : T;

/** A handler of a route of the contract: its first argument, marked `@Call()`, and what it returns are typed by it. */
export function On<N extends RouteName>(name: N) {
  return <H extends Handler<N>>(
    target: object,
    key: string | symbol,
    descriptor: TypedPropertyDescriptor<H>,
  ): void => {
    answered.add(name);
    const [method, path] = name.split(' ') as [Method, string];
    const { answer, creates, paged } = contract[name] as Route<unknown, unknown, Partial<FileAnswer>>;
    applyDecorators(
      answer.file === 'text/event-stream' ? Sse(path) : METHODS[method](path),
      HttpCode(creates ? HttpStatus.CREATED : HttpStatus.OK),
      SetMetadata(ROUTE, name),
      ...(process.env.SCENOGRAPH_CHECK_ANSWERS ? [UseInterceptors(AnswerCheck)] : []),
      ...(paged ? [UseInterceptors(Pages)] : []),
    )(target, key, descriptor as TypedPropertyDescriptor<unknown>);
  };
}

const nameOf = (context: ExecutionContext): RouteName => Reflect.getMetadata(ROUTE, context.getHandler());

/** What was sent to a route, checked against the contract: a bad request is answered with a sentence. */
export const Call = createParamDecorator((_: unknown, context: ExecutionContext) => {
  const request = context.switchToHttp().getRequest<Request>();
  const { params, query, body } = request;
  const route: Route = contract[nameOf(context)];
  for (const [part, value] of Object.entries(params))
    if (isId(part) && !UUID.test(String(value)))
      throw new NotFoundException('Nothing is stored under that id.');
  return {
    params,
    query: checked(route.query as Schema | undefined, query),
    body: route.upload ? undefined : checked(route.body as Schema | undefined, body),
    by: byOf(request),
  };
});

/** Who asks, and based on what: an entity tag holds a revision here. */
function byOf(request: Request): By {
  const match = request.get('if-match')?.trim();
  const revision = !match || match === '*' ? null : /^"(\d{1,9})"$/.exec(match)?.[1];
  if (revision === undefined)
    throw new BadRequestException(
      'If-Match holds one revision in quotation marks, as "7", or a star for any.',
    );
  const editor = request.get(EDITOR_HEADER);
  return {
    editor: editor && UUID.test(editor) ? editor : null,
    revision: revision ? Number(revision) : null,
  };
}

function checked(schema: Schema | undefined, value: unknown): unknown {
  if (!schema) return undefined;
  const { value: good, error } = schema.joi.validate(value ?? {}, { stripUnknown: false });
  if (error) throw new BadRequestException(`That request cannot be used: ${error.message}.`);
  return good;
}

/** A part of a list that its handler took by itself, and how many there are in all. */
export class Page<T> {
  constructor(
    readonly items: T[],
    readonly total: number,
  ) {}
}

/** Sends the part of a list that is asked for, with how many there are in all. */
class Pages implements NestInterceptor {
  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const http = context.switchToHttp();
    const route: Route = contract[nameOf(context)];
    const { query } = http.getRequest<Request>();
    const { from, limit } = checked(route.query as Schema, query) as { from: number; limit: number };
    return next.handle().pipe(
      map((value: unknown[] | Page<unknown>) => {
        const { items, total } =
          value instanceof Page ? value : new Page(value.slice(from, from + limit), value.length);
        http.getResponse<Response>().setHeader('X-Total-Count', String(total));
        return items;
      }),
    );
  }
}

/** In tests: an answer that does not keep to the contract is a fault of the server. */
class AnswerCheck implements NestInterceptor {
  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const name = nameOf(context);
    const { answer } = contract[name] as Route<unknown, unknown, Partial<Schema>>;
    return next.handle().pipe(
      map((value) => {
        if (!answer.joi) return value;
        const { error } = answer.joi.validate(JSON.parse(JSON.stringify(value ?? null)), { convert: false });
        if (error) throw new Error(`The answer of ${name} does not keep to the contract: ${error.message}.`);
        return value;
      }),
    );
  }
}
