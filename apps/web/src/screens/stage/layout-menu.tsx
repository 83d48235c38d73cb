import { Ruler, Trash2 } from 'lucide-react';
import { Popover } from 'radix-ui';
import { addGuide, moveGuide } from '@scenograph/core/shot/guides';
import { Button, IconButton, NumberField, Switch } from '../../ui/controls';
import { toggleGrid, toggleRulers, useLayoutAids } from './rulers';
import { useStage } from './store';
import { msg } from '../../language/language';

/** What lies over the picture to lay things out by: rulers, guides with their places as numbers, grid, centre lines. */
export function LayoutMenu({ className, ...rest }: { className: string }) {
  const aids = useLayoutAids();
  return (
    <Popover.Root>
      <Popover.Trigger
        {...rest}
        className={`${className} ${aids.rulers || aids.grid || aids.centre ? 'bg-spruce-tint' : ''}`}
        title={msg('Rulers, guides and grid (R, G)')}
        aria-label={msg('Rulers, guides and grid')}
      >
        <Ruler size={13} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          className="border-line bg-card z-50 grid w-64 gap-2 rounded-lg border p-3 shadow-[0_8px_28px_rgba(23,27,25,0.14)]"
        >
          <Switch label={msg('Rulers and guides')} on={aids.rulers} onChange={toggleRulers} />
          {aids.rulers && <GuideList />}
          <Switch label={msg('Grid')} on={aids.grid} onChange={toggleGrid} />
          {aids.grid && (
            <NumberField
              label={msg('Spacing')}
              unit="px"
              min={2}
              max={6000}
              value={aids.spacing}
              onCommit={(spacing) => useLayoutAids.setState({ spacing })}
            />
          )}
          <Switch
            label={msg('Centre lines and thirds')}
            on={aids.centre}
            onChange={(centre) => useLayoutAids.setState({ centre })}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Guides in pixels of the base, each to be typed anew or removed. */
function GuideList() {
  const shot = useStage((s) => s.document);
  const edit = useStage((s) => s.edit);
  if (!shot) return null;
  const { width, height } = shot.frame;
  const guides = shot.guides ?? [];
  return (
    <div className="grid gap-1.5 pl-6">
      {guides.length === 0 && (
        <p className="text-ink-2 text-[12px]">{msg('Drag a guide out of a ruler, or add one here.')}</p>
      )}
      {guides.map(({ axis, at }, i) => (
        <div key={i} className="flex items-center gap-1">
          <NumberField
            label={axis === 'x' ? msg('Left') : msg('Top')}
            unit="px"
            min={0}
            max={axis === 'x' ? width : height}
            digits={1}
            value={at}
            onCommit={(to) => edit(msg('Move a guide'), (s) => moveGuide(s, i, to))}
          />
          <IconButton
            label={msg('Remove the guide at {at}', { at })}
            onClick={() => edit(msg('Remove a guide'), (s) => moveGuide(s, i, null))}
          >
            <Trash2 size={13} aria-hidden />
          </IconButton>
        </div>
      ))}
      <div className="flex gap-1.5">
        <Button onClick={() => edit(msg('Add a guide'), (s) => addGuide(s, { axis: 'x', at: width / 2 }))}>
          {msg('Add upright')}
        </Button>
        <Button onClick={() => edit(msg('Add a guide'), (s) => addGuide(s, { axis: 'y', at: height / 2 }))}>
          {msg('Add level')}
        </Button>
      </div>
    </div>
  );
}
