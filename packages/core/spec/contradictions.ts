import { checkPattern } from './file-name';
import type { Slot } from './slot';

/** Rules of a slot that cannot all be kept, each as a sentence that says which and what to do. */
export function contradictions(slot: Slot): string[] {
  const found: string[] = [];
  const say = (text: string) => found.push(`"${slot.title}": ${text}`);
  const { coverage, limits, width, height, marginShare } = slot;
  const percent = (share: number) => `${Math.round(share * 1000) / 10} %`;

  if (coverage.min !== null && coverage.max !== null && coverage.min > coverage.max)
    say(
      `coverage is to be at least ${percent(coverage.min)} and at most ${percent(coverage.max)}. Swap or change them.`,
    );
  if (
    coverage.wanted !== null &&
    (coverage.wanted < (coverage.min ?? 0) || coverage.wanted > (coverage.max ?? 1))
  )
    say(`the wanted coverage of ${percent(coverage.wanted)} lies outside its own limits.`);
  const shorter = Math.min(width, height);
  const room = 1 - (2 * marginShare * shorter) / Math.max(width, height);
  if (coverage.min !== null && coverage.min > room + 0.001)
    say(
      `a margin of ${percent(marginShare)} on each side leaves ${percent(room)} of the frame; coverage of at least ${percent(coverage.min)} does not fit in it.`,
    );
  if (limits) {
    const between = (what: string, min: number | null, max: number | null, made: number, unit: string) => {
      if (min !== null && max !== null && min > max)
        say(`the ${what} is to be at least ${min}${unit} and at most ${max}${unit}. Swap or change them.`);
      else if ((min !== null && made < min) || (max !== null && made > max))
        say(
          `pictures are made with ${/^[aeiou]/.test(what) ? 'an' : 'a'} ${what} of ${made}${unit}, which the slot itself does not take.`,
        );
    };
    between('width', limits.minWidth, limits.maxWidth, width, ' px');
    between('height', limits.minHeight, limits.maxHeight, height, ' px');
    between(
      'aspect ratio',
      limits.minAspect,
      limits.maxAspect,
      Math.round((width / height) * 1000) / 1000,
      '',
    );
  }
  if (slot.background.kind === 'transparent' && slot.formats.every((f) => f === 'jpeg'))
    say('the background is to be transparent, which JPEG cannot hold. Take PNG, WebP or AVIF too.');
  if (slot.density !== null && slot.formats.some((f) => f === 'webp' || f === 'avif'))
    say('a density is asked for, which WebP and AVIF cannot hold. Take JPEG and PNG only, or any density.');
  if (slot.overlays === 'forbidden' && slot.maxTextShare)
    say('overlays are forbidden, yet text may take a share of the frame. Set the share to none.');
  for (const zone of slot.safeZones)
    if (zone.x + zone.width > 1.001 || zone.y + zone.height > 1.001)
      say(`the safe zone "${zone.title}" reaches out of the frame.`);
  try {
    checkPattern(slot.fileName);
  } catch (error) {
    say((error as Error).message);
  }
  // Even one byte for sixty pixels is more than any picture with detail can be brought down to.
  if (slot.maxBytes * 60 < width * height)
    say(
      `${slot.maxBytes.toLocaleString('en-GB')} bytes are too few for ${width} x ${height} px. Allow more bytes or fewer pixels.`,
    );
  return found;
}
