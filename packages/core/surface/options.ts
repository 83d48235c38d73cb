import type { PrintArea } from './area';
import type { ItemOption, ItemWork } from './print-item';
import type { Print } from './print';

/** A design that an option may print. */
export interface OptionDesign {
  title: string;
  hash: string;
  width: number;
  height: number;
  drawn: Print['drawn'];
  knockOut: number;
  /** Whether it leaves nothing clear, so that it is laid over white. */
  covers: boolean;
}

export interface OptionChoices {
  /** Designs in place of the one that is printed; empty keeps it. */
  designs: OptionDesign[];
  /** Inks, null for the design's own colours; empty keeps what it has. */
  inks: (string | null)[];
  /** Colours of the item, null as photographed; empty keeps what it has. */
  colours: (string | null)[];
}

/** So many options can still be told apart on one sheet. */
const MOST_OPTIONS = 60;

/**
 * Every design in every ink on every colour of the item, in one go. A design takes the place of the one named: the
 * same middle, as large as its box allows. Throws a sentence where nothing is chosen or too much.
 */
export function makeOptions(
  work: ItemWork,
  printId: string,
  choices: OptionChoices,
  area: Pick<PrintArea, 'id'> | null = null,
): ItemOption[] {
  const print = work.prints.find((p) => p.id === printId);
  if (!print) throw new Error('Choose first the design whose options are wanted.');
  const designs = choices.designs.length ? choices.designs : [null];
  const inks = choices.inks.length ? choices.inks : [print.ink];
  const colours = choices.colours.length ? choices.colours : [work.colour];
  const count = designs.length * inks.length * colours.length;
  if (count < 2) throw new Error('Choose at least two designs, inks or item colours.');
  if (work.options.length + count > MOST_OPTIONS)
    throw new Error(
      `These would make ${work.options.length + count} options; up to ${MOST_OPTIONS} can be compared. Choose fewer, or remove some.`,
    );
  const ids = new Set(work.options.map((o) => o.id));
  let n = 0;
  const out: ItemOption[] = [];
  for (const design of designs)
    for (const ink of inks)
      for (const colour of colours) {
        do n++;
        while (ids.has(`option-${n}`));
        const changed = {
          ...(design ? withDesign(print, design) : print),
          ink,
          area: area?.id ?? print.area,
        };
        const parts = [
          design?.title ??
            (choices.designs.length || choices.inks.length + choices.colours.length ? print.name : ''),
          choices.inks.length ? (ink ? `ink ${ink}` : 'own colours') : '',
          choices.colours.length ? (colour ? `item ${colour}` : 'item as it is') : '',
        ];
        out.push({
          id: `option-${n}`,
          title: parts.filter(Boolean).join(', '),
          winner: false,
          prints: work.prints.map((p) => (p.id === printId ? changed : p)),
          colour,
        });
      }
  return out;
}

function withDesign(print: Print, design: OptionDesign): Print {
  const { place } = print;
  const aspect = design.height / design.width;
  const k = Math.min(place.width, place.height / aspect);
  return {
    ...print,
    name: design.title,
    artwork: design.hash,
    width: design.width,
    height: design.height,
    drawn: design.drawn,
    knockOut: design.knockOut,
    lay: design.covers ? 'opaque' : print.lay,
    place: { ...place, width: k, height: k * aspect },
  };
}

/** The work with an option taken over; the options stay. */
export function takeOption(work: ItemWork, option: ItemOption): ItemWork {
  return { ...work, prints: option.prints, colour: option.colour };
}
