import type { AnswerOf } from '@scenograph/contract';
import { Link } from 'react-router';
import { call } from '../../api/client';
import { Button } from '../../ui/controls';
import { StatusMark } from '../../ui/status';
import { Table, type TableColumn } from '../../ui/table';
import { tried } from '../../ui/tried';
import { msg } from '../../language/language';
import { WORK } from './work-kinds';

type Failed = AnswerOf<'GET /api/work'>['failed'][number];

const PLACES = {
  cutouts: (f: Failed) => `/photos/${f.id}/cutout`,
  recipes: (f: Failed) => `/recipes/${f.id}`,
  pictures: (f: Failed) => `/deliveries/${f.id}`,
} as const;

/** Has failed work done once more. */
const AGAIN: Record<Failed['kind'], (f: Failed) => Promise<object>> = {
  cutouts: ({ id }) => call('POST /api/photos/cutouts', { body: { ids: [id] } }),
  recipes: ({ id, productId }) =>
    call('POST /api/recipes/:id/run', { params: { id }, body: { productIds: [productId!] } }),
  pictures: ({ id }) => call('POST /api/deliveries/:id/change', { params: { id }, body: { act: 'retry' } }),
};

/** What has failed and why, each to be tried again. */
export function FailedWork({ failed }: { failed: readonly Failed[] }) {
  return (
    <>
      <h2 className="mt-6 mb-2 font-semibold">{msg('Failed work')}</h2>
      {failed.length === 0 && (
        <p className="text-ink-2 flex items-center gap-2">
          <StatusMark mark="pass" /> {msg('Nothing has failed.')}
        </p>
      )}
      {failed.length > 0 && (
        <Table
          label={msg('Failed work')}
          columns={COLUMNS}
          rows={failed}
          idOf={(f) => `${f.kind} ${f.id} ${f.title}`}
        />
      )}
    </>
  );
}

const COLUMNS: readonly TableColumn<Failed>[] = [
  { id: 'kind', title: msg('Kind'), by: (f) => WORK[f.kind], cell: (f) => WORK[f.kind] },
  {
    id: 'title',
    title: msg('What'),
    by: (f) => f.title,
    cell: (f) => (
      <Link to={PLACES[f.kind](f)} className="font-semibold hover:underline">
        {f.title}
      </Link>
    ),
  },
  { id: 'reason', title: msg('Why'), cell: (f) => f.reason ?? msg('No reason was kept.') },
  {
    id: 'again',
    title: '',
    cell: (f) => (
      <Button
        aria-label={msg('Try {title} again', { title: f.title })}
        onClick={() =>
          void tried(AGAIN[f.kind](f), '/api/work', '/api/photos', '/api/recipes', '/api/deliveries')
        }
      >
        {msg('Try again')}
      </Button>
    ),
  },
];
