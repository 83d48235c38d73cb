import { pictureLevel } from '../draw-picture';
import type { Canvas2D } from '../../raster/canvas';
import type { PaintEnvironment } from '../environment';
import { reduceTo } from '../../raster/resample';
import {
  fillPath,
  polygon,
  polyline,
  roundedRectangle,
  strokePath,
  tracePath,
  type Bounds,
  type PathCommand,
} from '../../vector/outline';
import type { Words } from '../base';
import { paintWords, setWords, wordsOf } from '../words';
import { matchTone, toneStatistics } from './match-tone';
import type { ElementPainter } from '../painter';
import { PairHalf, PairElement } from './model';

export const pairPainter: ElementPainter<PairElement> = {
  words: labelWords,
  paint(e, canvas, environment) {
    const { box } = e;
    canvas.save();
    tracePath(canvas, roundedRectangle(box, e.radius));
    canvas.clip();
    const { first, line } = splitOf(e);
    paintHalf(e, e.after, 0, canvas, environment);
    canvas.save();
    tracePath(canvas, first);
    canvas.clip();
    paintHalf(e, e.before, e.matchTone, canvas, environment);
    canvas.restore();
    strokePath(canvas, line, { ...e.divider, ends: 'butt' });
    canvas.restore();
    if (!e.labels) return;
    const alpha = canvas.globalAlpha;
    for (const plate of labelPlates(e, environment)) {
      canvas.globalAlpha = alpha * e.labels.opacity;
      fillPath(canvas, roundedRectangle(plate, plate.height * 0.28), e.labels.plate);
    }
    canvas.globalAlpha = alpha;
    paintWords(labelWords(e, environment), canvas);
  },
};

/** The part of the first picture, and the line where the two meet. */
function splitOf({ box, split, at }: PairElement): { first: PathCommand[]; line: PathCommand[] } {
  const { x, y, width, height } = box;
  const [right, bottom] = [x + width, y + height];
  // A diagonal leans by a fifth of the width to either side.
  const lean = split === 'diagonal' ? Math.min(width, height) * 0.2 : 0;
  const [a, b] =
    split === 'horizontal'
      ? [
          { x, y: y + height * at },
          { x: right, y: y + height * at },
        ]
      : [
          { x: x + width * at + lean, y },
          { x: x + width * at - lean, y: bottom },
        ];
  const first =
    split === 'horizontal'
      ? polygon([{ x, y }, { x: right, y }, b, a])
      : polygon([{ x, y }, a, b, { x, y: bottom }]);
  return { first, line: polyline([a, b]) };
}

function paintHalf(
  e: PairElement,
  { picture, focus, zoom }: PairHalf,
  match: number,
  canvas: Canvas2D,
  environment: PaintEnvironment,
): void {
  const { box } = e;
  if (!picture) {
    fillPath(canvas, roundedRectangle(box, 0), '#d9dad6');
    for (let i = -box.height; i < box.width; i += box.width / 12)
      strokePath(
        canvas,
        polyline([
          { x: box.x + i, y: box.y + box.height },
          { x: box.x + i + box.height, y: box.y },
        ]),
        { width: box.width / 200, colour: '#c3c5bf' },
      );
    return;
  }
  const source = environment.picture(picture);
  const k = Math.max(box.width / source.width, box.height / source.height) * zoom;
  const [w, h] = [source.width * k, source.height * k];
  const x = Math.min(box.x, Math.max(box.x + box.width - w, box.x + box.width / 2 - focus.x * w));
  const y = Math.min(box.y, Math.max(box.y + box.height - h, box.y + box.height / 2 - focus.y * h));
  const reduction = 1 / (k * environment.scale);
  const other = e.after.picture;
  const drawable =
    match > 0 && other
      ? matched(picture, other, match, reduction, environment)
      : pictureLevel(picture, reduction, environment).drawable;
  canvas.imageSmoothingEnabled = true;
  canvas.imageSmoothingQuality = 'medium';
  canvas.drawImage(drawable, x, y, w, h);
}

/** A picture in the tone of another, at about the size it comes out at. */
function matched(
  picture: string,
  other: string,
  share: number,
  reduction: number,
  environment: PaintEnvironment,
) {
  const statistics = (hash: string) =>
    environment.kept(`tone:${hash}`, () => toneStatistics(reduceTo(environment.picture(hash).pixels(), 200)));
  const source = environment.picture(picture);
  const side = Math.ceil(Math.max(source.width, source.height) / Math.max(1, reduction));
  const steps = Math.ceil(Math.log2(side) * 2);
  return environment.derived(`matched:${picture}:${other}:${share}:${steps}`, () =>
    matchTone(
      reduceTo(source.pixels(), Math.ceil(2 ** (steps / 2))),
      statistics(picture),
      statistics(other),
      share,
    ),
  );
}

const PAD = 0.5;

function labelWords(e: PairElement, environment: PaintEnvironment): Words[] {
  return labelSets(e, environment).map(({ text, set }) => wordsOf(text, set, e.labels!.ink));
}

function labelPlates(e: PairElement, environment: PaintEnvironment): Bounds[] {
  return labelSets(e, environment).map(({ set }) => {
    const pad = set.size * PAD;
    const first = Math.min(...set.lines.map((l) => l.x));
    return {
      x: set.left + first - pad,
      y: set.top - pad * 0.35,
      width: set.width + 2 * pad,
      height: set.height + pad * 0.7,
    };
  });
}

/** Labels stand in the outer corners of their halves. */
function labelSets(e: PairElement, environment: PaintEnvironment) {
  const { labels, box, split, at } = e;
  if (!labels) return [];
  const pad = labels.size * PAD;
  const edge = Math.min(box.width, box.height) * 0.035 + pad;
  const level = split === 'horizontal';
  return [e.before, e.after].flatMap((half, i) => {
    if (half.label.trim() === '') return [];
    const room = level ? box.width : box.width * (i ? 1 - at : at);
    const inner = {
      x: box.x + edge + (i && !level ? box.width - room : 0),
      y: box.y + edge,
      width: Math.max(4, room - 2 * edge),
      height: Math.max(4, box.height - 2 * edge),
    };
    const set = setWords(
      half.label,
      {
        font: labels.font,
        size: labels.size,
        smallest: labels.size * 0.4,
        leading: 1.2,
        tracking: 0,
        align: i ? 'right' : 'left',
        vertical: i ? 'bottom' : 'top',
      },
      inner,
      environment,
    );
    return [{ text: half.label, set }];
  });
}
