import { Eye, EyeOff, Trash2 } from 'lucide-react';
import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import { Button, IconButton, Segmented, Slider } from '../../../ui/controls';
import { withWork, type MockupElement } from './editing';
import { useMockupTools } from './tools';

interface Props {
  element: MockupElement;
  during(value: Partial<BackdropElement>): void;
  commit(label: string, value: Partial<BackdropElement>): void;
}

/** Strokes of shade: the tool, and each stroke's strength. */
export function ShadePart({ element, during, commit }: Props) {
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
