import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { RefusedPicture, sniffFormat } from '../read-picture';
import type { IncomingFile, Intake } from './operations';
import type { Answer } from './process';

/**
 * Reads files from outside in processes of their own, each held to a time and a memory: what takes more is ended with its
 * process, another one takes its place, and whoever sent the file is told. Nothing that a file does to its reader reaches
 * the process that asked.
 */
export interface Sandbox {
  intake: Intake;
  /** How many processes were ended for what they read, since the start. */
  kills(): number;
  close(): void;
}

export interface Limits {
  /** Seconds of computing, and in all: a file may have to wait for a busy machine. */
  seconds: number;
  wall: number;
  megabytes: number;
}

/** SVGs and fonts. */
const SMALL: Limits = { seconds: 8, wall: 24, megabytes: 512 };
/** Sixty megapixels are decoded, converted and written again. */
const LARGE: Limits = { seconds: 60, wall: 180, megabytes: 1200 };

const LIMITS: Record<keyof Intake, Limits> = {
  picture: LARGE,
  artwork: LARGE,
  inked: SMALL,
  matte: LARGE,
  sceneFacts: LARGE,
  scene: LARGE,
  font: SMALL,
  unpack: { ...LARGE, megabytes: 512 },
  reduced: LARGE,
};

/** Asked for while so many wait, a file is refused for now. */
const MOST_WAITING = 400;
/** A process is replaced after so many files, or where it holds so much at rest: what libraries keep does not add up. */
const FILES_EACH = 200;
const RESTING_MB = 220;
const WATCH_MS = 50;
const IDLE_MS = 60_000;

/** Too many files are being read; the message says so. */
export class BusyError extends Error {}

interface Job {
  operation: keyof Intake;
  file: IncomingFile;
  args: unknown[];
  limits: Limits;
  /** Its reader has ended once while it was read, for whatever reason. */
  again?: true;
  done(answer: Answer): void;
  fail(error: Error): void;
}

/**
 * @param entry path of the built `process.ts`
 * @param options.processes how many read SVGs and fonts at once, and how many read all else: nobody's photos wait behind
 *   somebody's drawings
 * @param options.limits in place of the usual ones, for tests
 */
export function createSandbox(
  entry: string,
  { processes = 2, limits: held }: { processes?: number; limits?: Limits } = {},
): Sandbox {
  const [small, large] = [createLane(entry, processes), createLane(entry, processes)];
  const call =
    (operation: keyof Intake) =>
    async (file: IncomingFile, ...args: unknown[]): Promise<unknown> => {
      const usual = (await isSvg(file.path)) ? SMALL : LIMITS[operation];
      const lane = usual === SMALL ? small : large;
      const answer = await lane.read({ operation, file, args, limits: held ?? usual });
      if ('refused' in answer) throw new RefusedPicture(answer.refused);
      return answer.value;
    };
  return {
    intake: Object.fromEntries(
      Object.keys(LIMITS).map((name) => [name, call(name as keyof Intake)]),
    ) as unknown as Intake,
    kills: () => small.kills() + large.kills(),
    close() {
      small.close();
      large.close();
    },
  };
}

/** Processes that share one queue. */
function createLane(entry: string, processes: number) {
  const waiting: Job[] = [];
  const readers = new Set<Reader>();
  let kills = 0;
  let closed = false;

  const start = () =>
    startReader(entry, {
      free: next,
      again(job) {
        waiting.unshift({ ...job, again: true });
      },
      gone(reader, by) {
        readers.delete(reader);
        if (by === 'file') kills++;
        // A reader that cannot even start would be started for ever.
        if (by === 'start')
          for (const job of waiting.splice(0))
            job.fail(new Error('Files cannot be read: the reader does not start.'));
        next();
      },
    });

  const next = () => {
    for (const reader of readers) if (waiting.length && reader.isFree()) reader.read(waiting.shift()!);
    const starting = [...readers].filter((r) => r.isStarting()).length;
    for (let n = starting; n < waiting.length && readers.size < processes && !closed; n++)
      readers.add(start());
  };

  return {
    kills: () => kills,
    read: (job: Omit<Job, 'done' | 'fail'>): Promise<Answer> =>
      new Promise((done, fail) => {
        if (waiting.length >= MOST_WAITING)
          return fail(
            new BusyError(`Too many files are coming in at once. Send "${job.file.name}" again in a moment.`),
          );
        waiting.push({ ...job, done, fail });
        next();
      }),
    close() {
      closed = true;
      for (const reader of readers) reader.end();
      for (const job of waiting.splice(0)) job.fail(new Error('Reading files was stopped.'));
    },
  };
}

interface Reader {
  isStarting(): boolean;
  isFree(): boolean;
  read(job: Job): void;
  end(): void;
}

interface Events {
  free(): void;
  /** Its process ended while a file was read: that may not be the file's fault, and another is given it once. */
  again(job: Job): void;
  /** Its process ended: brought down by a file, before it was ready, or because it was time. */
  gone(reader: Reader, by: 'file' | 'start' | 'age'): void;
}

/** One process that reads a file after another. */
function startReader(entry: string, events: Events): Reader {
  const child = fork(entry, [], {
    serialization: 'advanced',
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    // One arena: what a file took is given back, and counts for the next one no more.
    env: { ...process.env, MALLOC_ARENA_MAX: '1' },
    execArgv: ['--max-old-space-size=512', '--expose-gc'],
  });
  let job: Job | null = null;
  let watching: NodeJS.Timeout | undefined;
  let idle: NodeJS.Timeout | undefined;
  let files = 0;
  let killed = false;
  let ready = false;
  let worn = false;
  const rest = () => {
    clearInterval(watching);
    job = null;
    idle = setTimeout(() => child.kill(), IDLE_MS).unref();
  };
  const reader: Reader = {
    isStarting: () => !ready,
    isFree: () => ready && !job && !worn && child.connected,
    read(given) {
      clearTimeout(idle);
      job = given;
      files++;
      watching = watch(child, given, (sentence) => {
        killed = true;
        child.kill('SIGKILL');
        given.done({ refused: sentence });
      });
      const { operation, file, args } = given;
      child.send({ operation, args: [file, ...args] }, (error) => {
        // Its end is told by "exit".
        if (error) child.kill('SIGKILL');
      });
    },
    end: () => child.kill('SIGKILL'),
  };
  child.on('message', (answer: Answer | 'ready') => {
    ready = true;
    if (answer !== 'ready') job?.done(answer);
    rest();
    worn = files >= FILES_EACH || (usageOf(child.pid!)?.megabytes ?? 0) > RESTING_MB;
    if (worn) child.kill();
    events.free();
  });
  child.on('error', () => child.kill('SIGKILL'));
  child.on('exit', () => {
    // A process that ends by itself twice while it reads a file was brought down by it.
    if (job && !killed && !job.again) events.again(job);
    else
      job?.done({
        refused: `"${job.file.name}" is damaged in a way that ends its reader. Export or copy it again.`,
      });
    const by = killed || job?.again ? 'file' : ready ? 'age' : 'start';
    rest();
    clearTimeout(idle);
    events.gone(reader, by);
  });
  return reader;
}

/** Looks at a process while it reads; `stop` is given the sentence once it has taken too much. */
function watch(child: ChildProcess, { file, limits }: Job, stop: (sentence: string) => void): NodeJS.Timeout {
  const began = Date.now();
  const before = usageOf(child.pid!)?.seconds ?? 0;
  const timer = setInterval(() => {
    const used = usageOf(child.pid!);
    const simpler = 'Simplify it or make it smaller, and save it again.';
    if (used && used.megabytes > limits.megabytes)
      stop(`"${file.name}" needs more than ${limits.megabytes} MB of memory to be read. ${simpler}`);
    else if ((used && used.seconds - before > limits.seconds) || Date.now() - began > limits.wall * 1000)
      stop(`"${file.name}" takes more than ${limits.seconds} seconds to be read. ${simpler}`);
    else return;
    clearInterval(timer);
  }, WATCH_MS);
  return timer;
}

/** Ticks of the clock that /proc counts in: fixed at 100 a second for programs. */
const TICKS = 100;
const PAGE_MB = 4096 / 1024 / 1024;

/**
 * What a process has used: seconds of computing and megabytes held. Null where the system does not tell (then time alone
 * counts). Source: proc(5), /proc/[pid]/stat, fields utime, stime and rss.
 */
function usageOf(pid: number): { seconds: number; megabytes: number } | null {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'latin1');
    // The name stands in brackets and may hold anything.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    return {
      seconds: (Number(fields[11]) + Number(fields[12])) / TICKS,
      megabytes: Number(fields[21]) * PAGE_MB,
    };
  } catch {
    return null;
  }
}

async function isSvg(path: string): Promise<boolean> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(4096), 0, 4096, 0);
    return sniffFormat(buffer.subarray(0, bytesRead)) === 'svg';
  } finally {
    await file.close();
  }
}
