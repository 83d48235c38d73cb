import { isKnown } from '../../elements/index';
import type { Check, Finding } from './check';

/** What cannot be painted must not be missed silently. */
export const unknownElement: Check<{ id: string; name: string; kind: string }[]> = {
  id: 'unknown-element',
  title: 'Unknown element',
  measure({ shot }) {
    const unknown = shot?.elements.filter((e) => !e.hidden && !isKnown(e)) ?? [];
    return unknown.length ? unknown.map(({ id, name, kind }) => ({ id, name, kind })) : null;
  },
  judge: (unknown) =>
    unknown.map(({ id, name, kind }): Finding => ({
      verdict: 'stop',
      measured: kind,
      limit: 'known kinds only',
      sentence: `"${name}" is of a kind that this version of Scenograph does not know ("${kind}"), so it is not painted. Open the shot with the version that made it, or hide or remove the element.`,
      about: { id },
    })),
};
