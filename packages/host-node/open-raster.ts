import type { Layer } from '@scenograph/core/paint/paint-layers';
import type { Rgba } from '@scenograph/core/raster/pixels';
import { reduceTo } from '@scenograph/core/raster/resample';
import yazl from 'yazl';
import { encodePng } from './encode';
import { escapeXml } from './xml';

/**
 * A layered picture as OpenRaster (baseline 0.0.5): a ZIP with its type first and not compressed, the stack from front
 * to back, each layer as PNG, the merged picture and a thumbnail of at most 256 pixels.
 */
export async function writeOpenRaster(layers: readonly Layer[], merged: Rgba): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  const mtime = new Date(0);
  zip.addBuffer(Buffer.from('image/openraster'), 'mimetype', { compress: false, mtime });
  const stack = [...layers]
    .map((l, i) => ({ ...l, src: `data/layer-${String(i + 1).padStart(3, '0')}.png` }))
    .reverse()
    .map(
      (l) =>
        `<layer name="${escapeXml(l.name)}" src="${l.src}" x="${l.x}" y="${l.y}" opacity="${Number(l.opacity.toFixed(4))}" composite-op="${l.blend === 'normal' ? 'svg:src-over' : `svg:${l.blend}`}"/>`,
    )
    .join('');
  const xml = `<?xml version="1.0" encoding="UTF-8"?><image version="0.0.5" w="${merged.width}" h="${merged.height}"><stack>${stack}</stack></image>`;
  zip.addBuffer(Buffer.from(xml), 'stack.xml', { mtime });
  for (const [i, layer] of layers.entries())
    zip.addBuffer(await encodePng(layer.pixels), `data/layer-${String(i + 1).padStart(3, '0')}.png`, {
      compress: false,
      mtime,
    });
  zip.addBuffer(await encodePng(merged), 'mergedimage.png', { compress: false, mtime });
  zip.addBuffer(await encodePng(reduceTo(merged, 256)), 'Thumbnails/thumbnail.png', {
    compress: false,
    mtime,
  });
  zip.end();
  const chunks: Buffer[] = [];
  for await (const chunk of zip.outputStream) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
}
