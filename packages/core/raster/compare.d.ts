import type { Rgba } from './pixels';
/** Peak signal-to-noise ratio of two equal-sized pictures over red, green and blue, in dB; Infinity when identical. */
export declare function psnr(a: Rgba, b: Rgba): number;
