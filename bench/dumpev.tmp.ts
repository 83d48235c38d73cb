import { openSync, readSync, writeSync, existsSync } from 'node:fs';
import { oklabPixels } from '../packages/core/raster/colour';
import { colourHypothesis } from '../packages/core/cutout/colour-hypothesis';
import { evidenceOf, oddsFrom } from '../packages/core/cutout/evidence';
import { smoothness } from '../packages/core/cutout/graph-cut';
import { taughtColour } from '../packages/core/cutout/segment';

const [poolFile, shapeFile, outFile, sizeText, from, to] = process.argv.slice(2);
const S = Number(sizeText);
const n = S * S;
const pool = openSync(poolFile, 'r');
const shapes = openSync(shapeFile, 'r');
const out = openSync(outFile, existsSync(outFile) ? 'r+' : 'w');
const RANGES: [number, number][] = [[-8, 8], [-2.1, 2.1], [-1.2, 1.2], [-1.2, 1.2], [0, 4], [0, 4], [-1, 3], [0, 1], [0, 1]];
for (let i = Number(from); i < Number(to); i++) {
  const p = Buffer.alloc(n * 5);
  readSync(pool, p, 0, n * 5, 128 + i * n * 5);
  const s = Buffer.alloc(n * 2);
  readSync(shapes, s, 0, n * 2, 128 + i * n * 2);
  const data = new Uint8ClampedArray(n * 4).fill(255);
  for (let k = 0; k < n; k++) for (let c = 0; c < 3; c++) data[k * 4 + c] = p[k * 5 + c];
  const shape = Float32Array.from({ length: n }, (_, k) => s[k * 2] / 255);
  const lab = oklabPixels({ width: S, height: S, data } as never);
  const options = { holes: true, shadows: true };
  const colour = colourHypothesis(lab, S, S, options, smoothness(lab, S, S));
  const taught = taughtColour(shape, lab, S, S, options);
  const e = evidenceOf(shape, colour, taught, S, S);
  const odds = oddsFrom(e);
  const planes = [odds, e[0], e[1], e[2], e[5], e[6], e[7], e[8], e[9]];
  const o = Buffer.alloc(n * 9);
  planes.forEach((plane, c) => {
    const [a, b] = RANGES[c];
    for (let k = 0; k < n; k++) o[k * 9 + c] = Math.max(0, Math.min(255, Math.round(((plane[k] - a) / (b - a)) * 255)));
  });
  writeSync(out, o, 0, n * 9, i * n * 9);
  if (i % 50 === 0) console.log(i);
}
console.log('done');
