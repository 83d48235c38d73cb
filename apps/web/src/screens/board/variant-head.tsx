import { reducedUrl, type Variant } from '../../api/client';
import { ROW, type Modifiers } from './board-cell';
import { msg } from '../../language/language';

export const NAMES = 208;

/** The head of a row: the variant's cutout, its name and its SKU; chooses the whole row. */
export function VariantHead({
  variant: { data },
  row,
  onChoose,
}: {
  variant: Variant;
  row: number;
  onChoose(row: number, e: Modifiers): void;
}) {
  const name = data.variant || data.title;
  return (
    <div
      role="rowheader"
      className="bg-card border-line sticky left-0 z-10 border-r border-b"
      style={{ width: NAMES, height: ROW }}
    >
      <button
        type="button"
        className="hover:bg-spruce-tint flex h-full w-full items-center gap-2.5 px-2.5 text-left focus-visible:outline-offset-[-2px]"
        aria-label={msg('Choose all cells of {name}', { name })}
        onClick={(e) => onChoose(row, e)}
      >
        <span className="border-line flex h-11 w-11 shrink-0 items-center justify-center border bg-white p-0.5">
          {data.cutout && (
            <img src={reducedUrl(data.cutout.picture, 160)} alt="" className="max-h-full max-w-full" />
          )}
        </span>
        <span className="min-w-0">
          <span className="block truncate text-[13px] font-semibold">{name}</span>
          <span className="measure text-ink-2 block truncate">{data.sku}</span>
        </span>
      </button>
    </div>
  );
}
