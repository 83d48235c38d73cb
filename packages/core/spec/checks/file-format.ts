import type { Check, FileFacts } from './check';

const PROFILES = { srgb: 'sRGB', p3: 'Display P3', none: 'none' };

export const fileFormat: Check<FileFacts> = {
  id: 'file-format',
  title: 'Format, profile, density',
  measure: ({ file }) => file ?? null,
  judge({ format, density, profile }, slot) {
    const faults = [
      !slot.formats.some((f) => f === format) &&
        `it is ${format}, and the slot takes ${slot.formats.join(', ')}`,
      slot.colourSpace !== 'any' &&
        profile !== slot.colourSpace &&
        `its profile is ${PROFILES[profile]}, and the slot wants ${PROFILES[slot.colourSpace]}`,
      slot.density !== null &&
        Math.round(density ?? 0) !== Math.round(slot.density) &&
        `its density is ${density ?? 'not written'}, and the slot wants ${slot.density} ppi`,
    ].filter((f): f is string => !!f);
    return {
      verdict: faults.length ? 'stop' : 'pass',
      measured: [format, PROFILES[profile], density && `${density} ppi`].filter(Boolean).join(', '),
      limit: [
        slot.formats.join(' or '),
        slot.colourSpace !== 'any' && PROFILES[slot.colourSpace],
        slot.density && `${slot.density} ppi`,
      ]
        .filter(Boolean)
        .join(', '),
      sentence: faults.length
        ? `The file does not fit: ${faults.join('; ')}. Make it again.`
        : 'Format, profile and density are as the slot asks.',
    };
  },
};
