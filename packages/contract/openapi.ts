import { contract, type RouteName } from './index';
import type { FileAnswer, Route } from './route';
import { NAMED, type Schema } from './schema';

type Json = Record<string, unknown>;
const isObject = (value: unknown): value is Json =>
  !!value && typeof value === 'object' && !Array.isArray(value);

/** The sentence that every refusal holds. */
const REFUSAL = {
  type: 'object',
  properties: {
    message: { type: 'string', description: 'What was wrong and what to do, in a sentence.' },
    detail: { description: 'With 409: what is stored.' },
  },
  required: ['message'],
};

const TOTAL = { description: 'How many there are in the whole list.', schema: { type: 'integer' } };

/** RFC 9110, section 13.1.1; without it, or with `*`, a change is made whatever stands there. */
const IF_MATCH = {
  name: 'If-Match',
  in: 'header',
  required: false,
  description:
    'The revision that the change is based on, in quotation marks. What was changed since is answered with 409.',
  schema: { type: 'string', examples: ['"7"'] },
};

/**
 * The contract as OpenAPI 3.1, whose schemas are JSON Schema 2020-12 as Joi writes them; named schemas are listed once
 * under `components`.
 */
export function openApi(version: string): Json {
  const schemas: Json = { Refusal: REFUSAL };
  const paths: Record<string, Json> = {};
  for (const [name, route] of Object.entries(contract) as [RouteName, Route][]) {
    const [method, path] = name.split(' ');
    const address = path.replace(/:(\w+)/g, '{$1}');
    (paths[address] ??= {})[method.toLowerCase()] = operation(name, route, schemas);
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Scenograph', version, license: { name: 'MIT', identifier: 'MIT' } },
    paths,
    components: { schemas },
  };
}

function operation(name: RouteName, route: Route, schemas: Json): Json {
  const [, path] = name.split(' ');
  const inPath = [...path.matchAll(/:(\w+)/g)].map(([, part]) => ({
    name: part,
    in: 'path',
    required: true,
    schema: isId(part) ? { type: 'string', format: 'uuid' } : { type: 'string' },
  }));
  const query = route.query ? jsonSchema(route.query as Schema, 'input', schemas) : {};
  const required = new Set((query.required as string[] | undefined) ?? []);
  const inQuery = Object.entries((query.properties ?? {}) as Json).map(([part, schema]) => ({
    name: part,
    in: 'query',
    required: required.has(part),
    schema,
  }));
  const answer = route.answer as Schema | FileAnswer;
  const ok =
    'file' in answer
      ? { [answer.file]: { schema: { type: 'string', contentMediaType: answer.file } } }
      : { 'application/json': { schema: jsonSchema(answer, 'output', schemas) } };
  const body = route.upload
    ? { 'application/octet-stream': { schema: {} } }
    : route.body
      ? { 'application/json': { schema: jsonSchema(route.body as Schema, 'input', schemas) } }
      : null;
  const parameters = [...inPath, ...inQuery, ...(route.revised ? [IF_MATCH] : [])];
  return {
    operationId: name.replace(/ \/api\//, '-').replace(/[/:.]+/g, '-'),
    summary: route.says,
    tags: [path.split('/')[2]],
    ...(parameters.length ? { parameters } : {}),
    ...(body ? { requestBody: { required: true, content: body } } : {}),
    responses: {
      [route.creates ? '201' : '200']: {
        description: 'Done.',
        content: ok,
        ...(route.paged ? { headers: { 'X-Total-Count': TOTAL } } : {}),
      },
      default: {
        description: 'Refused.',
        content: { 'application/json': { schema: { $ref: '#/components/schemas/Refusal' } } },
      },
    },
  };
}

/** Parts of a path that are words; all others are UUIDs. */
const WORDS = new Set(['sheet', 'thing', 'hash', 'side', 'n', 'mask']);
export const isId = (part: string): boolean => !WORDS.has(part);

function jsonSchema(schema: Schema, mode: 'input' | 'output', schemas: Json): Json {
  const standard = schema.joi['~standard'] as unknown as {
    jsonSchema: Record<'input' | 'output', (o: { target: string }) => Json>;
  };
  return lifted(standard.jsonSchema[mode]({ target: 'draft-2020-12' }), schemas) as Json;
}

/** Moves named schemas to `schemas`, with a reference in their place. */
function lifted(value: unknown, schemas: Json): unknown {
  if (Array.isArray(value)) return value.map((v) => lifted(v, schemas));
  if (!isObject(value)) return value;
  const { description, ...rest } = value;
  const inner = Object.fromEntries(Object.entries(rest).map(([k, v]) => [k, lifted(v, schemas)]));
  if (typeof description !== 'string' || !description.startsWith(NAMED))
    return description === undefined ? inner : { description, ...inner };
  const name = description.slice(NAMED.length);
  const ref = { $ref: `#/components/schemas/${name}` };
  const nullable = Array.isArray(inner.type) && inner.type.includes('null');
  schemas[name] ??= nullable ? { ...inner, type: 'object' } : inner;
  return nullable ? { anyOf: [ref, { type: 'null' }] } : ref;
}
