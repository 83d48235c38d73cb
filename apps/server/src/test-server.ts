import { fork, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import pg from 'pg';

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
    const port = 20_000 + Math.floor(Math.random() * 20_000);
    await start('main.mjs', { DATABASE_URL: url, PORT: String(port) });
    base = `http://127.0.0.1:${port}`;
  });

  afterAll(async () => {
    await Promise.all(children.map((c) => end(c, 'SIGTERM')));
  });

  return {
    base: () => base,
    end,
    startWorker: () => start('worker.mjs', { DATABASE_URL: url, SCENOGRAPH_THREADS: '1' }),
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
