import type { KeyNotes } from '../../ui/keys';
import { msg } from '../../language/language';
/** What a pointer does on the photo. Keys are plain letters, listed in the command menu and the help sheet. */
export type ToolId =
  | 'box'
  | 'point'
  | 'keep'
  | 'drop'
  | 'paint-keep'
  | 'paint-drop'
  | 'colour'
  | 'trace'
  | 'pen'
  | 'shape'
  | 'fibre'
  | 'repair'
  | 'base'
  | 'move';

/** Tools that are drawn with a round brush; each keeps a width of its own. */
export type BrushId = 'keep' | 'drop' | 'paint-keep' | 'paint-drop' | 'fibre';

export interface Tool {
  id: ToolId;
  title: string;
  key: string;
  about: string;
  brush: boolean;
}

export const TOOLS: readonly Tool[] = [
  { id: 'box', title: msg('Box'), key: 'b', about: msg('Draw a box round the product'), brush: false },
  { id: 'point', title: msg('Point'), key: 'p', about: msg('Click on the product'), brush: false },
  {
    id: 'keep',
    title: msg('Keep'),
    key: 'k',
    about: msg('Stroke over what belongs to the product (include)'),
    brush: true,
  },
  {
    id: 'drop',
    title: msg('Drop'),
    key: 'd',
    about: msg('Stroke over what does not (exclude)'),
    brush: true,
  },
  {
    id: 'colour',
    title: msg('By colour'),
    key: 'c',
    about: msg('Click a colour; Shift adds another to the chosen step'),
    brush: false,
  },
  {
    id: 'trace',
    title: msg('Trace edge'),
    key: 't',
    about: msg('Click along an edge, Enter closes the path'),
    brush: false,
  },
  {
    id: 'pen',
    title: msg('Pen'),
    key: 'y',
    about: msg('Click for a corner, drag for a curve, Enter closes the path'),
    brush: false,
  },
  {
    id: 'shape',
    title: msg('Shapes'),
    key: 's',
    about: msg('Draw a shape to add or subtract'),
    brush: false,
  },
  { id: 'fibre', title: msg('Fibres'), key: 'h', about: msg('Stroke over hair and fringe'), brush: true },
  {
    id: 'paint-keep',
    title: msg('Paint in'),
    key: 'i',
    about: msg('Plain painting, no snapping'),
    brush: true,
  },
  {
    id: 'paint-drop',
    title: msg('Paint out'),
    key: 'o',
    about: msg('Plain painting, no snapping'),
    brush: true,
  },
  {
    id: 'repair',
    title: msg('Repair'),
    key: 'r',
    about: msg('Draw a piece in place of a bad part'),
    brush: false,
  },
  { id: 'base', title: msg('Base'), key: 'g', about: msg('Drag what the product stands on'), brush: false },
  { id: 'move', title: msg('Move view'), key: 'v', about: msg('Drag the view'), brush: false },
];

export type Sight = 'tint' | 'photo' | 'matte' | 'colour' | 'scene' | 'clear';

export const SIGHTS: readonly { id: Sight; title: string; key: string }[] = [
  { id: 'tint', title: msg('Tint'), key: '1' },
  { id: 'photo', title: msg('Photo'), key: '2' },
  { id: 'matte', title: msg('Matte'), key: '3' },
  { id: 'colour', title: msg('Colour'), key: '4' },
  { id: 'scene', title: msg('Scene'), key: '5' },
  { id: 'clear', title: msg('Transparent'), key: '6' },
];

/** Keys that are no action's. */
export const OTHER_KEYS: KeyNotes = [
  ['+ and -', msg('Nearer and farther (or the wheel)')],
  [msg('Space and drag'), msg('Move the view')],
  ['. and ,', msg('Brush larger and smaller, for the tool in hand')],
  [msg('Arrows'), msg('Move the pointer over the photo, with Shift farther')],
  ['Enter', msg('Press and release there, or click; twice in one place closes a path')],
  ['Escape', msg('Give up what is being drawn')],
  ['Delete', msg('Remove the chosen step, or the point under the pointer')],
];

export interface ToolOptions {
  /** Brush radii in photo pixels, a tool's own. */
  radii: Record<BrushId, number>;
  softness: number;
  tolerance: number;
  reach: 'touching' | 'anywhere';
  /** 'auto' subtracts what is kept where it was clicked, and adds what is not. */
  mode: 'auto' | 'add' | 'take' | 'overlap';
  shape: 'rectangle' | 'ellipse' | 'freehand' | 'polygon';
  snap: number;
  piece: 'ellipse' | 'rounded' | 'path';
  /** Null takes the colour that lies under the start of the piece. */
  fill: string | null;
  corner: number;
}

export function isBrush(tool: string): tool is BrushId {
  return TOOLS.some((t) => t.id === tool && t.brush);
}
