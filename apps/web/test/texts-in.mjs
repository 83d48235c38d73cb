import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';

/** Every text that the sources in a folder hand to `msg` or `rich`. */
export function textsIn(folder) {
  const texts = new Set();
  for (const entry of readdirSync(folder, { recursive: true, encoding: 'utf8' }))
    if (/\.tsx?$/.test(entry) && !/\.test\./.test(entry)) {
      const source = readFileSync(join(folder, entry), 'utf8');
      collect(ts.createSourceFile(entry, source, ts.ScriptTarget.ESNext), texts);
    }
  return [...texts];
}

function collect(node, texts) {
  if (
    ts.isCallExpression(node) &&
    ts.isIdentifier(node.expression) &&
    /^(msg|rich)$/.test(node.expression.text)
  ) {
    const [text] = node.arguments;
    if (ts.isStringLiteralLike(text)) texts.add(text.text);
  }
  ts.forEachChild(node, (child) => collect(child, texts));
}
