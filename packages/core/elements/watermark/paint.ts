import { pictureLevel } from '../draw-picture';
import type { Canvas2D } from '../../raster/canvas';
import type { PaintEnvironment } from '../environment';
import { createRgba } from '../../raster/pixels';
import { layoutText } from '../../type/layout-text';
import { fillPath, mappedPath, pathBounds, type Bounds, type PathCommand } from '../../vector/outline';
import { meanLuminance } from '../ground-tone';
import { facesFor } from '../words';
import type { ElementPainter } from '../painter';
import { WatermarkElement } from './model';

export const watermarkPainter: ElementPainter<WatermarkElement> = {
  paint(e, canvas, environment) {
    const mark = markOf(e, environment);
    if (!mark) return;
    canvas.save();
    canvas.beginPath();
    canvas.rect(e.box.x, e.box.y, e.box.width, e.box.height);
    canvas.clip();
    for (const place of placesOf(e, mark.aspect)) {
      const pixels = environment.beneath(place.bounds);
      if (!pixels) continue;
      const ink = inkFor(meanLuminance(pixels), e.strength);
      const alpha = canvas.globalAlpha;
      canvas.globalAlpha = alpha * ink.opacity;
      mark.paint(place, ink.colour, canvas);
      canvas.globalAlpha = alpha;
    }
    canvas.restore();
  },
};

interface MarkPlace {
  cx: number;
  cy: number;
  width: number;
  angle: number;
  bounds: Bounds;
}

interface Mark {
  aspect: number;
  paint(place: MarkPlace, colour: string, canvas: Canvas2D): void;
}

/**
 * White on dark ground, black on light, and the opacity at which the mean lightness L* (CIE 1976) changes by
 * `strength`: the same step to the eye on every ground.
 */
export function inkFor(luminance: number, strength: number): { colour: string; opacity: number } {
  const lightness = luminance > 0.008856 ? 116 * Math.cbrt(luminance) - 16 : 903.3 * luminance;
  const up = lightness < 58;
  // Laying on is done on sRGB values, which run nearly straight with L*.
  const room = up ? 100 - lightness : lightness;
  return { colour: up ? '#ffffff' : '#000000', opacity: Math.min(1, strength / Math.max(8, room)) };
}

function placesOf(e: WatermarkElement, aspect: number): MarkPlace[] {
  const { box } = e;
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const width = Math.min(e.size, e.pattern === 'single' ? box.width : Infinity);
  const height = width / aspect;
  const a = (e.angleDeg * Math.PI) / 180;
  const place = (x: number, y: number): MarkPlace => {
    const w = Math.abs(width * Math.cos(a)) + Math.abs(height * Math.sin(a));
    const h = Math.abs(width * Math.sin(a)) + Math.abs(height * Math.cos(a));
    return { cx: x, cy: y, width, angle: a, bounds: { x: x - w / 2, y: y - h / 2, width: w, height: h } };
  };
  if (e.pattern === 'single') return [place(cx, cy)];
  const stepX = width * (1 + e.gap);
  const reach = Math.hypot(box.width, box.height) / 2 + width;
  if (e.pattern === 'diagonal') {
    const n = Math.ceil(reach / stepX);
    return Array.from({ length: 2 * n + 1 }, (_, i) =>
      place(cx + (i - n) * stepX * Math.cos(a), cy + (i - n) * stepX * Math.sin(a)),
    );
  }
  const stepY = Math.max(height * 2.4, height + width * e.gap * 0.8);
  const [nx, ny] = [Math.ceil(reach / stepX) + 1, Math.ceil(reach / stepY) + 1];
  const places: MarkPlace[] = [];
  for (let j = -ny; j <= ny; j++)
    for (let i = -nx; i <= nx; i++) {
      // Every other row is set off by half a step.
      const u = (i + (j % 2 ? 0.5 : 0)) * stepX;
      const v = j * stepY;
      const p = place(cx + u * Math.cos(a) - v * Math.sin(a), cy + u * Math.sin(a) + v * Math.cos(a));
      const { bounds: b } = p;
      if (
        b.x < box.x + box.width &&
        b.x + b.width > box.x &&
        b.y < box.y + box.height &&
        b.y + b.height > box.y
      )
        places.push(p);
    }
  return places;
}

function markOf(e: WatermarkElement, environment: PaintEnvironment): Mark | null {
  if (e.mark === 'words') {
    if (e.text.trim() === '') return null;
    const set = environment.kept(JSON.stringify(['mark', e.text, e.font]), () =>
      layoutText(
        e.text,
        facesFor(e.font, e.text, environment),
        { size: 1, leading: 1.1, tracking: 0, align: 'centre' },
        1e4,
      ),
    );
    const b = pathBounds(set.commands);
    if (!b) return null;
    return {
      aspect: b.width / Math.max(b.height, 1e-6),
      paint: ({ cx, cy, width, angle }, colour, canvas) =>
        fillPath(canvas, centred(set.commands, b, width / b.width, angle, cx, cy), colour),
    };
  }
  const picture = e.light ?? e.dark;
  if (!picture) return null;
  const { width: w, height: h } = environment.picture(picture);
  return {
    aspect: w / h,
    paint({ cx, cy, width, angle }, colour, canvas) {
      const shade = silhouette(picture, colour, w / (width * environment.scale), environment);
      const height = (width * h) / w;
      canvas.save();
      canvas.translate(cx, cy);
      canvas.rotate(angle);
      canvas.drawImage(shade, -width / 2, -height / 2, width, height);
      canvas.restore();
    },
  };
}

function centred(commands: PathCommand[], b: Bounds, k: number, angle: number, cx: number, cy: number) {
  const [s, c] = [Math.sin(angle) * k, Math.cos(angle) * k];
  const [mx, my] = [b.x + b.width / 2, b.y + b.height / 2];
  return mappedPath(commands, [c, s, -s, c, cx - c * mx + s * my, cy - s * mx - c * my]);
}

/** A picture's shape in one colour. */
function silhouette(hash: string, colour: string, reduction: number, environment: PaintEnvironment) {
  const { width, height } = pictureLevel(hash, reduction, environment);
  return environment.derived(`silhouette:${hash}:${colour}:${width}`, () => {
    const layer = environment.host.canvas(width, height);
    layer.context.drawImage(pictureLevel(hash, reduction, environment).drawable, 0, 0, width, height);
    const { data } = layer.context.getImageData(0, 0, width, height);
    const out = createRgba(width, height);
    const value = colour === '#ffffff' ? 255 : 0;
    for (let i = 0; i < data.length; i += 4) {
      out.data[i] = out.data[i + 1] = out.data[i + 2] = value;
      out.data[i + 3] = data[i + 3];
    }
    return out;
  });
}
