/** What a pointer does on the photo. Keys are plain letters, listed in the command menu and the help sheet. */
export type ToolId =
  'keep' | 'drop' | 'paint-keep' | 'paint-drop' | 'colour' | 'trace' | 'shape' | 'fibre' | 'repair' | 'move';

export interface Tool {
  id: ToolId;
  title: string;
  key: string;
  about: string;
  brush: boolean;
}

export const TOOLS: readonly Tool[] = [
  { id: 'keep', title: 'Keep', key: 'k', about: 'Stroke over what belongs to the product', brush: true },
  { id: 'drop', title: 'Drop', key: 'd', about: 'Stroke over what does not', brush: true },
  { id: 'colour', title: 'By colour', key: 'c', about: 'Click a colour; Shift adds another', brush: false },
  {
    id: 'trace',
    title: 'Trace edge',
    key: 't',
    about: 'Click along an edge, Enter closes the path',
    brush: false,
  },
  { id: 'shape', title: 'Shapes', key: 's', about: 'Draw a shape to add or take away', brush: false },
  { id: 'fibre', title: 'Fibres', key: 'h', about: 'Stroke over hair and fringe', brush: true },
  { id: 'paint-keep', title: 'Paint in', key: 'i', about: 'Plain painting, no snapping', brush: true },
  { id: 'paint-drop', title: 'Paint out', key: 'o', about: 'Plain painting, no snapping', brush: true },
  { id: 'repair', title: 'Repair', key: 'r', about: 'Draw a piece in place of a bad part', brush: false },
  { id: 'move', title: 'Move view', key: 'v', about: 'Drag the view', brush: false },
];

export type Sight = 'tint' | 'photo' | 'matte' | 'colour' | 'scene' | 'clear';

export const SIGHTS: readonly { id: Sight; title: string; key: string }[] = [
  { id: 'tint', title: 'Tint', key: '1' },
  { id: 'photo', title: 'Photo', key: '2' },
  { id: 'matte', title: 'Matte', key: '3' },
  { id: 'colour', title: 'Colour', key: '4' },
  { id: 'scene', title: 'Scene', key: '5' },
  { id: 'clear', title: 'Clear', key: '6' },
];

/** Keys that are not of a tool or a sight. */
export const OTHER_KEYS: readonly [keys: string, what: string][] = [
  ['F', 'Fit the photo to the view'],
  ['A', 'Actual pixels, 100 %'],
  ['+ and -', 'Nearer and farther (or the wheel)'],
  ['Space and drag', 'Move the view'],
  ['. and ,', 'Brush larger and smaller'],
  ['E', 'Edge line on and off'],
  ['Enter', 'Close a path'],
  ['Escape', 'Give up what is being drawn'],
  ['Delete', 'Remove the chosen step, or the point under the pointer'],
  ['Ctrl Z, Ctrl Shift Z', 'Undo, redo'],
  ['N', 'Accept and go on to the next photo'],
  ['?', 'This sheet'],
];

export interface ToolOptions {
  /** Brush radius in photo pixels. */
  radius: number;
  softness: number;
  tolerance: number;
  reach: 'touching' | 'anywhere';
  mode: 'add' | 'take' | 'overlap';
  shape: 'rectangle' | 'ellipse' | 'freehand' | 'polygon';
  snap: number;
  piece: 'ellipse' | 'rounded' | 'path';
  fill: string;
}
