import { formatHex, parse } from 'culori';

/** A colour as people write it (#rgb, #rrggbb, rgb(), hsl(), a CSS name) as #rrggbb; null where it is none. */
export function readColour(text: string): string | null {
  const plain = text.trim();
  const colour = parse(plain) ?? parse(`#${plain}`);
  return colour ? (formatHex(colour) ?? null) : null;
}
