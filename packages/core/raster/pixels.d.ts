/** Pixel buffers: plain typed arrays with a size, row by row from the top left. */
/** 8-bit sRGB picture with straight (not premultiplied) alpha; `data` holds width*height*4 bytes. */
export interface Rgba {
  width: number;
  height: number;
  data: Uint8ClampedArray;
}
/** One float a pixel; the unit is the caller's (0..1 for mattes). */
export interface Plane {
  width: number;
  height: number;
  data: Float32Array;
}
/** A rectangle in pixels: left, top, width, height. */
export interface Rect {
  x: number;
  y: number;
  width: number;
  height: number;
}
export declare function createRgba(width: number, height: number): Rgba;
export declare function createPlane(width: number, height: number, fill?: number): Plane;
/** The alpha of a picture as a plane of 0..1. */
export declare function alphaPlane(image: Rgba): Plane;
/** The part of `image` inside `rect`, which must lie within the picture. */
export declare function crop(image: Rgba, rect: Rect): Rgba;
/** The smallest rectangle around all values above `threshold`, or null when there is none. */
export declare function boundsAbove(plane: Plane, threshold: number): Rect | null;
