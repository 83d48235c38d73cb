import { pipeline, type Readable } from 'node:stream';
import type { Response } from 'express';
import yazl from 'yazl';

/**
 * Sends a stream as an answer. Where it fails, the answer is cut off: a file that ends early must not look whole; where the
 * reader leaves, it is closed.
 */
export function sendStream(stream: NodeJS.ReadableStream, response: Response): void {
  pipeline(stream as Readable, response, () => undefined);
}

/**
 * A ZIP whose stream fails where one of its files does. A file may fail before anybody reads the ZIP, and an error that
 * nobody listens to would end the process; who reads later finds the stream destroyed.
 */
export function newZip(): yazl.ZipFile {
  const zip = new yazl.ZipFile();
  zip.outputStream.on('error', () => undefined);
  zip.on('error', (error: Error) => (zip.outputStream as Readable).destroy(error));
  return zip;
}

/** A file of a ZIP that is opened once its turn has come. */
export function addStream(
  zip: yazl.ZipFile,
  name: string,
  options: Partial<yazl.ReadStreamOptions>,
  open: () => Readable,
): void {
  zip.addReadStreamLazy(name, options, (done) => {
    const stream = open();
    stream.on('error', (error) => (zip.outputStream as Readable).destroy(error));
    done(null, stream);
  });
}
