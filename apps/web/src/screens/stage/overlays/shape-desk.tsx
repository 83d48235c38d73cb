import { PANELS, SHAPE_FORMS, type ShapeElement } from '@scenograph/core/elements/shape/definition';
import { DECORATIONS } from '@scenograph/core/vector/decorations';
import { iconPath, ICONS } from '@scenograph/core/vector/icons';
import type { PathCommand } from '@scenograph/core/vector/outline';
import { Button, Segmented, Select, Switch } from '../../../ui/controls';
import { Amount, BrandColour, patchAt } from './fields';
import type { OverlayDeskProps } from './overlay-desk';

const title = (s: string) => s[0].toUpperCase() + s.slice(1);

export function ShapeDesk({ element, during, commit }: OverlayDeskProps<ShapeElement>) {
  const field = { element, during, commit };
  const { form } = element;
  const lined = form !== 'panel' && form !== 'decoration';
  return (
    <div className="grid gap-2.5">
      <Select
        label="Shape"
        value={form}
        onChange={(v) => commit('Shape', patchAt(element, 'form', v))}
        options={SHAPE_FORMS.map((f) => ({ value: f, title: title(f) }))}
      />
      {form === 'panel' && (
        <Select
          label="Outline of the panel"
          value={element.panel}
          onChange={(v) => commit('Outline', patchAt(element, 'panel', v))}
          options={PANELS.map((p) => ({ value: p, title: title(p) }))}
        />
      )}
      {form === 'icon' && (
        <div
          role="group"
          aria-label="Icons"
          className="border-line grid max-h-44 grid-cols-7 gap-0.5 overflow-y-auto rounded-md border p-1"
        >
          {ICONS.map((name) => (
            <button
              key={name}
              type="button"
              aria-label={name}
              title={name}
              aria-pressed={element.icon === name}
              className={`flex h-8 items-center justify-center rounded-sm ${element.icon === name ? 'bg-spruce-tint text-spruce' : 'text-ink-2 hover:bg-spruce-tint'}`}
              onClick={() => commit('Choose an icon', patchAt(element, 'icon', name))}
            >
              <svg
                width="18"
                height="18"
                viewBox="0 0 24 24"
                fill="none"
                stroke="currentColor"
                strokeWidth="2"
                strokeLinecap="round"
                aria-hidden
              >
                <path d={pathData(iconPath(name))} />
              </svg>
            </button>
          ))}
        </div>
      )}
      {form === 'decoration' && (
        <>
          <Select
            label="Decoration"
            value={element.decoration}
            onChange={(v) => commit('Decoration', patchAt(element, 'decoration', v))}
            options={DECORATIONS.map((d) => ({ value: d, title: title(d) }))}
          />
          <div className="flex items-center gap-2">
            <Amount {...field} label="How many" unit="" path="count" min={1} max={60} />
            <Button
              onClick={() => commit('Draw it anew', patchAt(element, 'seed', (element.seed + 1) % 1000))}
            >
              Anew
            </Button>
          </div>
        </>
      )}
      {lined && (
        <>
          <Amount {...field} label="Line" path="line" max={500} digits={1} />
          {form !== 'icon' && (
            <Segmented
              label="Kind of line"
              value={element.dash}
              onChange={(v) => commit('Kind of line', patchAt(element, 'dash', v))}
              options={[
                { value: 'whole', title: 'Whole' },
                { value: 'dashed', title: 'Dashed' },
                { value: 'dotted', title: 'Dotted' },
              ]}
            />
          )}
        </>
      )}
      {form === 'arrow' && (
        <Switch
          label="Heads at both ends"
          on={element.heads === 'both'}
          onChange={(on) => commit('Heads', patchAt(element, 'heads', on ? 'both' : 'end'))}
        />
      )}
      {form === 'frame' && (
        <Switch
          label="Double line"
          on={element.double}
          onChange={(on) => commit('Double line', patchAt(element, 'double', on))}
        />
      )}
      {(form === 'frame' || (form === 'panel' && element.panel === 'rectangle')) && (
        <Amount {...field} label="Radius" path="radius" max={5000} />
      )}
      <BrandColour {...field} label="Colour" path="colour" />
      {form === 'decoration' && <BrandColour {...field} label="Second colour" path="second" />}
    </div>
  );
}

const pathData = (path: PathCommand[]) =>
  path
    .map((c) =>
      c.type === 'Z'
        ? 'Z'
        : c.type === 'C'
          ? `C${c.x1} ${c.y1} ${c.x2} ${c.y2} ${c.x} ${c.y}`
          : c.type === 'Q'
            ? `Q${c.x1} ${c.y1} ${c.x} ${c.y}`
            : `${c.type}${c.x} ${c.y}`,
    )
    .join('');
