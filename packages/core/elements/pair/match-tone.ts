import { fromOklab, oklabPixels } from '../../raster/colour';
import { createRgba, type Rgba } from '../../raster/pixels';

export interface ToneStatistics {
  mean: [number, number, number];
  spread: [number, number, number];
}

/** Mean and standard deviation of a picture's OKLab channels. */
export function toneStatistics(image: Rgba): ToneStatistics {
  const lab = oklabPixels(image);
  const n = Math.max(1, lab.length / 3);
  const mean: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < lab.length; i++) mean[i % 3] += lab[i] / n;
  const spread: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < lab.length; i++) spread[i % 3] += (lab[i] - mean[i % 3]) ** 2 / n;
  return { mean, spread: spread.map(Math.sqrt) as [number, number, number] };
}

/**
 * A picture with the mean and spread of its colours brought to another's by a share: 0 leaves it, 1 brings it all the
 * way. Source: Reinhard, Ashikhmin, Gooch and Shirley 2001, "Color transfer between images", here in OKLab.
 */
export function matchTone(image: Rgba, from: ToneStatistics, to: ToneStatistics, share: number): Rgba {
  const lab = oklabPixels(image);
  const out = createRgba(image.width, image.height);
  const rgb = new Float64Array(3);
  const gain = from.spread.map((s, c) => Math.min(2, Math.max(0.5, to.spread[c] / Math.max(1e-4, s))));
  for (let i = 0, j = 0; j < out.data.length; i += 3, j += 4) {
    const moved = [0, 1, 2].map((c) => {
      const matched = (lab[i + c] - from.mean[c]) * gain[c] + to.mean[c];
      return lab[i + c] + (matched - lab[i + c]) * share;
    });
    fromOklab(moved[0], moved[1], moved[2], rgb);
    out.data.set(rgb, j);
    out.data[j + 3] = image.data[j + 3];
  }
  return out;
}
