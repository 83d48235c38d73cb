import type { TextElement } from '@scenograph/core/elements/text/model';
import { newText } from '@scenograph/core/shot/starters';
import type { KindUi } from '../kind-ui';
import { TextDesk } from './desk';
import { TextInside } from './inside';
import { msg } from '../../../../language/language';

/** Light words are shown in ink on the white slat. */
function darkEnough(colour: string): string {
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16));
  return 0.3 * r + 0.59 * g + 0.11 * b > 150 ? '#171b19' : colour;
}

export const textUi: KindUi<TextElement> = {
  Overlay: TextDesk,
  Inside: TextInside,
  resize: 'sides',
  slat: ({ text, colour }) => (
    <span className="font-display truncate px-1 text-[13px] font-bold" style={{ color: darkEnough(colour) }}>
      {text.split('\n')[0]}
    </span>
  ),
  starters: [
    {
      group: msg('Words and prices'),
      id: 'text',
      title: msg('Text'),
      make: (id, frame) => newText(id, msg('New words'), frame),
    },
  ],
};
