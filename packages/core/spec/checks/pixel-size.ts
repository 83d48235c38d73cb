import type { Check } from './check';

export const pixelSize: Check = {
  id: 'pixel-size',
  title: 'Pixel size',
  measure({ slot, width, height }) {
    const right = width === slot.width && height === slot.height;
    return {
      verdict: right ? 'pass' : 'stop',
      measured: `${width} x ${height} px`,
      limit: `${slot.width} x ${slot.height} px`,
      sentence: right
        ? 'The picture has exactly the size the slot asks for.'
        : `The picture is ${width} x ${height} px; the slot takes ${slot.width} x ${slot.height} px only. Make it again at that size.`,
    };
  },
};
