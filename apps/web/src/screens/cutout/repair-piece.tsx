import type { RepairPiece } from '@scenograph/core/cutout/recipe';
import { ColourField } from '../../ui/colour-field';
import { Button, NumberField, Segmented } from '../../ui/controls';
import { msg } from '../../language/language';

/** A piece drawn over the product or behind it: its colour, place, softness and outline. */
export function RepairPieceFields({
  n,
  piece,
  onDuring,
  onChange,
  onRemove,
}: {
  n: number;
  piece: RepairPiece;
  /** While a colour is dragged. */
  onDuring(value: Partial<RepairPiece>): void;
  onChange(value: Partial<RepairPiece>): void;
  onRemove(): void;
}) {
  return (
    <div className="border-line mt-2 grid gap-2 border-t pt-2">
      <div className="flex items-center justify-between">
        <span className="font-medium">{msg('Piece {n}, {shape}', { n, shape: piece.shape })}</span>
        <Button tone="quiet" onClick={onRemove}>
          {msg('Remove')}
        </Button>
      </div>
      <ColourField
        label={msg('Fill')}
        value={piece.fill ?? '#ffffff'}
        onChange={(fill) => onDuring({ fill })}
        onCommit={(fill) => onChange({ fill })}
      />
      <Segmented
        label={msg('Where it lies')}
        value={piece.place}
        onChange={(place) => onChange({ place })}
        options={[
          { value: 'front', title: msg('In front') },
          { value: 'behind', title: msg('Behind') },
        ]}
      />
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label={msg('Softness')}
          unit="px"
          min={0}
          max={400}
          value={piece.softness}
          onCommit={(softness) => onChange({ softness })}
        />
        <NumberField
          label={msg('Outline')}
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
          label={msg('Outline')}
          value={piece.outline.colour}
          onChange={(colour) => onDuring({ outline: { ...piece.outline!, colour } })}
          onCommit={(colour) => onChange({ outline: { ...piece.outline!, colour } })}
        />
      )}
      {piece.shape === 'rounded' && (
        <NumberField
          label={msg('Corner')}
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
