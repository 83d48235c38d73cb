import type { ShotElement } from '@scenograph/core/elements/index';
import type { KindUi } from '../kind-ui';
import { msg, rich } from '../../../../language/language';

/** What is shown of an element whose kind this version does not know. */
export const unknownUi: KindUi<ShotElement> = {
  resize: 'not',
  slat: ({ kind }) => (
    <span className="text-ink-2 truncate px-1 text-[11px]">{msg('unknown: {kind}', { kind })}</span>
  ),
  Overlay: ({ element: { name, kind } }) => (
    <p>
      {rich(
        '“{name}” is of a kind that this version of Scenograph does not know (<measure>{kind}</measure>). It is kept as it is and not painted.',
        { name, measure: (inside) => <span className="measure">{inside}</span>, kind },
      )}
    </p>
  ),
};
