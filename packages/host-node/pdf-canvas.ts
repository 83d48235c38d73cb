import { createCanvas, type Canvas } from '@napi-rs/canvas';
import type { Canvas2D, Drawable, Gradient } from '@scenograph/core/raster/canvas';

type Page = PDFKit.PDFDocument;
type State = Pick<
  Canvas2D,
  'globalAlpha' | 'fillStyle' | 'strokeStyle' | 'lineWidth' | 'lineCap' | 'lineJoin'
> & { dash: number[] };

/**
 * A painter's canvas that writes paths, fills and pictures into a PDF page as they are. What it cannot keep as such
 * (gradients, blending, reading pixels) throws: only what says that it paints in vectors is painted on it.
 */
export class PdfCanvas implements Canvas2D {
  globalAlpha = 1;
  globalCompositeOperation = 'source-over';
  fillStyle: string | object = '#000000';
  strokeStyle: string | object = '#000000';
  lineWidth = 1;
  lineCap = 'butt';
  lineJoin = 'miter';
  imageSmoothingEnabled = true;
  imageSmoothingQuality = 'high';
  private dash: number[] = [];
  private readonly kept: State[] = [];
  // A path is held until it is used: one that is filled twice is written twice.
  private path: (() => void)[] = [];
  private at = { x: 0, y: 0 };

  constructor(private readonly page: Page) {}

  save(): void {
    const { globalAlpha, fillStyle, strokeStyle, lineWidth, lineCap, lineJoin, dash } = this;
    this.kept.push({ globalAlpha, fillStyle, strokeStyle, lineWidth, lineCap, lineJoin, dash });
    this.page.save();
  }
  restore(): void {
    const before = this.kept.pop();
    if (!before) return;
    Object.assign(this, before);
    this.page.restore();
  }
  translate(x: number, y: number): void {
    this.page.translate(x, y);
  }
  rotate(radians: number): void {
    this.page.rotate((radians * 180) / Math.PI);
  }
  scale(x: number, y: number): void {
    this.page.scale(x, y);
  }

  beginPath(): void {
    this.path = [];
  }
  closePath(): void {
    this.path.push(() => this.page.closePath());
  }
  moveTo(x: number, y: number): void {
    this.at = { x, y };
    this.path.push(() => this.page.moveTo(x, y));
  }
  lineTo(x: number, y: number): void {
    this.at = { x, y };
    this.path.push(() => this.page.lineTo(x, y));
  }
  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void {
    // PDF has cubic curves alone; the same curve has its control points two thirds of the way.
    const third = (end: number, control: number) => end + (2 / 3) * (control - end);
    const { at } = this;
    this.bezierCurveTo(third(at.x, cx), third(at.y, cy), third(x, cx), third(y, cy), x, y);
  }
  bezierCurveTo(ax: number, ay: number, bx: number, by: number, x: number, y: number): void {
    this.at = { x, y };
    this.path.push(() => this.page.bezierCurveTo(ax, ay, bx, by, x, y));
  }
  rect(x: number, y: number, width: number, height: number): void {
    this.path.push(() => this.page.rect(x, y, width, height));
  }
  clip(): void {
    this.trace();
    this.page.clip();
  }
  fill(): void {
    this.lay(this.fillStyle, (colour) => {
      this.trace();
      this.page.fill(colour);
    });
  }
  fillRect(x: number, y: number, width: number, height: number): void {
    this.lay(this.fillStyle, (colour) => this.page.rect(x, y, width, height).fill(colour));
  }
  stroke(): void {
    this.lay(this.strokeStyle, (colour) => {
      const { page, lineWidth, lineCap, lineJoin, dash } = this;
      page.lineWidth(lineWidth).lineCap(lineCap);
      page.lineJoin(lineJoin);
      // A dot is a dash of nothing with round ends, which pdfkit takes for a mistake. Its types know one length alone.
      if (dash.length) page.dash(dash.map((s) => Math.max(0.01, s)) as unknown as number, {});
      this.trace();
      page.stroke(colour);
    });
  }
  setLineDash(segments: number[]): void {
    this.dash = segments;
  }
  drawImage(image: Drawable, ...at: number[]): void {
    if (at.length !== 4) throw unkept('A part of a picture');
    const [x, y, width, height] = at;
    this.page.save().opacity(this.globalAlpha);
    this.page.image(pngOf(image as Canvas), x, y, { width, height });
    this.page.restore();
  }

  clearRect(): void {
    throw unkept('What is cleared');
  }
  createLinearGradient(): Gradient {
    throw unkept('A gradient');
  }
  createRadialGradient(): Gradient {
    throw unkept('A gradient');
  }
  getImageData(): never {
    throw unkept('What is read back');
  }

  private trace(): void {
    for (const command of this.path) command();
  }
  private lay(style: string | object, use: (colour: string) => void): void {
    const { colour, alpha } = colourOf(style);
    this.page.save().opacity(alpha * this.globalAlpha);
    use(colour);
    this.page.restore();
  }
}

const unkept = (what: string) => new Error(`${what} cannot be kept in vectors.`);

/** A CSS colour as hex and opacity. */
function colourOf(style: string | object): { colour: string; alpha: number } {
  if (typeof style !== 'string') throw unkept('A gradient');
  const rgba = /^rgba?\(\s*([\d.]+)[ ,]+([\d.]+)[ ,]+([\d.]+)(?:[ ,/]+([\d.]+))?\s*\)$/.exec(style);
  if (rgba) {
    const hex = rgba.slice(1, 4).map((v) => Math.round(Number(v)).toString(16).padStart(2, '0'));
    return { colour: `#${hex.join('')}`, alpha: rgba[4] === undefined ? 1 : Number(rgba[4]) };
  }
  const long = /^(#[0-9a-f]{6})([0-9a-f]{2})?$/i.exec(style);
  if (!long) throw unkept(`The colour "${style}"`);
  return { colour: long[1], alpha: long[2] ? parseInt(long[2], 16) / 255 : 1 };
}

function pngOf(image: Canvas): Buffer {
  const { width, height } = image;
  const copy = createCanvas(width, height);
  copy.getContext('2d').drawImage(image, 0, 0);
  return copy.toBuffer('image/png');
}
