import { Eye, EyeOff, Trash2 } from 'lucide-react';
import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import { Button, IconButton, Segmented, Slider } from '../../../ui/controls';
import { withWork, type MockupElement } from './editing';
import { useMockupTools } from './tools';
import { msg } from '../../../language/language';

interface Props {
  element: MockupElement;
  during(value: Partial<BackdropElement>): void;
  commit(label: string, value: Partial<BackdropElement>): void;
}

type Shade = MockupElement['fill']['item']['shade'][number];

/** Strokes of shade: the tool, and each stroke's strength. */
export function ShadePart({ element, during, commit }: Props) {
  const { item } = element.fill;
  const { tool, take } = useMockupTools();
  const painting = tool === 'shade';
  return (
    <fieldset className="border-line grid gap-1 border-t pt-2">
      <legend className="sr-only">{msg('Shade by hand')}</legend>
      <div className="flex items-center justify-between">
        <span className="font-medium">{msg('Shade by hand')}</span>
        <Button aria-pressed={painting} onClick={() => take(painting ? 'place' : 'shade')}>
          {painting ? msg('Done') : msg('Paint shade')}
        </Button>
      </div>
      {painting && <ShadeBrush />}
      {item.shade.length > 0 && (
        <ul aria-label={msg('Strokes of shade')} className="grid gap-1">
          {item.shade.map((stroke, i) => (
            <StrokeRow
              key={stroke.id}
              stroke={stroke}
              n={i + 1}
              element={element}
              during={during}
              commit={commit}
            />
          ))}
        </ul>
      )}
    </fieldset>
  );
}

/** The brush that shade is painted with. */
function ShadeBrush() {
  const { shade, set } = useMockupTools();
  return (
    <>
      <Segmented
        label={msg('Dark or light')}
        value={shade.amount < 0 ? 'dark' : 'light'}
        onChange={(v) => set({ amount: (v === 'dark' ? -1 : 1) * Math.abs(shade.amount) })}
        options={[
          { value: 'dark', title: msg('Dark') },
          { value: 'light', title: msg('Light') },
        ]}
      />
      <Slider
        label={msg('Strength')}
        unit="%"
        min={2}
        value={Math.round(Math.abs(shade.amount) * 100)}
        onChange={(v) => set({ amount: (Math.sign(shade.amount) * v) / 100 })}
        onCommit={() => undefined}
      />
      <Slider
        label={msg('Width')}
        unit="px"
        min={4}
        max={800}
        value={Math.round(shade.radius * 2)}
        onChange={(v) => set({ radius: v / 2 })}
        onCommit={() => undefined}
      />
      <Slider
        label={msg('Softness')}
        unit="%"
        value={Math.round(shade.softness * 100)}
        onChange={(v) => set({ softness: v / 100 })}
        onCommit={() => undefined}
      />
    </>
  );
}

/** One stroke: shown or hidden, removed, and its strength. */
function StrokeRow({ stroke, n, element, during, commit }: Props & { stroke: Shade; n: number }) {
  const { shade } = element.fill.item;
  const strokes = (list: Shade[]) => withWork(element, { shade: list });
  return (
    <li className="grid gap-0.5">
      <div className="flex items-center gap-1">
        <span className="grow">
          {msg('{part} stroke {i}', {
            part: stroke.amount < 0 ? msg('Dark') : msg('Light'),
            i: n,
          })}
        </span>
        <IconButton
          label={stroke.hidden ? msg('Show the stroke') : msg('Hide the stroke')}
          onClick={() =>
            commit(
              msg('Stroke shown or hidden'),
              strokes(shade.map((s) => (s === stroke ? { ...s, hidden: !s.hidden } : s))),
            )
          }
        >
          {stroke.hidden ? <EyeOff size={13} aria-hidden /> : <Eye size={13} aria-hidden />}
        </IconButton>
        <IconButton
          label={msg('Remove the stroke')}
          onClick={() => commit(msg('Remove a stroke'), strokes(shade.filter((s) => s !== stroke)))}
        >
          <Trash2 size={13} aria-hidden />
        </IconButton>
      </div>
      <Slider
        label={msg('Strength of stroke {i}', { i: n })}
        unit="%"
        min={-100}
        max={100}
        value={Math.round(stroke.amount * 100)}
        onChange={(v) => during(strokes(shade.map((s) => (s === stroke ? { ...s, amount: v / 100 } : s))))}
        onCommit={(v) =>
          commit(
            msg('Strength of a stroke'),
            strokes(shade.map((s) => (s.id === stroke.id ? { ...s, amount: v / 100 } : s))),
          )
        }
      />
    </li>
  );
}
