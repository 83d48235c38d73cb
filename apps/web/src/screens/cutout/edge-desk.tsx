import type { Fringe } from '@scenograph/core/cutout/fringe';
import type { CutoutRecipe, RepairPiece } from '@scenograph/core/cutout/recipe';
import { ColourField } from '../../ui/colour-field';
import { Button, NumberField, Segmented, Slider, Switch } from '../../ui/controls';
import { EdgeProfilePlot } from './edge-profile';

type During = (change: (recipe: CutoutRecipe) => CutoutRecipe) => void;
type Edit = (label: string, change: (recipe: CutoutRecipe) => CutoutRecipe) => void;

/** Edge, fringe, what the automatic cutout may take for backdrop, the camera's own shadow, repair pieces. */
export function EdgeDesk({
  recipe,
  fringe,
  during,
  finish,
  onShowWorst,
}: {
  recipe: CutoutRecipe;
  fringe: Fringe | null;
  during: During;
  finish: Edit;
  onShowWorst(at: { x: number; y: number }): void;
}) {
  const most = fringe ? Math.max(6, ...fringe.around) : 6;
  const spill = (v: number) => (r: CutoutRecipe) => ({ ...r, edge: { ...r.edge, spill: v / 100 } });
  const automatic = (label: string, value: Partial<CutoutRecipe['automatic']>) =>
    finish(label, (r) => ({ ...r, automatic: { ...r.automatic, ...value } }));
  return (
    <>
      <EdgeProfilePlot recipe={recipe} during={during} finish={finish} />
      <section aria-label="Edge halo" className="border-line border-b px-3.5 py-3">
        <h2 className="flex justify-between font-semibold">
          Edge halo
          <span className="measure text-ink-2">
            {fringe
              ? `ΔE ${Math.max(fringe.white.mean, fringe.black.mean).toFixed(1)} mean, ${Math.max(fringe.white.worst, fringe.black.worst).toFixed(1)} worst`
              : 'measuring'}
          </span>
        </h2>
        <svg
          viewBox="0 0 274 44"
          className="mt-2 block h-11 w-full"
          role="img"
          aria-label="Edge halo around the product, from the top clockwise"
        >
          {fringe?.around.map((v, i) => {
            const h = Math.max(1, (v / most) * 44);
            return (
              <rect
                key={i}
                x={i * 4.28}
                y={44 - h}
                width="3.2"
                height={h}
                fill={v > 6 ? 'var(--color-coral)' : 'var(--color-spruce)'}
              />
            );
          })}
        </svg>
        {fringe && (
          <p className="text-ink-2 mt-1 text-[12px]">
            on white{' '}
            <span className="measure">
              {fringe.white.mean.toFixed(1)} / {fringe.white.worst.toFixed(1)}
            </span>
            , on black{' '}
            <span className="measure">
              {fringe.black.mean.toFixed(1)} / {fringe.black.worst.toFixed(1)}
            </span>{' '}
            {fringe.worstAt && (
              <button
                type="button"
                className="text-spruce underline"
                onClick={() => onShowWorst(fringe.worstAt!)}
              >
                Show the worst place
              </button>
            )}
          </p>
        )}
        <Slider
          label="Remove colour spill"
          unit="%"
          min={0}
          max={100}
          value={recipe.edge.spill * 100}
          onChange={(v) => during(spill(v))}
          onCommit={(v) => finish('Remove colour spill', spill(v))}
        />
      </section>
      <section aria-label="Automatic cutout" className="border-line border-b px-3.5 py-3">
        <h2 className="font-semibold">Automatic cutout</h2>
        <Switch
          label="Openings inside the product"
          on={recipe.automatic.holes}
          onChange={(holes) => automatic(holes ? 'Keep openings' : 'Fill openings', { holes })}
        />
        <Switch
          label="Soft shadows belong to the background"
          on={recipe.automatic.shadows}
          onChange={(shadows) => automatic('Soft shadows', { shadows })}
        />
        <div className="flex items-center justify-between gap-3 py-1">
          <span>Glass</span>
          <Segmented
            label="Glass, seen through"
            value={String(recipe.automatic.glass)}
            onChange={(v) =>
              automatic(v === 'auto' ? 'Glass found by itself' : v === 'true' ? 'Clear glass' : 'Not glass', {
                glass: v === 'auto' ? 'auto' : v === 'true',
              })
            }
            options={[
              { value: 'auto', title: 'Automatic' },
              { value: 'true', title: 'Glass' },
              { value: 'false', title: 'Solid' },
            ]}
          />
        </div>
        {(recipe.automatic.box || recipe.automatic.at.length > 0) && (
          <div className="flex items-center justify-between gap-3 py-1">
            <span className="text-ink-2">
              {[
                recipe.automatic.box && 'a box',
                recipe.automatic.at.length > 0 &&
                  `${recipe.automatic.at.length} ${recipe.automatic.at.length === 1 ? 'point' : 'points'}`,
              ]
                .filter(Boolean)
                .join(' and ')}{' '}
              drawn
            </span>
            <Button tone="quiet" onClick={() => automatic('Remove box and points', { box: null, at: [] })}>
              Remove
            </Button>
          </div>
        )}
      </section>
      <section aria-label="Camera's own shadow" className="border-line border-b px-3.5 py-3">
        <h2 className="font-semibold">Camera&apos;s own shadow</h2>
        <Switch
          label="Keep it with the cutout"
          on={recipe.ownShadow}
          onChange={(ownShadow) =>
            finish(ownShadow ? 'Keep the own shadow' : 'Leave the own shadow', (r) => ({ ...r, ownShadow }))
          }
        />
        <p className="text-ink-2 text-[12px]">
          From plain paper only. Show or hide it in the Light section of any shot.
        </p>
      </section>
      <section aria-label="Repair pieces" className="px-3.5 py-3">
        <h2 className="flex justify-between font-semibold">
          Repair pieces
          <span className="measure text-ink-2">{recipe.repairs.length || 'none'}</span>
        </h2>
        {recipe.repairs.map((piece, i) => (
          <Piece
            key={piece.id}
            n={i + 1}
            piece={piece}
            onChange={(value) =>
              finish('Change a repair piece', (r) => ({
                ...r,
                repairs: r.repairs.map((p) => (p.id === piece.id ? { ...p, ...value } : p)),
              }))
            }
            onRemove={() =>
              finish('Remove a repair piece', (r) => ({
                ...r,
                repairs: r.repairs.filter((p) => p.id !== piece.id),
              }))
            }
          />
        ))}
        {!recipe.repairs.length && (
          <p className="text-ink-2 text-[12px]">Choose Repair below the photo and draw a piece.</p>
        )}
      </section>
    </>
  );
}

function Piece({
  n,
  piece,
  onChange,
  onRemove,
}: {
  n: number;
  piece: RepairPiece;
  onChange(value: Partial<RepairPiece>): void;
  onRemove(): void;
}) {
  return (
    <div className="border-line mt-2 grid gap-2 border-t pt-2">
      <div className="flex items-center justify-between">
        <span className="font-medium">
          Piece {n}, {piece.shape}
        </span>
        <Button tone="quiet" onClick={onRemove}>
          Remove
        </Button>
      </div>
      <ColourField
        label="Fill"
        value={piece.fill ?? '#ffffff'}
        onChange={(fill) => onChange({ fill })}
        onCommit={(fill) => onChange({ fill })}
      />
      <Segmented
        label="Where it lies"
        value={piece.place}
        onChange={(place) => onChange({ place })}
        options={[
          { value: 'front', title: 'In front' },
          { value: 'behind', title: 'Behind' },
        ]}
      />
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label="Softness"
          unit="px"
          min={0}
          max={400}
          value={piece.softness}
          onCommit={(softness) => onChange({ softness })}
        />
        <NumberField
          label="Outline"
          unit="px"
          min={0}
          max={200}
          value={piece.outline?.width ?? 0}
          onCommit={(width) =>
            onChange({ outline: width > 0 ? { colour: piece.outline?.colour ?? '#171b19', width } : null })
          }
        />
      </div>
      {piece.outline && (
        <ColourField
          label="Outline"
          value={piece.outline.colour}
          onChange={(colour) => onChange({ outline: { ...piece.outline!, colour } })}
          onCommit={(colour) => onChange({ outline: { ...piece.outline!, colour } })}
        />
      )}
      {piece.shape === 'rounded' && (
        <NumberField
          label="Corner"
          unit="px"
          min={0}
          max={4000}
          value={piece.corner}
          onCommit={(corner) => onChange({ corner })}
        />
      )}
    </div>
  );
}
