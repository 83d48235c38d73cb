import type { Intake } from '@scenograph/host-node/sandbox/operations';
import type { Piscina } from 'piscina';
import type { Metrics } from './metrics';

/** The sandbox, with how long each reading takes measured. */
export function timedIntake(intake: Intake, metrics: Metrics): Intake {
  const names = Object.keys(intake) as (keyof Intake)[];
  return Object.fromEntries(
    names.map((name) => {
      const read = intake[name] as (...args: unknown[]) => Promise<unknown>;
      return [name, (...args: unknown[]) => metrics.timed('decode', name, read(...args))];
    }),
  ) as unknown as Intake;
}

/** The threads that paint, with how long each task takes measured. */
export function timeThreads(threads: Piscina, metrics: Metrics): Piscina {
  const run = threads.run.bind(threads);
  threads.run = (task: { task: string }, options) => metrics.timed('paint', task.task, run(task, options));
  return threads;
}
