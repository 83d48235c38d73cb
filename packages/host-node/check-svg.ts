import { SaxesParser } from 'saxes';

const FORBIDDEN = new Set([
  'script',
  'foreignobject',
  'iframe',
  'embed',
  'object',
  'audio',
  'video',
  'handler',
]);

/**
 * Throws a sentence when an SVG is not well formed or holds anything that could run, load from elsewhere or
 * grow without end: scripts, event attributes, external references, entities.
 */
export function checkSvg(text: string): void {
  const parser = new SaxesParser();
  let elements = 0;
  parser.on('error', (error) => {
    throw new Error(`the SVG is not well formed (${error.message.replace(/^\d+:\d+: /, '')}).`);
  });
  parser.on('doctype', (doctype) => {
    if (/ENTITY|\[/.test(doctype))
      throw new Error('it defines entities, which are not allowed. Save it as plain SVG.');
  });
  parser.on('opentag', (tag) => {
    if (++elements > 60_000) throw new Error('it has more than 60,000 parts. Simplify it and save it again.');
    const local = tag.name.replace(/^.*:/, '').toLowerCase();
    if (FORBIDDEN.has(local))
      throw new Error(`it holds a <${tag.name}>, which is not allowed. Remove it and save again.`);
    for (const [name, value] of Object.entries(tag.attributes as Record<string, string>)) {
      if (/^on/i.test(name)) throw new Error(`it holds a script in "${name}". Remove it and save again.`);
      if (/(^|:)href$/i.test(name) && !/^(#|data:image\/(png|jpeg|webp);)/i.test(value.trim()))
        throw new Error(
          `it refers to something outside itself (${value.slice(0, 60)}). Embed it and save again.`,
        );
      refuseOutsideUrls(value);
    }
  });
  parser.on('text', refuseOutsideUrls);
  parser.on('cdata', refuseOutsideUrls);
  parser.write(text).close();
}

function refuseOutsideUrls(text: string): void {
  if (/@import/i.test(text) || /url\(\s*['"]?(?!#|data:image)/i.test(text))
    throw new Error('its styles load something from outside. Embed it and save again.');
}
