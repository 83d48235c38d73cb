import type { Scene } from '../../api/client';
import { ColourButton, ColourField } from '../../ui/colour-field';
import { Segmented, Select } from '../../ui/controls';
import { SIGHTS, type Sight } from './tools';
import { msg } from '../../language/language';

/** How the cutout is looked at, and what lies behind it. */
export function SightBar({
  sight,
  onSight,
  tint,
  onTint,
  ground,
  onGround,
  scenes,
  scene,
  onScene,
}: {
  sight: Sight;
  onSight(sight: Sight): void;
  tint: string;
  onTint(colour: string): void;
  ground: string;
  onGround(colour: string): void;
  scenes: Scene[] | undefined;
  scene: Scene | undefined;
  onScene(id: string): void;
}) {
  return (
    <div className="absolute top-3 right-3 flex items-center gap-2">
      {sight === 'tint' && (
        <ColourButton
          label={msg('Tint of what is dropped')}
          value={tint}
          onChange={onTint}
          onCommit={onTint}
        />
      )}
      {sight === 'colour' && (
        <div className="bg-card flex items-center gap-1 rounded-md p-0.5">
          {['#ffffff', '#000000'].map((c) => (
            <button
              key={c}
              type="button"
              aria-label={c === '#ffffff' ? msg('On white') : msg('On black')}
              onClick={() => onGround(c)}
              className="border-line h-6 w-6 rounded-sm border"
              style={{ background: c }}
            />
          ))}
          <ColourField label={msg('Ground')} value={ground} onChange={onGround} onCommit={onGround} />
        </div>
      )}
      {sight === 'scene' && scenes && scene && (
        <Select
          label={msg('Scene behind the cutout')}
          className="w-44"
          value={scene.id}
          onChange={onScene}
          options={scenes.map((s) => ({ value: s.id, title: s.title }))}
        />
      )}
      <Segmented<Sight>
        label={msg('Seen as')}
        value={sight}
        onChange={onSight}
        options={SIGHTS.map((s) => ({ value: s.id, title: s.title }))}
      />
    </div>
  );
}
