import type { AnswerOf } from '@scenograph/contract';
import { useState } from 'react';
import { call, useRoute } from '../../api/client';
import { Button } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { bytesText } from '../../ui/status';
import { Table, type TableColumn } from '../../ui/table';
import { tried } from '../../ui/tried';
import { msg } from '../../language/language';

type Kind = AnswerOf<'GET /api/storage'>['kinds'][number];
type Collected = AnswerOf<'POST /api/storage/collect'>;

const TITLES: Record<Kind['kind'], string> = {
  originals: msg('Photos as they came'),
  photos: msg('Photos, upright and in sRGB'),
  cutouts: msg('Cutouts, mattes and outlines'),
  library: msg('Library, brand kit and templates'),
  shots: msg('Used by shots only'),
  deliveries: msg('Pictures of deliveries'),
  reduced: msg('Reduced copies'),
  bin: msg('Removed, can be brought back'),
  unnamed: msg('Not used any more'),
};

/** What is stored for what; what nothing names any more can be collected at once. */
export function Storage() {
  const { data, error } = useRoute('GET /api/storage');
  const [found, setFound] = useState<Collected | null>(null);
  const look = async () =>
    setFound(await tried(call('POST /api/storage/collect', { body: { dry: true } }), '/api/storage'));
  const collect = async () => {
    setFound(null);
    const done = await tried(call('POST /api/storage/collect', { body: {} }), '/api/storage');
    if (done)
      say('pass', msg('{size} in {files, plural, one {# file} other {# files}} were removed.', sizes(done)));
  };
  if (error) return <Trouble error={error} />;
  if (!data) return <Waiting what={msg('what is stored')} />;
  const total = data.kinds.reduce((sum, k) => sum + k.bytes, 0);
  return (
    <>
      <div className="mt-6 mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2 className="font-semibold">{msg('Storage')}</h2>
        <p className="text-ink-2 min-w-0 grow basis-60">
          {msg(
            'Files that nothing uses any more are removed every night after {graceHours} hours, pictures of removed deliveries after {cacheDays} days. What you remove can be brought back for {binDays} days.',
            data.keeps,
          )}
        </p>
        <Button onClick={() => void look()}>{msg('Remove unused files')}</Button>
      </div>
      <Table label={msg('Storage')} columns={columnsOf(total)} rows={data.kinds} idOf={(k) => k.kind} />
      {found && (
        <Dialog
          open
          title={msg('Remove unused files')}
          onClose={() => setFound(null)}
          footer={
            <>
              <Button onClick={() => setFound(null)}>{found.files ? msg('Keep them') : msg('Close')}</Button>
              {found.files > 0 && (
                <Button tone="danger" onClick={() => void collect()}>
                  {msg('Remove them')}
                </Button>
              )}
            </>
          }
        >
          <p>
            {found.files
              ? msg(
                  '{size} in {files, plural, one {# file} other {# files}} would be removed. They cannot be brought back.',
                  sizes(found),
                )
              : msg('Nothing is old enough to be removed.')}
          </p>
        </Dialog>
      )}
    </>
  );
}

const sizes = ({ files, bytes }: Collected) => ({ files, size: bytesText(bytes) });

const columnsOf = (total: number): readonly TableColumn<Kind>[] => [
  { id: 'kind', title: msg('What for'), cell: (k) => TITLES[k.kind] },
  { id: 'files', title: msg('Files'), figures: true, by: (k) => k.files, cell: (k) => k.files },
  { id: 'bytes', title: msg('Size'), figures: true, by: (k) => k.bytes, cell: (k) => bytesText(k.bytes) },
  {
    id: 'share',
    title: msg('Share'),
    cell: (k) => (
      <div className="bg-line h-1.5 w-40 overflow-hidden rounded-full" aria-hidden>
        <div className="bg-spruce h-full" style={{ width: `${total ? (k.bytes / total) * 100 : 0}%` }} />
      </div>
    ),
  },
];
