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
    fits: eachPatch(shot.fits, (patch) =>
      patch.shadow ? { ...patch, shadow: { source: 'light', ...(patch.shadow as Json) } } : patch,
    ),
  }),
  // 4: every element has a link and effects; products stand on a plane; scenes are surveyed; gradients have ends.
  (shot) => {
    const elements = (shot.elements as Json[]).map(stagedElement);
    const ground = elements.find((e) => e.kind === 'backdrop' && (e.fill as Json).type === 'scene');
    const light = ground && ((ground.fill as Json).survey as Json).light;
    return {
      ...shot,
      version: 4,
      elements: elements.map((e) => withSceneLight(e, light)),
      fits: eachPatch(shot.fits, stagedPatch),
    };
  },
  // 5: a scene may be a mockup that is printed on, and is framed closer on demand.
  (shot) => {
    const printable = (element: Json): Json => {
      const fill = element.fill as Json | undefined;
      if (fill?.type !== 'scene') return element;
      return {
        ...element,
        fill: {
          ...fill,
          zoom: 1,
          survey: { ...(fill.survey as Json), areas: [], outline: null, mends: [], mended: null },
          item: { prints: [], colour: null, shade: [], options: [] },
        },
      };
    };
    return {
      ...shot,
      version: 5,
      elements: (shot.elements as Json[]).map(printable),
      fits: eachPatch(shot.fits, printable),
    };
  },
  // 6: brand kit, places of templates, smallest sizes of texts, and the order of importance.
  (shot) => ({
    ...shot,
    version: 6,
    importance: [],
    elements: (shot.elements as Json[]).map((element) => ({
      ...element,
      brand: {},
      place: null,
      spread: false,
      ...(element.kind === 'text'
        ? { smallest: Math.min((element.size as number) * 0.25, 5000), tied: null, capitals: false }
        : {}),
    })),
  }),
  // 7: a print may follow the variant's artwork.
  (shot) => {
    const bindable = (part: Json): Json => {
      const fill = part.fill as Json | undefined;
      const item = fill?.type === 'scene' ? (fill.item as Json | undefined) : undefined;
      if (!item) return part;
      const follow = (list: unknown) =>
        ((list as Json[]) ?? []).map((print) => ({ followsVariant: false, ...print }));
      const options = ((item.options as Json[]) ?? []).map((o) => ({ ...o, prints: follow(o.prints) }));
      return { ...part, fill: { ...fill, item: { ...item, prints: follow(item.prints), options } } };
    };
    return {
      ...shot,
      version: 7,
      elements: (shot.elements as Json[]).map(bindable),
      fits: eachPatch(shot.fits, bindable),
    };
  },
  // 8: a scene's light may be laid on products; those that stand already keep the look they have.
  (shot) => ({
    ...shot,
    version: 8,
    elements: (shot.elements as Json[]).map((element) =>
      element.kind === 'product' ? { ...element, relight: 0 } : element,
    ),
  }),
  // 9: a shiny product may mirror the scene.
  (shot) => ({
    ...shot,
    version: 9,
    elements: (shot.elements as Json[]).map((element) =>
      element.kind === 'product' ? { ...element, gloss: 0 } : element,
    ),
  }),
  // 10: a product may be out of focus and in haze, as its scene is at its depth.
  (shot) => ({
    ...shot,
    version: 10,
    elements: (shot.elements as Json[]).map((element) =>
      element.kind === 'product' ? { ...element, blur: 0, haze: 0 } : element,
    ),
  }),
];

/** Every difference of every slot changed alike. */
function eachPatch(fits: unknown, change: (patch: Json) => Json): Json {
  return Object.fromEntries(
    Object.entries((fits as Record<string, Json>) ?? {}).map(([slot, fit]) => [
      slot,
      {
        ...fit,
        elements: Object.fromEntries(
          Object.entries(fit.elements as Record<string, Json>).map(([id, patch]) => [id, change(patch)]),
        ),
      },
    ]),
  );
}

function stagedElement(element: Json): Json {
  const base = {
    ...stagedPatch(element),
    link: null,
    effects: { outline: null, glow: null, dropShadow: null, innerShadow: null },
  };
  if (element.kind === 'backdrop')
    return {
      ...base,
      adjust: { hue: 0, saturation: 0, lightness: 0 },
      edges: { strength: 0, reach: 0.6 },
    };
  if (element.kind !== 'product') return base;
  return {
    ...base,
    base: null,
    pitchDeg: null,
    liftMm: 40,
    behind: true,
    reflection: { strength: 0, fade: 0.5, roughness: 0.25 },
    tone: { strength: 0, limit: 6 },
    pack: null,
  };
}

/** What changed inside keys that differences may hold too. */
function stagedPatch(patch: Json): Json {
  const next = { ...patch };
  const shadow = patch.shadow as Json | undefined;
  if (shadow) next.shadow = { ...shadow, softness: 1, length: 1, tint: '#1c1712' };
  const fill = patch.fill as Json | undefined;
  if (fill?.type === 'linear') {
    const angle = ((fill.angle as number) * Math.PI) / 180;
    const [dx, dy] = [Math.cos(angle) / 2, Math.sin(angle) / 2];
    const reach = Math.abs(dx) + Math.abs(dy) > 0 ? 0.5 / Math.max(Math.abs(dx), Math.abs(dy)) : 1;
    next.fill = {
      type: 'gradient',
      form: 'linear',
      from: { x: 0.5 - dx * reach, y: 0.5 - dy * reach },
      to: { x: 0.5 + dx * reach, y: 0.5 + dy * reach },
      stops: fill.stops,
    };
  } else if (fill?.type === 'radial')
    next.fill = {
      type: 'gradient',
      form: 'radial',
      from: { x: fill.x, y: fill.y },
      to: { x: (fill.x as number) + (fill.radius as number) * Math.SQRT2, y: fill.y },
      stops: fill.stops,
    };
  else if (fill?.type === 'scene')
    next.fill = {
      ...fill,
      survey: { plane: null, known: null, gloss: 0, occluder: null, ...(fill.survey as Json) },
    };
  return next;
}

/** A product whose light is its scene's follows the scene. */
function withSceneLight(element: Json, light: unknown): Json {
  const shadow = element.shadow as Json | undefined;
  if (element.kind !== 'product' || !shadow || !light) return element;
  return JSON.stringify(sorted(shadow.light)) === JSON.stringify(sorted(light))
    ? { ...element, shadow: { ...shadow, light: null } }
    : element;
}

const sorted = (value: unknown) => Object.entries(value as Json).sort(([a], [b]) => a.localeCompare(b));

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
      `This shot was made by a newer Scenograph (document version ${shot.version as number}; this one reads up to ${newest}). Update to open it.`,
    );
  while ((shot.version as number) < newest) shot = STEPS[(shot.version as number) - 1](shot);
  return shot;
}
