import type { Check } from './check';

export const pixelSize: Check<{ width: number; height: number }> = {
  id: 'pixel-size',
  title: 'Pixel size',
  measure: ({ width, height }) => ({ width, height }),
  judge({ width, height }, { limits, width: wantedWidth, height: wantedHeight }) {
    const measured = `${width} x ${height} px`;
    if (!limits) {
      const right = width === wantedWidth && height === wantedHeight;
      return {
        verdict: right ? 'pass' : 'stop',
        measured,
        limit: `${wantedWidth} x ${wantedHeight} px`,
        sentence: right
          ? 'The picture has exactly the size the slot asks for.'
          : `The picture is ${measured}; the slot takes ${wantedWidth} x ${wantedHeight} px only. Make it again at that size.`,
      };
    }
    const { minWidth, minHeight, maxWidth, maxHeight, minAspect, maxAspect } = limits;
    const aspect = width / height;
    const faults = [
      minWidth !== null && width < minWidth && `at least ${minWidth} px wide`,
      maxWidth !== null && width > maxWidth && `at most ${maxWidth} px wide`,
      minHeight !== null && height < minHeight && `at least ${minHeight} px high`,
      maxHeight !== null && height > maxHeight && `at most ${maxHeight} px high`,
      minAspect !== null && aspect < minAspect - 0.004 && `an aspect of at least ${minAspect}`,
      maxAspect !== null && aspect > maxAspect + 0.004 && `an aspect of at most ${maxAspect}`,
    ].filter((f): f is string => !!f);
    const range = (min: number | null, max: number | null) =>
      min !== null && max !== null
        ? `${min} to ${max}`
        : min !== null
          ? `${min} or more`
          : `${max ?? 'any'}${max === null ? '' : ' or less'}`;
    return {
      verdict: faults.length ? 'stop' : 'pass',
      measured,
      limit: `${range(minWidth, maxWidth)} x ${range(minHeight, maxHeight)} px`,
      sentence: faults.length
        ? `The picture is ${measured}; the slot wants it ${faults.join(' and ')}. Make it again at ${wantedWidth} x ${wantedHeight} px.`
        : 'The picture has a size that the slot takes.',
    };
  },
};
