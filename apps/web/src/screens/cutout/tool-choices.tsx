import { ColourField } from '../../ui/colour-field';
import { NumberField, Segmented } from '../../ui/controls';
import type { Gesture } from './desk-traces';
import { isBrush, TOOLS, type BrushId, type ToolOptions } from './tools';

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
          label="What it does"
          value={options.mode}
          onChange={(mode) => onOptions({ mode })}
          options={[
            { value: 'auto', title: 'By place' },
            { value: 'add', title: 'Add' },
            { value: 'take', title: 'Subtract' },
            { value: 'overlap', title: 'Overlap' },
          ]}
        />
      )}
      {tool === 'base' && baseDrawn && (
        <button type="button" className="text-spruce underline" onClick={onBaseFound}>
          Back to the base as found
        </button>
      )}
      {drafting > 2 && (
        <button type="button" className="text-spruce underline" onClick={onClosePath}>
          Close the path
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
          label="Width"
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
            label="Softness"
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
          label="Tolerance"
          unit="ΔE"
          min={0}
          max={100}
          value={options.tolerance}
          onCommit={(tolerance) => onOptions({ tolerance })}
        />
      </div>
      <Segmented
        label="How far it reaches"
        value={options.reach}
        onChange={(reach) => onOptions({ reach })}
        options={[
          { value: 'touching', title: 'Touching' },
          { value: 'anywhere', title: 'Anywhere' },
        ]}
      />
    </>
  );
}

function ShapeChoices({ options, onOptions }: Choices) {
  return (
    <>
      <Segmented
        label="Shape"
        value={options.shape}
        onChange={(shape) => onOptions({ shape })}
        options={[
          { value: 'rectangle', title: 'Rectangle' },
          { value: 'ellipse', title: 'Ellipse' },
          { value: 'freehand', title: 'Freehand' },
          { value: 'polygon', title: 'Polygon' },
        ]}
      />
      <div className="w-32">
        <NumberField
          label="Snap"
          unit="px"
          min={0}
          max={400}
          value={options.snap}
          onCommit={(snap) => onOptions({ snap })}
        />
      </div>
      {options.snap === 0 && (
        <span className="bg-ink rounded-sm px-1.5 py-0.5 text-[11px] whitespace-nowrap text-white">
          Snap off: cut as drawn
        </span>
      )}
    </>
  );
}

function RepairChoices({ options, onOptions }: Choices) {
  return (
    <>
      <Segmented
        label="Piece"
        value={options.piece}
        onChange={(piece) => onOptions({ piece })}
        options={[
          { value: 'ellipse', title: 'Ellipse' },
          { value: 'rounded', title: 'Rounded' },
          { value: 'path', title: 'Free path' },
        ]}
      />
      <Segmented
        label="Fill"
        value={options.fill === null ? 'under' : 'own'}
        onChange={(v) => onOptions({ fill: v === 'under' ? null : '#b98d5a' })}
        options={[
          { value: 'under', title: 'Colour under it' },
          { value: 'own', title: 'One colour' },
        ]}
      />
      {options.fill !== null && (
        <div className="w-38">
          <ColourField
            label="Fill"
            value={options.fill}
            onChange={(fill) => onOptions({ fill })}
            onCommit={(fill) => onOptions({ fill })}
          />
        </div>
      )}
    </>
  );
}
