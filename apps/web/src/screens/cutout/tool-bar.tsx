import { ColourField } from '../../ui/colour-field';
import { NumberField, Segmented } from '../../ui/controls';
import { isBrush, TOOLS, type ToolId, type ToolOptions } from './tools';
import type { Gesture } from './desk-traces';

/** The tools under the photo, and over them what the tool in hand can be told. */
export function ToolBar({
  tool,
  options,
  onTool,
  onOptions,
  drafting,
  onClosePath,
  baseDrawn,
  onBaseFound,
}: {
  tool: Gesture['tool'];
  options: ToolOptions;
  onTool(tool: ToolId): void;
  onOptions(value: Partial<ToolOptions>): void;
  drafting: number;
  onClosePath(): void;
  baseDrawn: boolean;
  onBaseFound(): void;
}) {
  const known = TOOLS.find((t) => t.id === tool);
  return (
    <>
      {known && known.id !== 'move' && (
        <div className="bg-card absolute bottom-3 left-1/2 flex w-max max-w-[calc(100%-7.5rem)] -translate-x-1/2 flex-wrap items-center gap-x-3 gap-y-1 rounded-md px-3 py-1.5 shadow-[0_2px_10px_rgba(23,27,25,0.16)]">
          <span className="text-ink-2 text-[12px]">{known.about}</span>
          {isBrush(tool) && (
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
          )}
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
          {tool === 'colour' && (
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
          )}
          {tool === 'shape' && (
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
              <div className="w-26">
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
          )}
          {tool === 'repair' && (
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
          )}
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
      )}
      <div
        role="toolbar"
        aria-label="Tools"
        aria-orientation="vertical"
        className="bg-card absolute top-14 left-3 flex max-h-[calc(100%-4.5rem)] w-26 flex-col gap-px overflow-y-auto rounded-md p-1 shadow-[0_2px_10px_rgba(23,27,25,0.16)]"
      >
        {TOOLS.map((t) => (
          <button
            key={t.id}
            type="button"
            aria-pressed={tool === t.id}
            title={`${t.about} (${t.key.toUpperCase()})`}
            onClick={() => onTool(t.id)}
            className={`flex h-8 shrink-0 items-center justify-between rounded-sm px-2 text-left text-[12px] whitespace-nowrap ${tool === t.id ? 'bg-ink text-white' : 'text-ink-2 hover:bg-paper hover:text-ink'}`}
          >
            {t.title}
            <kbd aria-hidden className="measure text-[10px]">
              {t.key.toUpperCase()}
            </kbd>
          </button>
        ))}
      </div>
    </>
  );
}
