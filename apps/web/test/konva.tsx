/** Stands in for react-konva: jsdom has no canvas, so handles are neither drawn nor dragged in component tests. */
const nothing = () => null;
export const Stage = nothing;
export const Layer = nothing;
export const Rect = nothing;
export const Transformer = nothing;
export const Line = nothing;
export const Circle = nothing;
export const Group = nothing;
