import type { KeyNotes } from '../../ui/keys';
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
  { id: 'box', title: 'Box', key: 'b', about: 'Draw a box round the product', brush: false },
  { id: 'point', title: 'Point', key: 'p', about: 'Click on the product', brush: false },
  {
    id: 'keep',
    title: 'Keep',
    key: 'k',
    about: 'Stroke over what belongs to the product (include)',
    brush: true,
  },
  { id: 'drop', title: 'Drop', key: 'd', about: 'Stroke over what does not (exclude)', brush: true },
  {
    id: 'colour',
    title: 'By colour',
    key: 'c',
    about: 'Click a colour; Shift adds another to the chosen step',
    brush: false,
  },
  {
    id: 'trace',
    title: 'Trace edge',
    key: 't',
    about: 'Click along an edge, Enter closes the path',
    brush: false,
  },
  {
    id: 'pen',
    title: 'Pen',
    key: 'y',
    about: 'Click for a corner, drag for a curve, Enter closes the path',
    brush: false,
  },
  { id: 'shape', title: 'Shapes', key: 's', about: 'Draw a shape to add or subtract', brush: false },
  { id: 'fibre', title: 'Fibres', key: 'h', about: 'Stroke over hair and fringe', brush: true },
  { id: 'paint-keep', title: 'Paint in', key: 'i', about: 'Plain painting, no snapping', brush: true },
  { id: 'paint-drop', title: 'Paint out', key: 'o', about: 'Plain painting, no snapping', brush: true },
  { id: 'repair', title: 'Repair', key: 'r', about: 'Draw a piece in place of a bad part', brush: false },
  { id: 'base', title: 'Base', key: 'g', about: 'Drag what the product stands on', brush: false },
  { id: 'move', title: 'Move view', key: 'v', about: 'Drag the view', brush: false },
];

export type Sight = 'tint' | 'photo' | 'matte' | 'colour' | 'scene' | 'clear';

export const SIGHTS: readonly { id: Sight; title: string; key: string }[] = [
  { id: 'tint', title: 'Tint', key: '1' },
  { id: 'photo', title: 'Photo', key: '2' },
  { id: 'matte', title: 'Matte', key: '3' },
  { id: 'colour', title: 'Colour', key: '4' },
  { id: 'scene', title: 'Scene', key: '5' },
  { id: 'clear', title: 'Transparent', key: '6' },
];

/** Keys that are no action's. */
export const OTHER_KEYS: KeyNotes = [
  ['+ and -', 'Nearer and farther (or the wheel)'],
  ['Space and drag', 'Move the view'],
  ['. and ,', 'Brush larger and smaller, for the tool in hand'],
  ['Enter', 'Close a path'],
  ['Escape', 'Give up what is being drawn'],
  ['Delete', 'Remove the chosen step, or the point under the pointer'],
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
