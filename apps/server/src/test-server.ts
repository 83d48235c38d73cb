import { fork, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import pg from 'pg';
import yauzl from 'yauzl';

const ROOT = join(__dirname, '../../..');
const CLUSTER = process.env.SCENOGRAPH_TEST_CLUSTER ?? '';

/** The built server over HTTP on a copy of the demo's database, for the tests of one file. */
export function testServer() {
  const children: ChildProcess[] = [];
  let base = '';
  let url = '';

  async function start(
    file: string,
    env: Record<string, string>,
  ): Promise<{ child: ChildProcess; message: unknown }> {
    const child = fork(join(ROOT, 'apps/server/dist', file), [], {
      env: { ...process.env, ...env },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      execArgv: [],
    });
    children.push(child);
    const message = await new Promise((resolve, reject) => {
      child.once('message', resolve);
      child.once('exit', (code) => reject(new Error(`${file} ended with ${code}`)));
    });
    return { child, message };
  }

  async function end(child: ChildProcess, signal: NodeJS.Signals): Promise<void> {
    if (child.exitCode !== null || child.signalCode) return;
    const gone = new Promise((r) => child.once('exit', r));
    child.kill(signal);
    await gone;
  }

  beforeAll(async () => {
    const admin = new pg.Client({ connectionString: `${CLUSTER}/postgres` });
    await admin.connect();
    const name = `server_${randomUUID().slice(0, 8)}`;
    await admin.query(`create database "${name}" template demo_template`);
    await admin.end();
    url = `${CLUSTER}/${name}`;
    const { message } = await start('main.mjs', { DATABASE_URL: url, PORT: '0' });
    base = `http://127.0.0.1:${(message as { port: number }).port}`;
  });

  afterAll(async () => {
    await Promise.all(children.map((c) => end(c, 'SIGTERM')));
  });

  return {
    base: () => base,
    url: () => url,
    end,
    startWorker: () =>
      start('worker.mjs', {
        DATABASE_URL: url,
        SCENOGRAPH_THREADS: '1',
        // A dead worker's pictures are taken over sooner than in earnest.
        SCENOGRAPH_LEASE_SECONDS: '2',
      }),
    // eslint-disable-next-line @typescript-eslint/no-explicit-any
    async call(method: string, path: string, body?: unknown): Promise<{ status: number; body: any }> {
      const raw = body instanceof Uint8Array;
      const response = await fetch(base + path, {
        method,
        headers: body === undefined || raw ? undefined : { 'Content-Type': 'application/json' },
        body: raw ? (body as unknown as BodyInit) : body === undefined ? undefined : JSON.stringify(body),
      });
      return { status: response.status, body: await response.json() };
    },
  };
}

/** Reads again and again until it is good; fails with what was seen last. */
export async function until<T>(
  read: () => Promise<T>,
  good: (value: T) => boolean,
  seconds = 400,
): Promise<T> {
  const deadline = Date.now() + seconds * 1000;
  for (;;) {
    const value = await read();
    if (good(value)) return value;
    if (Date.now() > deadline)
      throw new Error(`Waited in vain; last seen: ${JSON.stringify(value).slice(0, 400)}`);
    await new Promise((r) => setTimeout(r, 100));
  }
}

/** The files of a ZIP by name. */
export function unzip(bytes: Buffer): Promise<Map<string, Buffer>> {
  return new Promise((resolve, reject) => {
    const files = new Map<string, Buffer>();
    yauzl.fromBuffer(bytes, { lazyEntries: true }, (error, zip) => {
      if (error) return reject(error);
      zip.on('entry', (entry) =>
        zip.openReadStream(entry, (e, stream) => {
          if (e) return reject(e);
          void (async () => {
            const parts: Buffer[] = [];
            for await (const part of stream) parts.push(part as Buffer);
            files.set(entry.fileName, Buffer.concat(parts));
            zip.readEntry();
          })().catch(reject);
        }),
      );
      zip.on('end', () => resolve(files));
      zip.on('error', reject);
      zip.readEntry();
    });
  });
}
