import { useForm, useWatch } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { slotKey } from '@scenograph/core/spec/slot';
import { call, type ListingDetail } from '../../api/client';
import { Select } from '../../ui/controls';
import { FormDialog } from '../../ui/form-dialog';
import { say } from '../../ui/notices';
import { tried } from '../../ui/tried';
import type { Candidate } from './candidates';
import { msg } from '../../language/language';

/** Which slot each kept idea fills. */
export function SendDialog({
  detail,
  chosen,
  onMade,
  onClose,
}: {
  detail: ListingDetail;
  chosen: Candidate[];
  onMade(): void;
  onClose(): void;
}) {
  const navigate = useNavigate();
  const form = useForm<{ feeds: Record<string, string> }>({ defaultValues: { feeds: {} } });
  const feeds = useWatch({ control: form.control, name: 'feeds' });
  const slots = detail.sheets.flatMap((sheet) =>
    sheet.slots
      .filter((slot) => slot.background.kind !== 'white')
      .map((slot) => ({ key: slotKey(sheet, slot), title: `${sheet.marketplace}, ${slot.title}` })),
  );
  const send = async () => {
    const shots = chosen.map((c) => ({
      title: c.title,
      document: c.shot,
      feeds: feeds[c.id] ? [feeds[c.id]] : [],
    }));
    const { id } = detail.listing;
    const ask = call('POST /api/listings/:id/shots/of-documents', { params: { id }, body: { shots } });
    if (!(await tried(ask, '/api/listings'))) return;
    onMade();
    say(
      'pass',
      msg('{chosen} {chosen, plural, one {shot is} other {shots are}} in the listing.', {
        chosen: chosen.length,
      }),
    );
    void navigate(`/listings/${id}`);
  };
  const fedBy = (key: string) => detail.shots.find((s) => s.feeds.includes(key))?.title;
  return (
    <FormDialog
      form={form}
      onSend={send}
      send={msg('Make {chosen} {chosen, plural, one {shot} other {shots}}', { chosen: chosen.length })}
      cancel={msg('Back to the wall')}
      onClose={onClose}
      title={msg('Make shots of what is kept')}
      about={msg(
        'Each becomes a shot of the listing. A slot that is chosen here is taken from the shot that fills it now.',
      )}
    >
      <ul className="grid gap-2">
        {chosen.map((c) => (
          <li key={c.id} className="flex items-center gap-3">
            <span className="min-w-0 grow truncate">{c.title}</span>
            <Select
              label={msg('Slot for {c}', { c: c.title })}
              className="w-64"
              value={feeds[c.id] ?? 'none'}
              onChange={(v) => form.setValue('feeds', { ...feeds, [c.id]: v === 'none' ? '' : v })}
              options={[
                { value: 'none', title: msg('no slot yet') },
                ...slots
                  .filter((s) => feeds[c.id] === s.key || !Object.values(feeds).includes(s.key))
                  .map((s) => ({
                    value: s.key,
                    title: fedBy(s.key)
                      ? msg('{s} (now {fedBy})', { s: s.title, fedBy: fedBy(s.key) })
                      : s.title,
                  })),
              ]}
            />
          </li>
        ))}
      </ul>
    </FormDialog>
  );
}
