import type { Point } from '@scenograph/core/cutout/recipe';
import type { Shown } from '../../workers/desk.worker';
import type { Sight } from './tools';

/** Where the view is: screen pixels per photo pixel, and the photo place at the view's middle. */
export interface Camera {
  zoom: number;
  x: number;
  y: number;
}

export interface Box {
  width: number;
  height: number;
}

/** A canvas empty and in CSS pixels; it is made anew only when its size changes, which costs more than a frame. */
export function cleared(canvas: HTMLCanvasElement, box: Box, density: number): CanvasRenderingContext2D {
  const [width, height] = [Math.round(box.width * density), Math.round(box.height * density)];
  if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height });
  const c = canvas.getContext('2d')!;
  c.setTransform(density, 0, 0, density, 0, 0);
  c.clearRect(0, 0, box.width, box.height);
  return c;
}

/** Everything that the picture on the desk is drawn from. */
export interface DeskPicture {
  box: Box;
  density: number;
  zoom: number;
  /** From photo to screen pixels. */
  toScreen(point: Point): Point;
  /** The photo's own size. */
  size: Box;
  shown: Shown;
  photo: { bitmap: ImageBitmap; view: Shown['view'] } | null;
  sight: Sight;
  ground: string;
  tint: string;
  scene: ImageBitmap | null;
  edgeLine: boolean;
}

/** The photo with its cutout, seen as `sight` says. */
export function drawPicture(c: CanvasRenderingContext2D, picture: DeskPicture): void {
  const { box, density, zoom, toScreen, size, shown, photo, sight, tint } = picture;
  const [left, top] = toScreen([0, 0]);
  const [right, bottom] = toScreen([size.width, size.height]);
  const place = (bitmap: ImageBitmap, view: Shown['view']) => {
    const [x, y] = toScreen([view.left, view.top]);
    c.imageSmoothingEnabled = zoom * density < 1.5;
    c.drawImage(bitmap, x, y, view.width * view.k * zoom, view.height * view.k * zoom);
  };
  c.save();
  c.beginPath();
  c.rect(left, top, right - left, bottom - top);
  c.clip();
  if (sight === 'photo' && photo) place(photo.bitmap, photo.view);
  else if (sight === 'tint' && photo) {
    place(photo.bitmap, photo.view);
    // The tint lies over all; what is kept lies on it, with its cleaned edge and its repairs.
    c.globalAlpha = 0.62;
    c.fillStyle = tint;
    c.fillRect(0, 0, box.width, box.height);
    c.globalAlpha = 1;
    place(shown.cut, shown.view);
  } else {
    drawGround(c, picture, { left, top, width: right - left, height: bottom - top });
    if (sight === 'matte') c.filter = 'brightness(0) invert(1)';
    place(shown.cut, shown.view);
    c.filter = 'none';
  }
  if (picture.edgeLine) drawEdgeLine(c, picture);
  c.restore();
}

function drawGround(
  c: CanvasRenderingContext2D,
  { box, sight, scene, ground }: DeskPicture,
  frame: { left: number; top: number; width: number; height: number },
): void {
  if (sight === 'clear') return checkers(c, box);
  if (sight === 'scene' && scene) {
    const k = Math.max(frame.width / scene.width, frame.height / scene.height);
    const [width, height] = [scene.width * k, scene.height * k];
    c.drawImage(
      scene,
      frame.left + (frame.width - width) / 2,
      frame.top + (frame.height - height) / 2,
      width,
      height,
    );
    return;
  }
  c.fillStyle = sight === 'matte' ? '#000000' : ground;
  c.fillRect(0, 0, box.width, box.height);
}

function drawEdgeLine(c: CanvasRenderingContext2D, { shown, toScreen }: DeskPicture): void {
  c.beginPath();
  for (const ring of shown.rings) {
    ring.forEach((p, i) => (i ? c.lineTo(...toScreen(p)) : c.moveTo(...toScreen(p))));
    c.closePath();
  }
  c.lineJoin = 'round';
  c.lineWidth = 2.5;
  c.strokeStyle = '#171b19';
  c.stroke();
  c.lineWidth = 1.2;
  c.strokeStyle = '#d3f04a';
  c.setLineDash([5, 4]);
  c.stroke();
}

function checkers(c: CanvasRenderingContext2D, box: Box): void {
  c.fillStyle = '#f4f4f4';
  c.fillRect(0, 0, box.width, box.height);
  c.fillStyle = '#d9d9d9';
  for (let y = 0; y < box.height; y += 7)
    for (let x = (y / 7) % 2 ? 7 : 0; x < box.width; x += 14) c.fillRect(x, y, 7, 7);
}
