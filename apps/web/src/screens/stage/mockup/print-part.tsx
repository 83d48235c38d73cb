import { useRef, useState } from 'react';
import type { PrintArea } from '@scenograph/core/surface/area';
import { INK, usualLay, usualOpacity } from '@scenograph/core/surface/material';
import {
  areaPxPerMm,
  artworkDensity,
  coveringPlace,
  fittedPlace,
  printCorners,
  type Print,
} from '@scenograph/core/surface/print';
import { type Artwork, call } from '../../../api/client';
import { ColourField } from '../../../ui/colour-field';
import { Button, NumberField, Segmented, Select, Slider, Switch } from '../../../ui/controls';
import { LengthField } from '../../../ui/length-field';
import { tried } from '../../../ui/tried';
import { reachOfItem } from '../../../workers/painters';
import type { MockupElement } from './editing';
import { msg } from '../../../language/language';

interface PrintEdits {
  print: Print;
  during(change: Partial<Print>): void;
  commit(label: string, change: Partial<Print>): void;
}

/** One design: where it lies and how its ink behaves. */
export function PrintPart({
  print,
  areas,
  artwork,
  frameScale,
  fill,
  during,
  commit,
}: PrintEdits & {
  areas: PrintArea[];
  artwork: Artwork | null;
  frameScale: number;
  fill: MockupElement['fill'];
}) {
  const area = areas.find((a) => a.id === print.area) ?? areas[0];
  const density = artworkDensity(print, areaPxPerMm(area) * frameScale);
  const edits = { print, during, commit };
  // What the worker answers is put on the design as it is then.
  const now = useRef(edits);
  now.current = edits;
  const overAll = async () => {
    const reach = await tried(reachOfItem(fill, area.id));
    if (!reach) return;
    const { print: design, commit: put } = now.current;
    put(msg('Over the whole item'), { reach: 'item', pins: null, place: coveringPlace(design, area, reach) });
  };
  return (
    <fieldset className="border-line grid gap-1.5 rounded-md border p-2.5">
      <legend className="px-1 font-medium">{print.name}</legend>
      {areas.length > 1 && (
        <Select
          label={msg('Printed on')}
          className="w-full"
          value={area.id}
          onChange={(id) => {
            const to = areas.find((a) => a.id === id)!;
            commit(msg('Another area'), {
              area: id,
              pins: null,
              place: fittedPlace(print, to, 'inside', 0.8),
            });
          }}
          options={areas.map((a) => ({ value: a.id, title: a.title }))}
        />
      )}
      <PlaceNumbers {...edits} />
      <PlaceButtons {...edits} area={area} onOverAll={() => void overAll()} />
      <PlaceSwitches {...edits} area={area} fill={fill} onOverAll={() => void overAll()} />
      <InkFields {...edits} area={area} />
      <InkColours {...edits} artwork={artwork} />
      {density < 0.95 && (
        <p className="text-amber-ink text-[12px]">
          {msg(
            'The design is enlarged to {value} percent of its own pixels here. Import it larger, or print it smaller.',
            { value: Math.round(100 / density) },
          )}
        </p>
      )}
    </fieldset>
  );
}

const tenth = (v: number) => Math.round(v * 10) / 10;

/** Where the design lies on its area, in millimetres and degrees. */
function PlaceNumbers({ print, commit }: PrintEdits) {
  const { place } = print;
  const aspect = print.height / print.width;
  const mm = (label: string, key: 'x' | 'y' | 'width' | 'height') => (
    <LengthField
      label={label}
      min={key === 'width' || key === 'height' ? 0.5 : undefined}
      value={tenth(place[key])}
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
  const degrees = (label: string, step: string, key: 'turn' | 'slant', most: number) => (
    <NumberField
      label={label}
      unit="°"
      min={-most}
      max={most}
      value={tenth(place[key])}
      onCommit={(v) => commit(step, { pins: null, place: { ...place, [key]: v } })}
    />
  );
  return (
    <div className="grid grid-cols-2 gap-2">
      {mm(msg('Middle, across'), 'x')}
      {mm(msg('Middle, down'), 'y')}
      {mm(msg('Width'), 'width')}
      {mm(msg('Height'), 'height')}
      {degrees(msg('Rotation'), msg('Rotate'), 'turn', 360)}
      {degrees(msg('Slant'), msg('Slant'), 'slant', 75)}
    </div>
  );
}

function PlaceButtons({
  print,
  commit,
  area,
  onOverAll,
}: PrintEdits & { area: PrintArea; onOverAll(): void }) {
  const fit = (label: string, how: 'inside' | 'cover' | 'fill') => (
    <Button onClick={() => commit(label, { pins: null, place: fittedPlace(print, area, how) })}>
      {label}
    </Button>
  );
  const middle = { x: area.widthMm / 2, y: area.heightMm / 2 };
  return (
    <div className="flex flex-wrap gap-1.5">
      <Button onClick={() => commit(msg('Centre'), { pins: null, place: { ...print.place, ...middle } })}>
        {msg('Centre')}
      </Button>
      {fit(msg('Fit inside'), 'inside')}
      {print.reach === 'item' ? (
        <Button onClick={onOverAll}>{msg('Cover with bleed')}</Button>
      ) : (
        fit(msg('Cover'), 'cover')
      )}
      {fit(msg('Fill exactly'), 'fill')}
    </div>
  );
}

/** Whose artwork is printed, whether its corners are pinned, and how far it reaches. */
function PlaceSwitches({
  print,
  commit,
  area,
  fill,
  onOverAll,
}: PrintEdits & { area: PrintArea; fill: MockupElement['fill']; onOverAll(): void }) {
  return (
    <>
      <Switch
        label={msg("Print the variant's own artwork")}
        on={print.followsVariant}
        onChange={(followsVariant) =>
          commit(followsVariant ? msg("The variant's artwork") : msg('The same artwork for all'), {
            followsVariant,
          })
        }
      />
      <Switch
        label={msg('Pin its corners')}
        on={print.pins !== null}
        onChange={(on) =>
          commit(on ? msg('Pin corners') : msg('Without pins'), { pins: on ? printCorners(print) : null })
        }
      />
      {fill.survey.outline && (
        <Switch
          label={msg('Over the whole item')}
          on={print.reach === 'item'}
          onChange={(on) =>
            on
              ? onOverAll()
              : commit(msg('On its area alone'), { reach: 'area', place: fittedPlace(print, area, 'inside') })
          }
        />
      )}
    </>
  );
}

/** How the ink behaves on the area's stock. */
function InkFields({ print, during, commit, area }: PrintEdits & { area: PrintArea }) {
  const lay = print.lay ?? usualLay(area.stock);
  const usual = { ...INK[area.material], opacity: usualOpacity(area.material, lay) };
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
  return (
    <>
      <Segmented
        label={msg('How the ink lies')}
        value={print.lay ?? 'usual'}
        onChange={(lay) => commit(msg('How the ink lies'), { lay: lay === 'usual' ? null : lay })}
        options={[
          { value: 'usual', title: msg('By stock') },
          { value: 'multiply', title: msg('Multiply') },
          { value: 'opaque', title: msg('Over white') },
        ]}
      />
      {ink(msg('Ink opacity'), 'opacity')}
      {ink(msg('Grain shows'), 'grain')}
      {ink(msg('Highlights over it'), 'gloss', 200)}
      {ink(msg('Follows folds'), 'folds')}
      <Slider
        label={msg('Ink spread')}
        unit="µm"
        max={500}
        value={Math.round((print.spreadMm ?? usual.spreadMm) * 1000)}
        onChange={(v) => during({ spreadMm: v / 1000 })}
        onCommit={(v) => commit(msg('Ink spread'), { spreadMm: v / 1000 })}
      />
      <Slider
        label={msg('Remove white')}
        unit="%"
        value={Math.round(print.knockOut * 100)}
        onChange={(v) => during({ knockOut: v / 100 })}
        onCommit={(v) => commit(msg('Remove white'), { knockOut: v / 100 })}
      />
    </>
  );
}

/** One ink for everything, or each colour of a drawn design by itself. */
function InkColours({ print, during, commit, artwork }: PrintEdits & { artwork: Artwork | null }) {
  const { drawing, recolour } = useRecolouring(print, artwork, commit);
  const inks = print.drawn?.inks;
  return (
    <>
      <Switch
        label={msg('Everything in one ink')}
        on={print.ink !== null}
        onChange={(on) =>
          commit(on ? msg('One ink') : msg('Its own colours'), { ink: on ? '#1f3d36' : null })
        }
      />
      {print.ink && (
        <ColourField
          label={msg('Ink')}
          value={print.ink}
          onChange={(v) => during({ ink: v })}
          onCommit={(v) => commit(msg('Ink'), { ink: v })}
        />
      )}
      {!print.ink && artwork?.vector && inks && (
        <fieldset disabled={drawing} className="grid gap-1">
          <legend className="text-ink-2 text-[12px]">{msg('Colours of the design')}</legend>
          {artwork.colours.slice(0, 12).map((from) => (
            <ColourField
              key={from}
              label={msg('Colour {from}', { from })}
              value={inks[from] ?? from}
              onChange={() => undefined}
              onCommit={(to) => to !== (inks[from] ?? from) && void recolour(from, to)}
            />
          ))}
        </fieldset>
      )}
    </>
  );
}

/** Has the server draw a vector design in other inks, and puts that on the design as it is then. */
function useRecolouring(print: Print, artwork: Artwork | null, commit: PrintEdits['commit']) {
  const [drawing, setDrawing] = useState(false);
  const latest = useRef(commit);
  latest.current = commit;
  const recolour = async (from: string, to: string) => {
    if (!artwork || !print.drawn) return;
    const inks = { ...print.drawn.inks, [from]: to };
    if (from === to) delete inks[from];
    setDrawing(true);
    const drawn = await tried(
      call('POST /api/artwork/:id/inks', { params: { id: artwork.id }, body: { inks } }),
    );
    if (drawn)
      latest.current(msg('Colour of the design'), {
        artwork: drawn.picture,
        width: drawn.width,
        height: drawn.height,
        drawn: { ...print.drawn, inks },
      });
    setDrawing(false);
  };
  return { drawing, recolour };
}

function inProportion({ place, width, height }: Print): boolean {
  return Math.abs(place.height / place.width / (height / width) - 1) < 0.02;
}
