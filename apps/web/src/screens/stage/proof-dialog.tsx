import { useState } from 'react';
import { MOST_ON_PAGE, PAGES, type PageName } from '@scenograph/core/delivery/sheets';
import type { ItemOption } from '@scenograph/core/surface/print-item';
import { useRoute } from '../../api/client';
import { Button, Checkbox, Segmented, Select, TextField } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { download } from './download';
import { msg } from '../../language/language';

/** What is said on the page, as it is typed. */
interface ProofForm {
  page: PageName;
  title: string;
  /** One a line. */
  lines: string;
  prices: string;
  notes: string;
  foot: string;
  /** '' for none. */
  logo: string;
  show: string[];
}

/** A list entry needs a value of its own. */
const NO_LOGO = 'none';

const linesOf = (text: string) => text.split('\n').filter((l) => l.trim() !== '');

/** Has the server make the page of what is shown and said. */
function useProof(shotId: string, form: ProofForm, before: () => Promise<void>) {
  const [making, setMaking] = useState<'pdf' | 'png' | null>(null);
  const make = async (format: 'pdf' | 'png') => {
    setMaking(format);
    const { page, title, lines, prices, notes, foot, logo, show } = form;
    const sheet = { page, format, title, notes, foot, show, logo: logo || null };
    try {
      await before();
      await download('POST', `/api/shots/${shotId}/proof`, `proof.${format}`, {
        ...sheet,
        options: linesOf(lines),
        prices: linesOf(prices),
      });
    } catch (e) {
      say('stop', (e as Error).message);
    }
    setMaking(null);
  };
  return { making, make };
}

/** A page to be agreed on: what is shown and said on it, as PDF or PNG. */
export function ProofDialog({
  shotId,
  title,
  options,
  price,
  before,
  onClose,
}: {
  shotId: string;
  title: string;
  options: ItemOption[];
  /** The product's price as a first line, where it has one. */
  price: string | null;
  before(): Promise<void>;
  onClose(): void;
}) {
  const [form, setForm] = useState<ProofForm>(() => ({
    page: 'A4',
    title,
    lines: '',
    prices: price ? msg('1 piece  {price}', { price }) : '',
    notes: '',
    foot: msg('Colours on screen and paper differ a little from the finished print.'),
    logo: '',
    show: options
      .filter((o) => o.winner)
      .slice(0, MOST_ON_PAGE)
      .map((o) => o.id),
  }));
  const set = (value: Partial<ProofForm>) => setForm((f) => ({ ...f, ...value }));
  const { making, make } = useProof(shotId, form, before);
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={msg('Proof sheet')}
      about={msg('One page for the customer to agree to.')}
      footer={
        <>
          <Button onClick={() => void make('png')} disabled={making !== null}>
            {making === 'png' ? msg('Making the PNG') : 'PNG'}
          </Button>
          <Button tone="main" onClick={() => void make('pdf')} disabled={making !== null}>
            {making === 'pdf' ? msg('Making the PDF') : 'PDF'}
          </Button>
        </>
      }
    >
      <div className="grid grid-cols-2 gap-x-5 gap-y-3">
        <Said form={form} set={set} />
        {options.length > 0 && <Pictures options={options} form={form} set={set} />}
      </div>
    </Dialog>
  );
}

interface FormProps {
  form: ProofForm;
  set(value: Partial<ProofForm>): void;
}

/** The page's size and words. */
function Said({ form, set }: FormProps) {
  const { data: pictures } = useRoute('GET /api/pictures');
  return (
    <>
      <div className="grid content-start gap-3">
        <Segmented
          label={msg('Page')}
          value={form.page}
          onChange={(page) => set({ page })}
          options={(Object.keys(PAGES) as PageName[]).map((value) => ({ value, title: PAGES[value].title }))}
        />
        <TextField label={msg('Product name')} value={form.title} onCommit={(title) => set({ title })} />
        <TextField
          label={msg('Options, one a line')}
          multiline
          value={form.lines}
          onCommit={(lines) => set({ lines })}
        />
        <TextField
          label={msg('Prices, one a line')}
          multiline
          value={form.prices}
          onCommit={(prices) => set({ prices })}
        />
      </div>
      <div className="grid content-start gap-3">
        <div className="grid gap-1">
          <span className="text-ink-2 text-[12px]">{msg('Maker’s logo')}</span>
          <Select
            label={msg('Maker’s logo')}
            value={form.logo || NO_LOGO}
            onChange={(logo) => set({ logo: logo === NO_LOGO ? '' : logo })}
            options={[
              { value: NO_LOGO, title: msg('none') },
              ...(pictures ?? []).map((p) => ({ value: p.id, title: p.title })),
            ]}
          />
        </div>
        <TextField label={msg('Notes')} multiline value={form.notes} onCommit={(notes) => set({ notes })} />
        <TextField label={msg('Foot')} value={form.foot} onCommit={(foot) => set({ foot })} />
      </div>
    </>
  );
}

function Pictures({ options, form, set }: FormProps & { options: ItemOption[] }) {
  const { show } = form;
  return (
    <fieldset className="col-span-2">
      <legend className="text-ink-2 mb-1 text-[12px]">
        {msg('Pictures on the page: none chosen shows the shot as it is, up to {most}', {
          most: MOST_ON_PAGE,
        })}
      </legend>
      <div className="flex max-h-36 flex-wrap gap-x-4 gap-y-1 overflow-y-auto">
        {options.map((o) => (
          <label key={o.id} className="flex items-center gap-1.5">
            <Checkbox
              checked={show.includes(o.id)}
              disabled={show.length >= MOST_ON_PAGE && !show.includes(o.id)}
              onChange={(on) => set({ show: on ? [...show, o.id] : show.filter((x) => x !== o.id) })}
            />
            {o.title}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
