import { NumberField, Segmented, ColourField } from '../../ui/controls';
import { TOOLS, type ToolId, type ToolOptions } from './tools';
import type { Gesture } from './desk-view';

/** The tools under the photo, and over them what the tool in hand can be told. */
export function ToolBar({
  tool,
  options,
  onTool,
  onOptions,
  drafting,
  onClosePath,
}: {
  tool: Gesture['tool'];
  options: ToolOptions;
  onTool(tool: ToolId): void;
  onOptions(value: Partial<ToolOptions>): void;
  drafting: number;
  onClosePath(): void;
}) {
  const known = TOOLS.find((t) => t.id === tool);
  return (
    <div className="pointer-events-none absolute inset-x-0 bottom-3 flex flex-col items-center gap-2">
      {known && known.id !== 'move' && (
        <div className="bg-card pointer-events-auto flex items-center gap-3 rounded-md px-3 py-1.5 shadow-[0_2px_10px_rgba(23,27,25,0.16)]">
          <span className="text-ink-2 text-[12px]">{known.about}</span>
          {known.brush && (
            <div className="w-32">
              <NumberField
                label="Width"
                unit="px"
                min={1}
                max={2000}
                value={options.radius * 2}
                onCommit={(v) => onOptions({ radius: v / 2 })}
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
              <div className="w-38">
                <ColourField
                  label="Fill"
                  value={options.fill}
                  onChange={(fill) => onOptions({ fill })}
                  onCommit={(fill) => onOptions({ fill })}
                />
              </div>
            </>
          )}
          {(tool === 'colour' || tool === 'shape' || tool === 'trace') && (
            <Segmented
              label="What it does"
              value={options.mode}
              onChange={(mode) => onOptions({ mode })}
              options={[
                { value: 'add', title: 'Add' },
                { value: 'take', title: 'Take away' },
                { value: 'overlap', title: 'Overlap' },
              ]}
            />
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
        className="bg-card pointer-events-auto flex gap-0.5 rounded-md p-1 shadow-[0_2px_10px_rgba(23,27,25,0.16)]"
      >
        {TOOLS.map((t) => (
          <button
            key={t.id}
            type="button"
            aria-pressed={tool === t.id}
            title={`${t.about} (${t.key.toUpperCase()})`}
            onClick={() => onTool(t.id)}
            className={`h-9 rounded-sm px-2.5 text-[12px] whitespace-nowrap ${tool === t.id ? 'bg-ink text-white' : 'text-ink-2 hover:bg-paper hover:text-ink'}`}
          >
            {t.title}
          </button>
        ))}
      </div>
    </div>
  );
}
