const ENTITIES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text as it stands in XML or HTML, between tags or in a double-quoted attribute. */
export function escapeXml(text: unknown): string {
  return String(text).replace(/[&<>"]/g, (c) => ENTITIES[c]);
}
