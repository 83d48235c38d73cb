type Json = Record<string, unknown>;

/** From version n to n + 1, in order; index 0 takes version 1 to 2. A migration never needs the network or a clock. */
const STEPS: ((shot: Json) => Json)[] = [
  // 2: a backdrop's scene keeps a focus; a product says whether it follows the variant.
  (shot) => ({
    ...shot,
    version: 2,
    elements: ((shot.elements as Json[]) ?? []).map((element) => {
      if (element.kind === 'product' && element.followsVariant === undefined)
        return { ...element, followsVariant: true };
      const fill = element.fill as Json | undefined;
      if (element.kind === 'backdrop' && fill?.type === 'scene' && !fill.focus)
        return { ...element, fill: { ...fill, focus: { x: 0.5, y: 0.5 } } };
      return element;
    }),
  }),
  // 3: a product's shadow is computed from the light or the camera's own.
  (shot) => ({
    ...shot,
    version: 3,
    elements: (shot.elements as Json[]).map((element) =>
      element.kind === 'product'
        ? { ...element, ownShadow: null, shadow: { source: 'light', ...(element.shadow as Json) } }
        : element,
    ),
    fits: Object.fromEntries(
      Object.entries((shot.fits as Record<string, Json>) ?? {}).map(([slot, fit]) => [
        slot,
        {
          ...fit,
          elements: Object.fromEntries(
            Object.entries(fit.elements as Record<string, Json>).map(([id, patch]) => [
              id,
              patch.shadow ? { ...patch, shadow: { source: 'light', ...(patch.shadow as Json) } } : patch,
            ]),
          ),
        },
      ]),
    ),
  }),
];

/** Brings a shot document of an earlier version up to the present one. Throws a sentence for what it cannot read. */
export function migrate(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new Error('A shot is a JSON object; this is something else.');
  let shot = value as Json;
  const newest = STEPS.length + 1;
  if (!Number.isInteger(shot.version) || (shot.version as number) < 1)
    throw new Error('This JSON object has no shot version; it is not a shot.');
  if ((shot.version as number) > newest)
    throw new Error(
      `This shot was made by a newer Scenograph (document version ${shot.version}; this one reads up to ${newest}). Update to open it.`,
    );
  while ((shot.version as number) < newest) shot = STEPS[(shot.version as number) - 1](shot);
  return shot;
}
