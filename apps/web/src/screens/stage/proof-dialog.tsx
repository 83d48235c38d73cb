import { useState } from 'react';
import { MOST_ON_PAGE, PAGES, type PageName } from '@scenograph/core/delivery/sheets';
import type { ItemOption } from '@scenograph/core/surface/print-item';
import { useRoute } from '../../api/client';
import { Button, Segmented, TextField } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { download } from './download';

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
  const { data: pictures } = useRoute('GET /api/pictures');
  const winners = options.filter((o) => o.winner);
  const [show, setShow] = useState<string[]>(winners.slice(0, MOST_ON_PAGE).map((o) => o.id));
  const [page, setPage] = useState<PageName>('A4');
  const [name, setName] = useState(title);
  const [lines, setLines] = useState('');
  const [prices, setPrices] = useState(price ? `1 piece  ${price}` : '');
  const [notes, setNotes] = useState('');
  const [foot, setFoot] = useState('Colours on screen and paper differ a little from the finished print.');
  const [logo, setLogo] = useState<string>('');
  const [making, setMaking] = useState<'pdf' | 'png' | null>(null);
  const split = (text: string) => text.split('\n').filter((l) => l.trim() !== '');
  const make = async (format: 'pdf' | 'png') => {
    setMaking(format);
    try {
      await before();
      await download('POST', `/api/shots/${shotId}/proof`, `proof.${format}`, {
        page,
        format,
        title: name,
        options: split(lines),
        prices: split(prices),
        notes,
        foot,
        logo: logo || null,
        show,
      });
    } catch (e) {
      say('stop', (e as Error).message);
    }
    setMaking(null);
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Proof sheet"
      about="One page for the customer to agree to."
      footer={
        <>
          <Button onClick={() => void make('png')} disabled={making !== null}>
            {making === 'png' ? 'Making the PNG' : 'PNG'}
          </Button>
          <Button tone="main" onClick={() => void make('pdf')} disabled={making !== null}>
            {making === 'pdf' ? 'Making the PDF' : 'PDF'}
          </Button>
        </>
      }
    >
      <div className="grid grid-cols-2 gap-x-5 gap-y-3">
        <div className="grid content-start gap-3">
          <Segmented
            label="Page"
            value={page}
            onChange={(v) => setPage(v)}
            options={(Object.keys(PAGES) as PageName[]).map((value) => ({
              value,
              title: PAGES[value].title,
            }))}
          />
          <TextField label="Product name" value={name} onCommit={setName} />
          <TextField label="Options, one a line" multiline value={lines} onCommit={setLines} />
          <TextField label="Prices, one a line" multiline value={prices} onCommit={setPrices} />
        </div>
        <div className="grid content-start gap-3">
          <label className="grid gap-1 text-[12px]">
            <span className="text-ink-2">Maker&apos;s logo</span>
            <select
              aria-label="Maker's logo"
              className="border-line bg-card h-7 rounded-md border px-2 text-[13px]"
              value={logo}
              onChange={(e) => setLogo(e.target.value)}
            >
              <option value="">none</option>
              {pictures?.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.title}
                </option>
              ))}
            </select>
          </label>
          <TextField label="Notes" multiline value={notes} onCommit={setNotes} />
          <TextField label="Foot" value={foot} onCommit={setFoot} />
        </div>
        {options.length > 0 && (
          <fieldset className="col-span-2">
            <legend className="text-ink-2 mb-1 text-[12px]">
              Pictures on the page: none chosen shows the shot as it is, up to {MOST_ON_PAGE}
            </legend>
            <div className="flex max-h-36 flex-wrap gap-x-4 gap-y-1 overflow-y-auto">
              {options.map((o) => (
                <label key={o.id} className="flex items-center gap-1.5">
                  <input
                    type="checkbox"
                    checked={show.includes(o.id)}
                    onChange={(e) =>
                      setShow((s) => (e.target.checked ? [...s, o.id] : s.filter((x) => x !== o.id)))
                    }
                  />
                  {o.title}
                </label>
              ))}
            </div>
          </fieldset>
        )}
      </div>
    </Dialog>
  );
}
