import type { Rgba } from './pixels';

/** Anything the injected canvas can draw: an ImageBitmap, a canvas. */
export type Drawable = object;

export interface Gradient {
  addColorStop(offset: number, colour: string): void;
}

/** The part of the standard CanvasRenderingContext2D that the painter uses. */
export interface Canvas2D {
  globalAlpha: number;
  globalCompositeOperation: string;
  fillStyle: string | object;
  strokeStyle: string | object;
  lineWidth: number;
  lineCap: string;
  lineJoin: string;
  imageSmoothingEnabled: boolean;
  imageSmoothingQuality: string;
  save(): void;
  restore(): void;
  translate(x: number, y: number): void;
  rotate(radians: number): void;
  scale(x: number, y: number): void;
  clearRect(x: number, y: number, width: number, height: number): void;
  fillRect(x: number, y: number, width: number, height: number): void;
  beginPath(): void;
  closePath(): void;
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void;
  bezierCurveTo(c1x: number, c1y: number, c2x: number, c2y: number, x: number, y: number): void;
  rect(x: number, y: number, width: number, height: number): void;
  clip(): void;
  fill(): void;
  stroke(): void;
  setLineDash(segments: number[]): void;
  createLinearGradient(x0: number, y0: number, x1: number, y1: number): Gradient;
  createRadialGradient(x0: number, y0: number, r0: number, x1: number, y1: number, r1: number): Gradient;
  drawImage(image: Drawable, dx: number, dy: number, dw: number, dh: number): void;
  drawImage(
    image: Drawable,
    sx: number,
    sy: number,
    sw: number,
    sh: number,
    dx: number,
    dy: number,
    dw: number,
    dh: number,
  ): void;
  getImageData(x: number, y: number, width: number, height: number): { data: Uint8ClampedArray };
}

/** A picture at hand: its size, something to draw, and its pixels when a computation asks for them. */
export interface Picture {
  width: number;
  height: number;
  drawable: Drawable;
  pixels(): Rgba;
}

/** What a place (browser worker, server, command line) gives the painter. */
export interface PaintHost {
  canvas(width: number, height: number): { context: Canvas2D; drawable: Drawable };
  bitmap(image: Rgba): Drawable;
}
