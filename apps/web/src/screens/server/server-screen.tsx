import type { AnswerOf } from '@scenograph/contract';
import { useRoute } from '../../api/client';
import { missingOf, useReady } from '../../ui/missing-bar';
import { Trouble, Waiting } from '../../ui/states';
import { StatusMark } from '../../ui/status';
import { Table, type TableColumn } from '../../ui/table';
import { TopBar } from '../../ui/top-bar';
import { msg } from '../../language/language';
import { secondsText } from '../deliveries/seconds-text';
import { FailedWork } from './failed-work';
import { Storage } from './storage';
import { WORK } from './work-kinds';

type Work = AnswerOf<'GET /api/work'>;
type Kind = Work['kinds'][number];

/** How the server is: its parts, the work that waits and that has failed, and what is stored. */
export function ServerScreen() {
  const { data, error } = useRoute('GET /api/work');
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <h1 className="font-display text-[22px] font-bold">{msg('Server')}</h1>
        <Parts workers={data?.workers} />
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what={msg('the work')} />}
        {data && (
          <>
            <h2 className="mt-6 mb-2 font-semibold">{msg('Work')}</h2>
            <Table label={msg('Work')} columns={COLUMNS} rows={data.kinds} idOf={(k) => k.kind} />
            <FailedWork failed={data.failed} />
          </>
        )}
        <Storage />
      </main>
    </>
  );
}

/** Whether database and workers are there. */
function Parts({ workers }: { workers?: Work['workers'] }) {
  const ready = useReady();
  const missing = ready ? missingOf(ready) : [];
  if (!ready) return null;
  return (
    <ul className="mt-2 grid gap-1" aria-label={msg('Parts of the server')}>
      {missing.map((text) => (
        <li key={text} className="flex items-center gap-2">
          <StatusMark mark="stop" /> {text}
        </li>
      ))}
      {!missing.length && (
        <li className="flex items-center gap-2">
          <StatusMark mark="pass" /> {msg('Everything that the server needs is there.')}
        </li>
      )}
      {workers?.map((w) => (
        <li key={w.id} className="text-ink-2 flex items-center gap-2">
          <StatusMark mark="pass" />
          {msg('Worker on {host}, {threads, plural, one {# thread} other {# threads}}', {
            host: w.host,
            threads: w.threads,
          })}
        </li>
      ))}
    </ul>
  );
}

const COLUMNS: readonly TableColumn<Kind>[] = [
  { id: 'kind', title: msg('Kind'), cell: (k) => WORK[k.kind] },
  { id: 'waiting', title: msg('Waiting'), figures: true, by: (k) => k.waiting, cell: (k) => k.waiting },
  { id: 'working', title: msg('Being done'), figures: true, by: (k) => k.working, cell: (k) => k.working },
  { id: 'failed', title: msg('Failed'), figures: true, by: (k) => k.failed, cell: (k) => k.failed },
  {
    id: 'oldest',
    title: msg('The oldest waits for'),
    figures: true,
    by: (k) => k.oldestSeconds ?? 0,
    cell: (k) => (k.waiting && k.oldestSeconds !== null ? secondsText(k.oldestSeconds) : '-'),
  },
];
