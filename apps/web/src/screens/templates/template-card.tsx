import { useMemo, useState, type ReactNode } from 'react';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { fillTemplate } from '@scenograph/core/templates/fill';
import type { ListedTemplate } from '../../api/client';
import type { Variant } from '../../api/client';
import { useThumbnail } from '../listings/cell-picture';
import { useInView } from '../listings/use-in-view';

/** What a dragged product is carried as. */
export const PRODUCT = 'application/x-scenograph-variant';

/** A template with a product in it, painted live. */
export function TemplateCard({
  template,
  variant,
  side = 230,
  onProduct,
  children,
}: {
  template: ListedTemplate;
  variant: Variant | null;
  side?: number;
  /** A product is dropped on it, by the id of its variant. */
  onProduct?(variant: string): void;
  children: ReactNode;
}) {
  const { ref, inView } = useInView<HTMLLIElement>();
  const [over, setOver] = useState(false);
  const resolved = useMemo(() => {
    if (!variant) return resolveBase(template.document, null);
    return resolveBase(fillTemplate(template.document, variant.data, variant.pose), variant.data);
  }, [template, variant]);
  const { canvas, size } = useThumbnail(resolved, side, side, inView);
  return (
    <li
      ref={ref}
      className={`bg-card overflow-hidden rounded-lg border ${over ? 'border-spruce ring-limelight ring-3' : 'border-line'}`}
      onDragOver={(e) => {
        if (!onProduct || !e.dataTransfer.types.includes(PRODUCT)) return;
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        setOver(false);
        const id = e.dataTransfer.getData(PRODUCT);
        if (!onProduct || !id) return;
        e.preventDefault();
        onProduct(id);
      }}
    >
      <div className="flex items-center justify-center bg-[#e4e5e2]" style={{ height: side }}>
        <canvas ref={canvas} style={size} role="img" aria-label={template.title} />
      </div>
      <div className="border-line border-t px-3 py-2">{children}</div>
    </li>
  );
}
