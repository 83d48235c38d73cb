import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import type { Command } from 'commander';
import { fillHole, FillError } from '@scenograph/core/retouch/fill';
import type { Format } from '@scenograph/core/spec/slot';
import { decodeGrey, decodePicture, takePicture } from '@scenograph/host-node/read-picture';
import { print, InputError, readShare, writePicture } from './common';

interface FillCommand {
  mask: string;
  seed: number;
  texture: number;
  output: string;
}

/** `scenograph fill`: a marked part of a picture grown over from its surroundings. */
export function addFillCommand(program: Command, formatOf: (file: string) => Format): void {
  program
    .command('fill')
    .description('fill a marked part of a picture from its surroundings')
    .argument('<picture>', 'JPEG, PNG, WebP, TIFF or AVIF')
    .requiredOption('--mask <file>', "a grey PNG of the picture's size, white where it is to be filled")
    .option('--seed <n>', 'another filling', (text) => Math.abs(Math.trunc(Number(text))) || 1, 1)
    .option(
      '--texture <n>',
      '0 to 1: how much of the texture that nobody can know is made up; 0 is the likeliest picture, 1 as crisp as its surroundings',
      readShare,
      0,
    )
    .requiredOption('-o, --output <file>', 'ends in .jpg, .png or .webp')
    .action(async (pictureFile: string, options: FillCommand) => {
      const started = performance.now();
      const format = formatOf(options.output);
      const raw = await readFile(pictureFile);
      const taken = await takePicture(basename(pictureFile), raw);
      const picture = await decodePicture(taken.working?.bytes ?? raw);
      const rawMask = await readFile(options.mask);
      const takenMask = await takePicture(basename(options.mask), rawMask);
      const mask = await decodeGrey(takenMask.working?.bytes ?? rawMask);
      const marked = mask.data.reduce((sum, v) => sum + (v > 0.02 ? 1 : 0), 0);
      if (!marked)
        throw new InputError(
          `"${options.mask}" marks nothing: it is black all over. Paint white what is to be filled.`,
        );
      let filled;
      try {
        filled = fillHole(picture, mask, { seed: options.seed, texture: options.texture });
      } catch (error) {
        if (error instanceof FillError) throw new InputError(error.message);
        throw error;
      }
      const { told } = await writePicture(options.output, filled, format);
      print({
        ...told,
        filledPixels: marked,
        texture: options.texture,
        milliseconds: Math.round(performance.now() - started),
      });
    });
}
