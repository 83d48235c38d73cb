import { ColourButton } from '../../../ui/colour-field';
import { useState } from 'react';
import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import { makeOptions } from '@scenograph/core/surface/options';
import { reducedUrl, type Artwork } from '../../../api/client';
import { Button, Checkbox, Select } from '../../../ui/controls';
import { Dialog } from '../../../ui/dialog';
import { say } from '../../../ui/notices';
import { designOf, withWork, type MockupElement } from './editing';
import { useMockupTools } from './tools';
import { msg } from '../../../language/language';

/** Making options in one go, and the way to compare them. */
export function OptionsPart({
  element,
  artworks,
  commit,
}: {
  element: MockupElement;
  artworks: Artwork[];
  commit(label: string, value: Partial<BackdropElement>): void;
}) {
  const { item } = element.fill;
  const { tool, take } = useMockupTools();
  const [making, setMaking] = useState(false);
  const winners = item.options.filter((o) => o.winner).length;
  return (
    <fieldset className="border-line grid gap-1.5 border-t pt-2">
      <legend className="sr-only">{msg('Options')}</legend>
      <div className="flex items-center justify-between">
        <span className="font-medium">{msg('Options')}</span>
        <span className="measure text-ink-2">
          {item.options.length}
          {winners ? msg(', {winners} chosen', { winners }) : ''}
        </span>
      </div>
      <div className="flex gap-2">
        <Button onClick={() => setMaking(true)} disabled={!item.prints.length}>
          {msg('Make options')}
        </Button>
        <Button
          disabled={!item.options.length}
          aria-pressed={tool === 'compare'}
          onClick={() => take(tool === 'compare' ? 'place' : 'compare')}
        >
          {msg('Compare')}
        </Button>
      </div>
      {making && (
        <MakeDialog
          element={element}
          artworks={artworks}
          onClose={() => setMaking(false)}
          onMade={(value) => {
            commit(msg('Make options'), value);
            setMaking(false);
            take('compare');
          }}
        />
      )}
    </fieldset>
  );
}

function MakeDialog({
  element,
  artworks,
  onClose,
  onMade,
}: {
  element: MockupElement;
  artworks: Artwork[];
  onClose(): void;
  onMade(value: Partial<BackdropElement>): void;
}) {
  const { item } = element.fill;
  const chosen = useMockupTools((s) => s.print);
  const [print, setPrint] = useState(
    item.prints.some((p) => p.id === chosen) ? chosen! : item.prints[item.prints.length - 1].id,
  );
  const [designs, setDesigns] = useState<string[]>([]);
  const [inks, setInks] = useState<string[]>([]);
  const [own, setOwn] = useState(true);
  const [colours, setColours] = useState<string[]>([]);
  const [asItIs, setAsItIs] = useState(true);
  const inkList = inks.length ? [...(own ? [null] : []), ...inks] : [];
  const colourList = colours.length ? [...(asItIs ? [null] : []), ...colours] : [];
  const count = Math.max(1, designs.length) * Math.max(1, inkList.length) * Math.max(1, colourList.length);
  const make = () => {
    try {
      const made = makeOptions(item, print, {
        designs: designs.map((id) => designOf(artworks.find((x) => x.id === id)!)),
        inks: inkList,
        colours: colourList,
      });
      onMade(withWork(element, { options: [...item.options, ...made] }));
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={msg('Make options')}
      about={msg('Every design in every ink on every colour of the item, in one go.')}
      footer={
        <>
          <Button onClick={onClose}>{msg('Cancel')}</Button>
          <Button tone="main" onClick={make}>
            {msg('Make {count, plural, one {# option} other {# options}}', { count })}
          </Button>
        </>
      }
    >
      <div className="grid gap-4">
        {item.prints.length > 1 && (
          <div className="flex items-center gap-3">
            <span className="text-ink-2">{msg('In place of')}</span>
            <Select
              label={msg('Design whose options are made')}
              className="grow"
              value={print}
              onChange={setPrint}
              options={item.prints.map((p) => ({ value: p.id, title: p.name }))}
            />
          </div>
        )}
        <fieldset>
          <legend className="mb-1.5 font-medium">{msg('Designs')}</legend>
          <DesignPicker {...{ artworks }} chosen={designs} onChange={setDesigns} />
        </fieldset>
        <Colours
          title={msg('Inks')}
          first={msg('Also in its own colours')}
          on={own}
          onFirst={setOwn}
          colours={inks}
          onChange={setInks}
          fresh="#1f3d36"
        />
        <Colours
          title={msg('Colours of the item')}
          first={msg('Also as photographed')}
          on={asItIs}
          onFirst={setAsItIs}
          colours={colours}
          onChange={setColours}
          fresh="#b9502f"
        />
      </div>
    </Dialog>
  );
}

/** Artworks to tick. */
function DesignPicker({
  artworks,
  chosen,
  onChange,
}: {
  artworks: Artwork[];
  chosen: string[];
  onChange(ids: string[]): void;
}) {
  return (
    <div className="grid grid-cols-5 gap-2">
      {artworks.map((a) => (
        <label
          key={a.id}
          className={`flex cursor-pointer flex-col gap-1 rounded-md border p-1.5 ${chosen.includes(a.id) ? 'border-spruce ring-spruce ring-1' : 'border-line'}`}
        >
          <img src={reducedUrl(a.picture, 160)} alt="" className="h-14 w-full bg-white object-contain" />
          <span className="flex items-center gap-1.5">
            <Checkbox
              checked={chosen.includes(a.id)}
              onChange={(on) => onChange(on ? [...chosen, a.id] : chosen.filter((x) => x !== a.id))}
            />
            <span className="truncate text-[12px]">{a.title}</span>
          </span>
        </label>
      ))}
    </div>
  );
}

function Colours({
  title,
  first,
  on,
  onFirst,
  colours,
  onChange,
  fresh,
}: {
  title: string;
  first: string;
  on: boolean;
  onFirst(on: boolean): void;
  colours: string[];
  onChange(colours: string[]): void;
  fresh: string;
}) {
  return (
    <fieldset className="grid gap-1.5">
      <legend className="mb-1 font-medium">{title}</legend>
      <div className="flex flex-wrap items-center gap-2">
        {colours.map((c, i) => (
          <span key={i} className="flex items-center gap-0.5">
            <ColourButton
              label={`${title}, ${i + 1}`}
              value={c}
              onCommit={(colour) => onChange(colours.map((x, j) => (j === i ? colour : x)))}
            />
            <Button
              tone="quiet"
              aria-label={msg('Remove {c}', { c })}
              onClick={() => onChange(colours.filter((_, j) => j !== i))}
            >
              ×
            </Button>
          </span>
        ))}
        <Button onClick={() => onChange([...colours, fresh])}>{msg('Add')}</Button>
      </div>
      {colours.length > 0 && (
        <label className="flex items-center gap-2 text-[12.5px]">
          <Checkbox checked={on} onChange={onFirst} />
          {first}
        </label>
      )}
    </fieldset>
  );
}
