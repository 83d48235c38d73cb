import { escapeXml } from '@scenograph/host-node/xml';

type Json = Record<string, unknown>;

const STYLE = `
  body { max-width: 60rem; margin: 2rem auto; padding: 0 1rem; font: 15px/1.5 system-ui, sans-serif; color: #171b19; }
  nav a { margin-right: 0.8rem; white-space: nowrap; } h2 { margin-top: 2.5rem; border-bottom: 1px solid #c9cec9; }
  details { border-bottom: 1px solid #e4e7e3; padding: 0.3rem 0; } summary { cursor: pointer; }
  code { font: 13px ui-monospace, monospace; } pre { overflow: auto; background: #f3f5f2; padding: 0.6rem; }
  b.method { display: inline-block; width: 4.5rem; font: 600 13px ui-monospace, monospace; }
  @media (prefers-color-scheme: dark) { body { background: #171b19; color: #e4e7e3; } pre { background: #232826; } a { color: #9fd0c0; } }`;

const named = (id: string) => `schema-${id}`;

/** Pretty JSON in which references to named schemas are links. */
const json = (value: unknown): string =>
  escapeXml(JSON.stringify(value, null, 2)).replace(
    /&quot;#\/components\/schemas\/(\w+)&quot;/g,
    (_, id: string) => `<a href="#${named(id)}">${id}</a>`,
  );

function operation(path: string, method: string, op: Json): string {
  const parts: string[] = [];
  if (op.parameters) parts.push(`<h4>Parameters</h4><pre>${json(op.parameters)}</pre>`);
  const body = (op.requestBody as Json | undefined)?.content as Json | undefined;
  if (body) parts.push(`<h4>Body</h4><pre>${json(body)}</pre>`);
  for (const [status, { content }] of Object.entries(op.responses as Record<string, Json>))
    if (status !== 'default') parts.push(`<h4>Answer ${status}</h4><pre>${json(content)}</pre>`);
  return `<details id="${escapeXml(op.operationId)}"><summary><b class="method">${method.toUpperCase()}</b>
    <code>${escapeXml(path)}</code> ${escapeXml(op.summary)}</summary>${parts.join('')}</details>`;
}

/** An OpenAPI document as one page of HTML that needs nothing else: no script, no network. */
export function apiPage(document: Json): string {
  const groups = new Map<string, string[]>();
  for (const [path, operations] of Object.entries(document.paths as Record<string, Record<string, Json>>))
    for (const [method, op] of Object.entries(operations)) {
      const [tag] = op.tags as string[];
      groups.set(tag, [...(groups.get(tag) ?? []), operation(path, method, op)]);
    }
  const { schemas } = document.components as { schemas: Json };
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Scenograph API</title>
    <meta name="viewport" content="width=device-width"><style>${STYLE}</style></head><body>
    <h1>Scenograph API</h1><p>Every route of this server. The same as data:
    <a href="/api/openapi.json">openapi.json</a> (OpenAPI 3.1).</p>
    <nav>${[...groups.keys(), 'schemas'].map((t) => `<a href="#${escapeXml(t)}">${escapeXml(t)}</a>`).join('')}</nav>
    ${[...groups].map(([tag, list]) => `<h2 id="${escapeXml(tag)}">${escapeXml(tag)}</h2>${list.join('')}`).join('')}
    <h2 id="schemas">schemas</h2>
    ${Object.entries(schemas)
      .map(
        ([id, schema]) =>
          `<details id="${named(id)}"><summary><code>${id}</code></summary><pre>${json(schema)}</pre></details>`,
      )
      .join('')}
    </body></html>`;
}
