import type { ShotElement } from '@scenograph/core/elements/index';
import type { KindUi } from '../kind-ui';

/** What is shown of an element whose kind this version does not know. */
export const unknownUi: KindUi<ShotElement> = {
  resize: 'not',
  slat: ({ kind }) => <span className="text-ink-2 truncate px-1 text-[11px]">unknown: {kind}</span>,
  Overlay: ({ element: { name, kind } }) => (
    <p>
      “{name}” is of a kind that this version of Scenograph does not know (
      <span className="measure">{kind}</span>
      ). It is kept as it is and not painted.
    </p>
  ),
};
