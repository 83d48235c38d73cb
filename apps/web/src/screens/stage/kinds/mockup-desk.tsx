import { ArrowDown, ArrowUp, Eye, EyeOff, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { BackdropElement } from '@scenograph/core/elements/backdrop/definition';
import type { PrintArea } from '@scenograph/core/surface/area';
import { INK, type Lay } from '@scenograph/core/surface/material';
import {
  areaPxPerMm,
  artworkDensity,
  coveringPlace,
  fittedPlace,
  newPrint,
  printCorners,
  type Print,
} from '@scenograph/core/surface/print';
import { reducedUrl, refresh, request, sendFile, useServer, type Artwork } from '../../../api/client';
import {
  Button,
  ColourField,
  IconButton,
  NumberField,
  Segmented,
  Select,
  Slider,
  Switch,
} from '../../../ui/controls';
import { say } from '../../../ui/notices';
import { reachOfItem } from '../../../workers/painters';
import { freshId, withPrint, withWork, type MockupElement } from '../mockup/editing';
import { OptionsPart } from '../mockup/options-part';
import { useMockupTools } from '../mockup/tools';

interface Props {
  element: MockupElement;
  during(value: Partial<BackdropElement>): void;
  commit(label: string, value: Partial<BackdropElement>): void;
}

/** What is done with a blank: designs on its areas, its colour, shade by hand, how close it is framed. */
export function MockupDesk({ element, during, commit }: Props) {
  const { survey, item, zoom, focus } = element.fill;
  const { data: artworks } = useServer<Artwork[]>('/api/artwork');
  const { print: chosen, choose, tool, take } = useMockupTools();
  const [area, setArea] = useState(survey.areas[0].id);
  const here = survey.areas.find((a) => a.id === area) ?? survey.areas[0];
  const print = item.prints.find((p) => p.id === chosen) ?? null;
  // Leaving the mockup lays the tools down.
  useEffect(() => () => take('place'), [take]);
  const set = (prints: Print[], label: string) => commit(label, withWork(element, { prints }));
  const add = (art: Artwork) => {
    const id = freshId('print', item.prints);
    const made = newPrint(
      id,
      art.title,
      {
        hash: art.picture,
        width: art.width,
        height: art.height,
        drawn: art.vector ? { svg: art.original, inks: {} } : null,
      },
      here,
    );
    set([...item.prints, { ...made, knockOut: art.whiteGround ? 1 : 0 }], `Print ${art.title}`);
    choose(id);
  };
  const bringIn = async (files: FileList | null) => {
    for (const file of files ?? [])
      try {
        const made = await sendFile<Artwork>(
          `/api/artwork?name=${encodeURIComponent(file.name)}`,
          file,
          () => undefined,
        );
        for (const note of made.notes) say('look', `${made.title}: ${note}.`);
        refresh('/api/artwork');
        add(made);
      } catch (e) {
        say('stop', (e as Error).message);
      }
  };
  return (
    <div className="grid gap-2.5">
      <h3 className="font-medium">Designs</h3>
      {survey.areas.length > 1 && (
        <Select
          label="Print area"
          className="w-full"
          value={here.id}
          onChange={setArea}
          options={survey.areas.map((a) => ({ value: a.id, title: a.title }))}
        />
      )}
      <p className="measure text-ink-2">
        {here.title}, {Math.round(here.widthMm * 10) / 10} x {Math.round(here.heightMm * 10) / 10} mm,{' '}
        {INK[here.material].title.toLowerCase()}
      </p>
      <div className="grid grid-cols-4 gap-1.5">
        {artworks?.map((a) => (
          <button
            key={a.id}
            type="button"
            title={`Print ${a.title}`}
            aria-label={`Print ${a.title}`}
            onClick={() => add(a)}
            className="border-line hover:border-ink-3 flex aspect-square items-center justify-center overflow-hidden rounded-sm border bg-white p-1"
          >
            <img src={reducedUrl(a.picture, 160)} alt="" className="max-h-full max-w-full" />
          </button>
        ))}
      </div>
      <label className="border-line hover:border-ink-3 inline-flex h-7 cursor-pointer items-center justify-center rounded-md border px-3 font-medium">
        Bring in a design
        <input
          type="file"
          multiple
          accept=".svg,image/svg+xml,image/png,image/jpeg,image/webp"
          className="sr-only"
          aria-label="Designs to bring in"
          onChange={(e) => {
            void bringIn(e.target.files);
            e.target.value = '';
          }}
        />
      </label>
      {item.prints.length > 0 && (
        <ul aria-label="Designs on the mockup, the uppermost first" className="grid gap-1">
          {[...item.prints].reverse().map((p) => {
            const i = item.prints.indexOf(p);
            const swapped = (by: number) => {
              const list = [...item.prints];
              [list[i], list[i + by]] = [list[i + by], list[i]];
              set(list, 'Order of designs');
            };
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
                  label={`Raise ${p.name}`}
                  disabled={i + 1 >= item.prints.length}
                  onClick={() => swapped(1)}
                >
                  <ArrowUp size={13} aria-hidden />
                </IconButton>
                <IconButton label={`Lower ${p.name}`} disabled={i === 0} onClick={() => swapped(-1)}>
                  <ArrowDown size={13} aria-hidden />
                </IconButton>
                <IconButton
                  label={p.hidden ? `Show ${p.name}` : `Hide ${p.name}`}
                  onClick={() =>
                    commit(
                      p.hidden ? 'Show design' : 'Hide design',
                      withPrint(element, p.id, { hidden: !p.hidden }),
                    )
                  }
                >
                  {p.hidden ? <EyeOff size={13} aria-hidden /> : <Eye size={13} aria-hidden />}
                </IconButton>
                <IconButton
                  label={`Remove ${p.name}`}
                  onClick={() =>
                    set(
                      item.prints.filter((q) => q.id !== p.id),
                      `Remove ${p.name}`,
                    )
                  }
                >
                  <Trash2 size={13} aria-hidden />
                </IconButton>
              </li>
            );
          })}
        </ul>
      )}
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
      <fieldset className="border-line grid gap-1 border-t pt-2">
        <legend className="sr-only">The item</legend>
        <Switch
          label="Item in another colour"
          on={item.colour !== null}
          onChange={(on) =>
            commit(
              on ? 'Colour of the item' : 'Item as photographed',
              withWork(element, { colour: on ? '#2f5d50' : null }),
            )
          }
        />
        {item.colour && (
          <ColourField
            label="Colour of the item"
            value={item.colour}
            onChange={(colour) => during(withWork(element, { colour }))}
            onCommit={(colour) => commit('Colour of the item', withWork(element, { colour }))}
          />
        )}
        {item.colour && !survey.outline && (
          <p className="text-amber-ink text-[12px]">
            This mockup has no outline: only its print areas take the colour. Cut the item out in its survey.
          </p>
        )}
      </fieldset>
      <OptionsPart element={element} artworks={artworks ?? []} commit={commit} />
      <ShadePart element={element} during={during} commit={commit} />
      <fieldset className="border-line grid gap-1.5 border-t pt-2">
        <legend className="sr-only">Framing</legend>
        <div className="flex items-center justify-between">
          <span className="font-medium">Framing</span>
          <span className="measure text-ink-2">{Math.round(zoom * 100)} %</span>
        </div>
        <div className="flex gap-2">
          <Button aria-pressed={tool === 'frame'} onClick={() => take(tool === 'frame' ? 'place' : 'frame')}>
            {tool === 'frame' ? 'Draw on the picture' : 'Frame it closer'}
          </Button>
          <Button
            disabled={zoom === 1}
            onClick={() =>
              commit('Whole picture', { fill: { ...element.fill, zoom: 1, focus: { x: 0.5, y: 0.5 } } })
            }
          >
            Whole picture
          </Button>
        </div>
        <Slider
          label="Closer"
          unit="%"
          min={100}
          max={600}
          value={Math.round(zoom * 100)}
          onChange={(v) => during({ fill: { ...element.fill, zoom: v / 100, focus } })}
          onCommit={(v) => commit('Frame it closer', { fill: { ...element.fill, zoom: v / 100, focus } })}
        />
      </fieldset>
    </div>
  );
}

function ShadePart({ element, during, commit }: Props) {
  const { item } = element.fill;
  const { tool, take, shade, set } = useMockupTools();
  const painting = tool === 'shade';
  const strokes = (list: typeof item.shade) => withWork(element, { shade: list });
  return (
    <fieldset className="border-line grid gap-1 border-t pt-2">
      <legend className="sr-only">Shade by hand</legend>
      <div className="flex items-center justify-between">
        <span className="font-medium">Shade by hand</span>
        <Button aria-pressed={painting} onClick={() => take(painting ? 'place' : 'shade')}>
          {painting ? 'Done' : 'Paint shade'}
        </Button>
      </div>
      {painting && (
        <>
          <Segmented
            label="Dark or light"
            value={shade.amount < 0 ? 'dark' : 'light'}
            onChange={(v) => set({ amount: (v === 'dark' ? -1 : 1) * Math.abs(shade.amount) })}
            options={[
              { value: 'dark', title: 'Dark' },
              { value: 'light', title: 'Light' },
            ]}
          />
          <Slider
            label="Strength"
            unit="%"
            min={2}
            value={Math.round(Math.abs(shade.amount) * 100)}
            onChange={(v) => set({ amount: (Math.sign(shade.amount) * v) / 100 })}
            onCommit={() => undefined}
          />
          <Slider
            label="Width"
            unit="px"
            min={4}
            max={800}
            value={Math.round(shade.radius * 2)}
            onChange={(v) => set({ radius: v / 2 })}
            onCommit={() => undefined}
          />
          <Slider
            label="Softness"
            unit="%"
            value={Math.round(shade.softness * 100)}
            onChange={(v) => set({ softness: v / 100 })}
            onCommit={() => undefined}
          />
        </>
      )}
      {item.shade.length > 0 && (
        <ul aria-label="Strokes of shade" className="grid gap-1">
          {item.shade.map((stroke, i) => (
            <li key={stroke.id} className="grid gap-0.5">
              <div className="flex items-center gap-1">
                <span className="grow">
                  {stroke.amount < 0 ? 'Dark' : 'Light'} stroke {i + 1}
                </span>
                <IconButton
                  label={stroke.hidden ? 'Show the stroke' : 'Hide the stroke'}
                  onClick={() =>
                    commit(
                      'Stroke shown or hidden',
                      strokes(item.shade.map((s) => (s === stroke ? { ...s, hidden: !s.hidden } : s))),
                    )
                  }
                >
                  {stroke.hidden ? <EyeOff size={13} aria-hidden /> : <Eye size={13} aria-hidden />}
                </IconButton>
                <IconButton
                  label="Remove the stroke"
                  onClick={() => commit('Remove a stroke', strokes(item.shade.filter((s) => s !== stroke)))}
                >
                  <Trash2 size={13} aria-hidden />
                </IconButton>
              </div>
              <Slider
                label={`Strength of stroke ${i + 1}`}
                unit="%"
                min={-100}
                max={100}
                value={Math.round(stroke.amount * 100)}
                onChange={(v) =>
                  during(strokes(item.shade.map((s) => (s === stroke ? { ...s, amount: v / 100 } : s))))
                }
                onCommit={(v) =>
                  commit(
                    'Strength of a stroke',
                    strokes(item.shade.map((s) => (s.id === stroke.id ? { ...s, amount: v / 100 } : s))),
                  )
                }
              />
            </li>
          ))}
        </ul>
      )}
    </fieldset>
  );
}

/** One design: where it lies and how its ink behaves. */
function PrintPart({
  print,
  areas,
  artwork,
  frameScale,
  fill,
  during,
  commit,
}: {
  print: Print;
  areas: PrintArea[];
  artwork: Artwork | null;
  frameScale: number;
  fill: MockupElement['fill'];
  during(change: Partial<Print>): void;
  commit(label: string, change: Partial<Print>): void;
}) {
  const area = areas.find((a) => a.id === print.area) ?? areas[0];
  const usual = INK[area.material];
  const { place } = print;
  const aspect = print.height / print.width;
  const mm = (label: string, key: 'x' | 'y' | 'width' | 'height') => (
    <NumberField
      label={label}
      unit="mm"
      min={key === 'width' || key === 'height' ? 0.5 : undefined}
      value={Math.round(place[key] * 10) / 10}
      onCommit={(v) =>
        commit(label, {
          pins: null,
          place: {
            ...place,
            [key]: v,
            // In proportion, unless it was stretched on purpose.
            ...(key === 'width' && inProportion(print) && { height: v * aspect }),
            ...(key === 'height' && inProportion(print) && { width: v / aspect }),
          },
        })
      }
    />
  );
  const fit = (label: string, how: 'inside' | 'cover' | 'fill') => (
    <Button onClick={() => commit(label, { pins: null, place: fittedPlace(print, area, how) })}>
      {label}
    </Button>
  );
  const ink = (label: string, key: 'opacity' | 'grain' | 'gloss' | 'folds', most = 100) => (
    <Slider
      label={label}
      unit="%"
      max={most}
      value={Math.round((print[key] ?? usual[key]) * 100)}
      onChange={(v) => during({ [key]: v / 100 })}
      onCommit={(v) => commit(label, { [key]: v / 100 })}
    />
  );
  const density = artworkDensity(print, areaPxPerMm(area) * frameScale);
  const overAll = async () => {
    try {
      const reach = await reachOfItem(fill, area.id);
      commit('Over the whole item', { reach: 'item', pins: null, place: coveringPlace(print, area, reach) });
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const recolour = async (from: string, to: string) => {
    if (!artwork || !print.drawn) return;
    const inks = { ...print.drawn.inks, [from]: to };
    if (from === to) delete inks[from];
    try {
      const drawn = await request<{ picture: string; width: number; height: number }>(
        'POST',
        `/api/artwork/${artwork.id}/inks`,
        { inks },
      );
      commit('Colour of the design', {
        artwork: drawn.picture,
        width: drawn.width,
        height: drawn.height,
        drawn: { ...print.drawn, inks },
      });
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <fieldset className="border-line grid gap-1.5 rounded-md border p-2.5">
      <legend className="px-1 font-medium">{print.name}</legend>
      {areas.length > 1 && (
        <Select
          label="Printed on"
          className="w-full"
          value={area.id}
          onChange={(id) => {
            const to = areas.find((a) => a.id === id)!;
            commit('Another area', { area: id, pins: null, place: fittedPlace(print, to, 'inside', 0.8) });
          }}
          options={areas.map((a) => ({ value: a.id, title: a.title }))}
        />
      )}
      <div className="grid grid-cols-2 gap-2">
        {mm('Middle, across', 'x')}
        {mm('Middle, down', 'y')}
        {mm('Width', 'width')}
        {mm('Height', 'height')}
        <NumberField
          label="Turn"
          unit="°"
          min={-360}
          max={360}
          value={Math.round(place.turn * 10) / 10}
          onCommit={(turn) => commit('Turn', { pins: null, place: { ...place, turn } })}
        />
        <NumberField
          label="Slant"
          unit="°"
          min={-75}
          max={75}
          value={Math.round(place.slant * 10) / 10}
          onCommit={(slant) => commit('Slant', { pins: null, place: { ...place, slant } })}
        />
      </div>
      <div className="flex flex-wrap gap-1.5">
        <Button
          onClick={() =>
            commit('Centre', { pins: null, place: { ...place, x: area.widthMm / 2, y: area.heightMm / 2 } })
          }
        >
          Centre
        </Button>
        {fit('Fit inside', 'inside')}
        {print.reach === 'item' ? (
          <Button onClick={() => void overAll()}>Cover with bleed</Button>
        ) : (
          fit('Cover', 'cover')
        )}
        {fit('Fill exactly', 'fill')}
      </div>
      <Switch
        label="Pin its corners"
        on={print.pins !== null}
        onChange={(on) =>
          commit(on ? 'Pin corners' : 'Without pins', { pins: on ? printCorners(print) : null })
        }
      />
      {fill.survey.outline && (
        <Switch
          label="Over the whole item"
          on={print.reach === 'item'}
          onChange={(on) =>
            on
              ? void overAll()
              : commit('On its area alone', { reach: 'area', place: fittedPlace(print, area, 'inside') })
          }
        />
      )}
      <Segmented
        label="How the ink lies"
        value={print.lay ?? 'usual'}
        onChange={(lay) => commit('How the ink lies', { lay: lay === 'usual' ? null : (lay as Lay) })}
        options={[
          { value: 'usual', title: 'By stock' },
          { value: 'multiply', title: 'Multiply' },
          { value: 'opaque', title: 'Over white' },
        ]}
      />
      {ink('Ink opacity', 'opacity')}
      {ink('Grain shows', 'grain')}
      {ink('Highlights over it', 'gloss', 200)}
      {ink('Follows folds', 'folds')}
      <Slider
        label="Ink spread"
        unit="µm"
        max={500}
        value={Math.round((print.spreadMm ?? usual.spreadMm) * 1000)}
        onChange={(v) => during({ spreadMm: v / 1000 })}
        onCommit={(v) => commit('Ink spread', { spreadMm: v / 1000 })}
      />
      <Slider
        label="White knocked out"
        unit="%"
        value={Math.round(print.knockOut * 100)}
        onChange={(v) => during({ knockOut: v / 100 })}
        onCommit={(v) => commit('White knocked out', { knockOut: v / 100 })}
      />
      <Switch
        label="Everything in one ink"
        on={print.ink !== null}
        onChange={(on) => commit(on ? 'One ink' : 'Its own colours', { ink: on ? '#1f3d36' : null })}
      />
      {print.ink ? (
        <ColourField
          label="Ink"
          value={print.ink}
          onChange={(v) => during({ ink: v })}
          onCommit={(v) => commit('Ink', { ink: v })}
        />
      ) : (
        artwork?.vector &&
        print.drawn && (
          <div className="grid gap-1">
            <span className="text-ink-2 text-[12px]">Colours of the design</span>
            {artwork.colours.slice(0, 12).map((from) => (
              <ColourField
                key={from}
                label={`Colour ${from}`}
                value={print.drawn!.inks[from] ?? from}
                onChange={() => undefined}
                onCommit={(to) => to !== (print.drawn!.inks[from] ?? from) && void recolour(from, to)}
              />
            ))}
          </div>
        )
      )}
      {density < 0.95 && (
        <p className="text-amber-ink text-[12px]">
          The design is enlarged to {Math.round(100 / density)} percent of its own pixels here. Bring it in
          larger, or print it smaller.
        </p>
      )}
    </fieldset>
  );
}

function inProportion({ place, width, height }: Print): boolean {
  return Math.abs(place.height / place.width / (height / width) - 1) < 0.02;
}
