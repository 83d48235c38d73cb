import { PANELS, SHAPE_FORMS, type ShapeElement } from '@scenograph/core/elements/shape/model';
import { DECORATIONS } from '@scenograph/core/vector/decorations';
import { iconPath, ICONS } from '@scenograph/core/vector/icons';
import type { PathCommand } from '@scenograph/core/vector/outline';
import { Button, Select, Switch } from '../../../../ui/controls';
import { Amount, BrandColour, Choice, named, patchAt, Toggle } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { msg } from '../../../../language/language';

export function ShapeDesk({ element, during, commit }: OverlayDeskProps<ShapeElement>) {
  const field = { element, during, commit };
  const { form } = element;
  const lined = form !== 'panel' && form !== 'decoration';
  return (
    <div className="grid gap-2.5">
      <Select
        label={msg('Shape')}
        value={form}
        onChange={(v) => commit(msg('Shape'), patchAt(element, 'form', v))}
        options={named(SHAPE_FORMS)}
      />
      {form === 'panel' && (
        <Choice
          {...field}
          label={msg('Outline of the panel')}
          step={msg('Outline')}
          path="panel"
          list
          options={named(PANELS)}
        />
      )}
      {form === 'icon' && (
        <div
          role="group"
          aria-label={msg('Icons')}
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
              onClick={() => commit(msg('Choose an icon'), patchAt(element, 'icon', name))}
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
          <Choice {...field} label={msg('Decoration')} path="decoration" list options={named(DECORATIONS)} />
          <div className="flex items-center gap-2">
            <Amount {...field} label={msg('How many')} unit="" path="count" min={1} max={60} />
            <Button
              onClick={() => commit(msg('Draw it anew'), patchAt(element, 'seed', (element.seed + 1) % 1000))}
            >
              {msg('Anew')}
            </Button>
          </div>
        </>
      )}
      {lined && (
        <>
          <Amount {...field} label={msg('Line')} path="line" max={500} digits={1} />
          {form !== 'icon' && (
            <Choice
              {...field}
              label={msg('Kind of line')}
              path="dash"
              options={[
                { value: 'whole', title: msg('Whole') },
                { value: 'dashed', title: msg('Dashed') },
                { value: 'dotted', title: msg('Dotted') },
              ]}
            />
          )}
        </>
      )}
      {form === 'arrow' && (
        <Switch
          label={msg('Heads at both ends')}
          on={element.heads === 'both'}
          onChange={(on) => commit(msg('Heads'), patchAt(element, 'heads', on ? 'both' : 'end'))}
        />
      )}
      {form === 'frame' && <Toggle {...field} label={msg('Double line')} path="double" />}
      {(form === 'frame' || (form === 'panel' && element.panel === 'rectangle')) && (
        <Amount {...field} label={msg('Radius')} path="radius" max={5000} />
      )}
      <BrandColour {...field} label={msg('Colour')} path="colour" />
      {form === 'decoration' && <BrandColour {...field} label={msg('Second colour')} path="second" />}
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
