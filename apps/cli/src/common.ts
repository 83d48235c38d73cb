import { mkdir, rename, writeFile } from 'node:fs/promises';
import { dirname, resolve } from 'node:path';
import type { Rgba } from '@scenograph/core/raster/pixels';
import type { Format } from '@scenograph/core/spec/slot';
import { encodePicture } from '@scenograph/host-node/encode';
import { InvalidArgumentError } from 'commander';

/** A sentence for the user; anything else that is thrown is a fault of ours. */
export class InputError extends Error {}

/** Written beside its place and moved there: a run that is broken off leaves no half file. */
export async function write(file: string, bytes: Uint8Array): Promise<void> {
  await mkdir(dirname(resolve(file)), { recursive: true });
  const beside = `${file}.${process.pid}.part`;
  await writeFile(beside, bytes);
  await rename(beside, file);
}

/** A painted picture encoded and written; `told` is what every command says of it first. */
export async function writePicture(file: string, pixels: Rgba, format: Format, maxBytes?: number) {
  const { bytes, quality } = await encodePicture(pixels, format, { maxBytes });
  await write(file, bytes);
  const { width, height } = pixels;
  return { bytes, told: { output: file, width, height, format, quality } };
}

export function print(value: unknown): void {
  process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);
}

export function round(value: number, digits: number): number {
  return Number(value.toFixed(digits));
}

/** An option in millimetres. */
export function readMillimetres(text: string): number {
  const n = Number(text);
  if (!(n > 0 && n < 20_000))
    throw new InvalidArgumentError('A length in millimetres above 0, for example 148.');
  return n;
}

/** An option from 0 to 1. */
export function readShare(text: string): number {
  const n = Number(text);
  if (!(n >= 0 && n <= 1) || text.trim() === '') throw new InvalidArgumentError('A number from 0 to 1.');
  return n;
}

export function parseJson(file: string, text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new InputError(`${file} is not valid JSON.`);
  }
}

export function explain<T>(file: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw error instanceof InputError ? error : new InputError(`${file}: ${(error as Error).message}`);
  }
}
