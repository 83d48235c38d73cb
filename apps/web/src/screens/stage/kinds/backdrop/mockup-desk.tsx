import { writeSize } from '@scenograph/core/data/length';
import { ArrowDown, ArrowUp, Eye, EyeOff, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import { INK } from '@scenograph/core/surface/material';
import { newPrint, type Print } from '@scenograph/core/surface/print';
import { ARTWORK_FILES, bringInArtwork } from '../../../../api/artwork';
import { reducedUrl, type Artwork, useRoute } from '../../../../api/client';
import { ColourField } from '../../../../ui/colour-field';
import { Button, IconButton, Select, Slider, Switch } from '../../../../ui/controls';
import { FileButton } from '../../../../ui/file-button';
import { useLengthUnit } from '../../../../ui/length-field';
import { PictureList } from '../../../../ui/picture-list';
import { designOf, freshId, withPrint, withWork, type MockupElement } from '../../mockup/editing';
import { OptionsPart } from '../../mockup/options-part';
import { PrintPart } from '../../mockup/print-part';
import { ShadePart } from '../../mockup/shade-part';
import { useMockupTools } from '../../mockup/tools';
import { msg } from '../../../../language/language';

interface Props {
  element: MockupElement;
  during(value: Partial<BackdropElement>): void;
  commit(label: string, value: Partial<BackdropElement>): void;
}

/** What is done with a blank: designs on its areas, its colour, shade by hand, how close it is framed. */
export function MockupDesk({ element, during, commit }: Props) {
  const { data: artworks } = useRoute('GET /api/artwork');
  const { print: chosen, take } = useMockupTools();
  const { survey, item } = element.fill;
  const print = item.prints.find((p) => p.id === chosen) ?? null;
  // Leaving the mockup lays the tools down.
  useEffect(() => () => take('place'), [take]);
  return (
    <div className="grid gap-2.5">
      <NewDesign element={element} artworks={artworks ?? []} commit={commit} />
      {item.prints.length > 0 && <DesignList element={element} commit={commit} />}
      {print && (
        <PrintPart
          key={print.id}
          print={print}
          areas={survey.areas}
          artwork={
            artworks?.find((a) => a.original === print.drawn?.svg || a.picture === print.artwork) ?? null
          }
          frameScale={element.box.width / survey.width}
          fill={element.fill}
          during={(change) => during(withPrint(element, print.id, change))}
          commit={(label, change) => commit(`${label}, ${print.name}`, withPrint(element, print.id, change))}
        />
      )}
      <ItemColour element={element} during={during} commit={commit} />
      <OptionsPart element={element} artworks={artworks ?? []} commit={commit} />
      <ShadePart element={element} during={during} commit={commit} />
      <Framing element={element} during={during} commit={commit} />
    </div>
  );
}

/** The area that is printed next, and the artwork to print on it. */
function NewDesign({
  element,
  artworks,
  commit,
}: {
  element: MockupElement;
  artworks: Artwork[];
  commit: Props['commit'];
}) {
  const { unit } = useLengthUnit();
  const { survey, item } = element.fill;
  const choose = useMockupTools((s) => s.choose);
  const [area, setArea] = useState(survey.areas[0].id);
  const here = survey.areas.find((a) => a.id === area) ?? survey.areas[0];
  const add = (art: Artwork) => {
    const id = freshId('print', item.prints);
    const design = designOf(art);
    const made = { ...newPrint(id, art.title, design, here), knockOut: design.knockOut };
    const prints = [...item.prints, made];
    commit(msg('Print {art}', { art: art.title }), withWork(element, { prints }));
    choose(id);
  };
  const bringIn = async (files: File[]) => {
    // One at a time: each is an edit of its own on what is there.
    const [first] = await bringInArtwork(files);
    if (first) add(first);
  };
  return (
    <>
      <h3 className="font-medium">{msg('Designs')}</h3>
      {survey.areas.length > 1 && (
        <Select
          label={msg('Print area')}
          className="w-full"
          value={here.id}
          onChange={setArea}
          options={survey.areas.map((a) => ({ value: a.id, title: a.title }))}
        />
      )}
      <p className="measure text-ink-2">
        {here.title}, {writeSize(here.widthMm, here.heightMm, unit, 1)},{' '}
        {INK[here.material].title.toLowerCase()}
      </p>
      <PictureList
        label={msg('Designs')}
        look="objects"
        items={artworks}
        nameOf={({ title }) => msg('Print {title}', { title })}
        onPick={({ id }) => add(artworks.find((a) => a.id === id)!)}
      />
      <FileButton
        title={msg('Import a design')}
        label={msg('Designs to import')}
        accept={ARTWORK_FILES}
        multiple
        onFiles={(files) => void bringIn(files)}
      />
    </>
  );
}

/** The designs that are on the mockup, to be chosen, raised, hidden and removed. */
function DesignList({ element, commit }: { element: MockupElement; commit: Props['commit'] }) {
  const { prints } = element.fill.item;
  const { print: chosen, choose } = useMockupTools();
  const set = (label: string, next: Print[]) => commit(label, withWork(element, { prints: next }));
  const swap = (i: number, by: number) => {
    const list = [...prints];
    [list[i], list[i + by]] = [list[i + by], list[i]];
    set(msg('Order of designs'), list);
  };
  return (
    <ul aria-label={msg('Designs on the mockup, the uppermost first')} className="grid gap-1">
      {[...prints].reverse().map((p) => {
        const i = prints.indexOf(p);
        return (
          <li
            key={p.id}
            className={`flex items-center gap-1 rounded-md border px-1.5 py-1 ${p.id === chosen ? 'border-spruce' : 'border-line'}`}
          >
            <button
              type="button"
              aria-pressed={p.id === chosen}
              onClick={() => choose(p.id)}
              className="flex min-w-0 grow items-center gap-2 text-left"
            >
              <img src={reducedUrl(p.artwork, 160)} alt="" className="h-7 w-7 bg-white object-contain" />
              <span className="truncate">{p.name}</span>
            </button>
            <IconButton
              label={msg('Raise {p}', { p: p.name })}
              disabled={i + 1 >= prints.length}
              onClick={() => swap(i, 1)}
            >
              <ArrowUp size={13} aria-hidden />
            </IconButton>
            <IconButton
              label={msg('Lower {p}', { p: p.name })}
              disabled={i === 0}
              onClick={() => swap(i, -1)}
            >
              <ArrowDown size={13} aria-hidden />
            </IconButton>
            <IconButton
              label={p.hidden ? msg('Show {p}', { p: p.name }) : msg('Hide {p}', { p: p.name })}
              onClick={() =>
                commit(
                  p.hidden ? msg('Show design') : msg('Hide design'),
                  withPrint(element, p.id, { hidden: !p.hidden }),
                )
              }
            >
              {p.hidden ? <EyeOff size={13} aria-hidden /> : <Eye size={13} aria-hidden />}
            </IconButton>
            <IconButton
              label={msg('Remove {p}', { p: p.name })}
              onClick={() =>
                set(
                  msg('Remove {p}', { p: p.name }),
                  prints.filter((q) => q.id !== p.id),
                )
              }
            >
              <Trash2 size={13} aria-hidden />
            </IconButton>
          </li>
        );
      })}
    </ul>
  );
}

function ItemColour({ element, during, commit }: Props) {
  const { item, survey } = element.fill;
  return (
    <fieldset className="border-line grid gap-1 border-t pt-2">
      <legend className="sr-only">{msg('The item')}</legend>
      <Switch
        label={msg('Item in another colour')}
        on={item.colour !== null}
        onChange={(on) =>
          commit(
            on ? msg('Colour of the item') : msg('Item as photographed'),
            withWork(element, { colour: on ? '#2f5d50' : null }),
          )
        }
      />
      {item.colour && (
        <ColourField
          label={msg('Colour of the item')}
          value={item.colour}
          onChange={(colour) => during(withWork(element, { colour }))}
          onCommit={(colour) => commit(msg('Colour of the item'), withWork(element, { colour }))}
        />
      )}
      {item.colour && !survey.outline && (
        <p className="text-amber-ink text-[12px]">
          {msg(
            'This mockup has no outline: only its print areas take the colour. Cut the item out in its survey.',
          )}
        </p>
      )}
    </fieldset>
  );
}

/** How close the picture is framed. */
function Framing({ element, during, commit }: Props) {
  const { zoom, focus } = element.fill;
  const { tool, take } = useMockupTools();
  const framed = (to: number, on = focus) => ({ fill: { ...element.fill, zoom: to, focus: on } });
  return (
    <fieldset className="border-line grid gap-1.5 border-t pt-2">
      <legend className="sr-only">{msg('Framing')}</legend>
      <div className="flex items-center justify-between">
        <span className="font-medium">{msg('Framing')}</span>
        <span className="measure text-ink-2">{Math.round(zoom * 100)} %</span>
      </div>
      <div className="flex gap-2">
        <Button aria-pressed={tool === 'frame'} onClick={() => take(tool === 'frame' ? 'place' : 'frame')}>
          {tool === 'frame' ? msg('Draw on the picture') : msg('Frame it closer')}
        </Button>
        <Button
          disabled={zoom === 1}
          onClick={() => commit(msg('Whole picture'), framed(1, { x: 0.5, y: 0.5 }))}
        >
          {msg('Whole picture')}
        </Button>
      </div>
      <Slider
        label={msg('Closer')}
        unit="%"
        min={100}
        max={600}
        value={Math.round(zoom * 100)}
        onChange={(v) => during(framed(v / 100))}
        onCommit={(v) => commit(msg('Frame it closer'), framed(v / 100))}
      />
    </fieldset>
  );
}
