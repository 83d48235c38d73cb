import { useMemo, type ReactNode } from 'react';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { fillTemplate } from '@scenograph/core/templates/fill';
import type { ListedTemplate } from '../../api/brand';
import type { Variant } from '../../api/client';
import { useThumbnail } from '../listings/cell-picture';
import { useInView } from '../listings/use-in-view';

/** A template with a product in it, painted live. */
export function TemplateCard({
  template,
  variant,
  side = 230,
  children,
}: {
  template: ListedTemplate;
  variant: Variant | null;
  side?: number;
  children: ReactNode;
}) {
  const { ref, inView } = useInView<HTMLLIElement>();
  const resolved = useMemo(() => {
    if (!variant) return resolveBase(template.document, null);
    return resolveBase(fillTemplate(template.document, variant.data, variant.pose), variant.data);
  }, [template, variant]);
  const { canvas, size } = useThumbnail(resolved, side, side, inView);
  return (
    <li ref={ref} className="border-line bg-card overflow-hidden rounded-lg border">
      <div className="flex items-center justify-center bg-[#e4e5e2]" style={{ height: side }}>
        <canvas ref={canvas} style={size} role="img" aria-label={template.title} />
      </div>
      <div className="border-line border-t px-3 py-2">{children}</div>
    </li>
  );
}
