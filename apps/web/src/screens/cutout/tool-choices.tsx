import { ColourField } from '../../ui/colour-field';
import { NumberField, Segmented } from '../../ui/controls';
import type { Gesture } from './desk-traces';
import { isBrush, TOOLS, type BrushId, type ToolOptions } from './tools';
import { msg } from '../../language/language';

interface Choices {
  options: ToolOptions;
  onOptions(value: Partial<ToolOptions>): void;
}

/** What the tool in hand does, and what it can be told. */
export function ToolChoices({
  tool,
  options,
  onOptions,
  drafting,
  onClosePath,
  baseDrawn,
  onBaseFound,
}: Choices & {
  tool: Gesture['tool'];
  /** Points of the path that is being drawn. */
  drafting: number;
  onClosePath(): void;
  baseDrawn: boolean;
  onBaseFound(): void;
}) {
  const known = TOOLS.find((t) => t.id === tool);
  if (!known || known.id === 'move') return null;
  const mine = { options, onOptions };
  return (
    <div className="bg-card absolute bottom-3 left-1/2 flex w-max max-w-[calc(100%-7.5rem)] -translate-x-1/2 flex-wrap items-center gap-x-3 gap-y-1 rounded-md px-3 py-1.5 shadow-[0_2px_10px_rgba(23,27,25,0.16)]">
      <span className="text-ink-2 text-[12px]">{known.about}</span>
      {isBrush(tool) && <BrushChoices tool={tool} {...mine} />}
      {tool === 'colour' && <ColourChoices {...mine} />}
      {tool === 'shape' && <ShapeChoices {...mine} />}
      {tool === 'repair' && <RepairChoices {...mine} />}
      {(tool === 'colour' || tool === 'shape' || tool === 'trace' || tool === 'pen') && (
        <Segmented
          label={msg('What it does')}
          value={options.mode}
          onChange={(mode) => onOptions({ mode })}
          options={[
            { value: 'auto', title: msg('By place') },
            { value: 'add', title: msg('Add') },
            { value: 'take', title: msg('Subtract') },
            { value: 'overlap', title: msg('Overlap') },
          ]}
        />
      )}
      {tool === 'base' && baseDrawn && (
        <button type="button" className="text-spruce underline" onClick={onBaseFound}>
          {msg('Back to the base as found')}
        </button>
      )}
      {drafting > 2 && (
        <button type="button" className="text-spruce underline" onClick={onClosePath}>
          {msg('Close the path')}
        </button>
      )}
    </div>
  );
}

function BrushChoices({ tool, options, onOptions }: Choices & { tool: BrushId }) {
  return (
    <>
      <div className="w-32">
        <NumberField
          label={msg('Width')}
          unit="px"
          min={1}
          max={2000}
          value={options.radii[tool] * 2}
          onCommit={(v) => onOptions({ radii: { ...options.radii, [tool]: v / 2 } })}
        />
      </div>
      {(tool === 'paint-keep' || tool === 'paint-drop') && (
        <div className="w-34">
          <NumberField
            label={msg('Softness')}
            unit="%"
            min={0}
            max={100}
            value={options.softness * 100}
            onCommit={(v) => onOptions({ softness: v / 100 })}
          />
        </div>
      )}
    </>
  );
}

function ColourChoices({ options, onOptions }: Choices) {
  return (
    <>
      <div className="w-36">
        <NumberField
          label={msg('Tolerance')}
          unit="ΔE"
          min={0}
          max={100}
          value={options.tolerance}
          onCommit={(tolerance) => onOptions({ tolerance })}
        />
      </div>
      <Segmented
        label={msg('How far it reaches')}
        value={options.reach}
        onChange={(reach) => onOptions({ reach })}
        options={[
          { value: 'touching', title: msg('Touching') },
          { value: 'anywhere', title: msg('Anywhere') },
        ]}
      />
    </>
  );
}

function ShapeChoices({ options, onOptions }: Choices) {
  return (
    <>
      <Segmented
        label={msg('Shape')}
        value={options.shape}
        onChange={(shape) => onOptions({ shape })}
        options={[
          { value: 'rectangle', title: msg('Rectangle') },
          { value: 'ellipse', title: msg('Ellipse') },
          { value: 'freehand', title: msg('Freehand') },
          { value: 'polygon', title: msg('Polygon') },
        ]}
      />
      <div className="w-32">
        <NumberField
          label={msg('Snap')}
          unit="px"
          min={0}
          max={400}
          value={options.snap}
          onCommit={(snap) => onOptions({ snap })}
        />
      </div>
      {options.snap === 0 && (
        <span className="bg-ink rounded-sm px-1.5 py-0.5 text-[11px] whitespace-nowrap text-white">
          {msg('Snap off: cut as drawn')}
        </span>
      )}
    </>
  );
}

function RepairChoices({ options, onOptions }: Choices) {
  return (
    <>
      <Segmented
        label={msg('Piece')}
        value={options.piece}
        onChange={(piece) => onOptions({ piece })}
        options={[
          { value: 'ellipse', title: msg('Ellipse') },
          { value: 'rounded', title: msg('Rounded') },
          { value: 'path', title: msg('Free path') },
        ]}
      />
      <Segmented
        label={msg('Fill')}
        value={options.fill === null ? 'under' : 'own'}
        onChange={(v) => onOptions({ fill: v === 'under' ? null : '#b98d5a' })}
        options={[
          { value: 'under', title: msg('Colour under it') },
          { value: 'own', title: msg('One colour') },
        ]}
      />
      {options.fill !== null && (
        <div className="w-38">
          <ColourField
            label={msg('Fill')}
            value={options.fill}
            onChange={(fill) => onOptions({ fill })}
            onCommit={(fill) => onOptions({ fill })}
          />
        </div>
      )}
    </>
  );
}
