import { useState } from 'react';
import { useController, useForm, type Control, type UseFormRegister } from 'react-hook-form';
import { MOST_ON_PAGE, PAGES, type PageName } from '@scenograph/core/delivery/sheets';
import type { ItemOption } from '@scenograph/core/surface/print-item';
import { useRoute } from '../../api/client';
import { Checkbox, Segmented, Select } from '../../ui/controls';
import { FormDialog } from '../../ui/form-dialog';
import { FormField } from '../../ui/form-field';
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
function useProof(shotId: string, before: () => Promise<void>) {
  const [making, setMaking] = useState<'pdf' | 'png' | null>(null);
  const make = async (format: 'pdf' | 'png', form: ProofForm) => {
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
    } finally {
      setMaking(null);
    }
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
  const form = useForm<ProofForm>({
    defaultValues: {
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
    },
  });
  const { making, make } = useProof(shotId, before);
  return (
    <FormDialog
      form={form}
      wide
      onClose={onClose}
      title={msg('Proof sheet')}
      about={msg('One page for the customer to agree to.')}
      onSend={(values) => make('pdf', values)}
      send={making === 'pdf' ? msg('Making the PDF') : 'PDF'}
      also={{
        send: making === 'png' ? msg('Making the PNG') : 'PNG',
        onSend: (values) => make('png', values),
      }}
    >
      <div className="grid grid-cols-2 gap-x-5 gap-y-3">
        <Said control={form.control} register={form.register} />
        {options.length > 0 && <Pictures options={options} control={form.control} />}
      </div>
    </FormDialog>
  );
}

/** The page's size and words. */
function Said({ control, register }: { control: Control<ProofForm>; register: UseFormRegister<ProofForm> }) {
  const { data: pictures } = useRoute('GET /api/pictures');
  const { field: page } = useController({ control, name: 'page' });
  const { field: logo } = useController({ control, name: 'logo' });
  return (
    <>
      <div className="grid content-start gap-3">
        <Segmented
          label={msg('Page')}
          value={page.value}
          onChange={page.onChange}
          options={(Object.keys(PAGES) as PageName[]).map((value) => ({ value, title: PAGES[value].title }))}
        />
        <FormField label={msg('Product name')} {...register('title')} />
        <FormField label={msg('Options, one a line')} multiline {...register('lines')} />
        <FormField label={msg('Prices, one a line')} multiline {...register('prices')} />
      </div>
      <div className="grid content-start gap-3">
        <div className="grid gap-1">
          <span className="text-ink-2 text-[12px]">{msg('Maker’s logo')}</span>
          <Select
            label={msg('Maker’s logo')}
            value={logo.value || NO_LOGO}
            onChange={(id) => logo.onChange(id === NO_LOGO ? '' : id)}
            options={[
              { value: NO_LOGO, title: msg('none') },
              ...(pictures ?? []).map((p) => ({ value: p.id, title: p.title })),
            ]}
          />
        </div>
        <FormField label={msg('Notes')} multiline {...register('notes')} />
        <FormField label={msg('Foot')} {...register('foot')} />
      </div>
    </>
  );
}

function Pictures({ options, control }: { options: ItemOption[]; control: Control<ProofForm> }) {
  const { field } = useController({ control, name: 'show' });
  const show = field.value;
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
              onChange={(on) => field.onChange(on ? [...show, o.id] : show.filter((x) => x !== o.id))}
            />
            {o.title}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
