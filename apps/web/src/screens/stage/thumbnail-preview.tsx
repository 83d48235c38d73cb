import { X } from 'lucide-react';
import { useMemo } from 'react';
import { resolveBase, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { sceneShot, whiteShot } from '@scenograph/core/shot/starters';
import { type Variant, useProducts, useRoute } from '../../api/client';
import { IconButton } from '../../ui/controls';
import { useThumbnail } from '../listings/cell-picture';
import { msg } from '../../language/language';

const SIDE = 168;

/** The picture as a search result shows it: small, among others. */
export function ThumbnailPreview({ resolved, onClose }: { resolved: ResolvedShot; onClose(): void }) {
  const { data: products } = useProducts();
  const { data: scenes } = useRoute('GET /api/scenes');
  const neighbours = useMemo(() => {
    const variants = (products ?? []).flatMap((p) => p.variants.filter((v) => v.data.cutout)).slice(0, 7);
    const grounds = (scenes ?? []).filter((s) => !s.survey.areas.length);
    return variants.map((v, i) => {
      const scene = i % 3 === 1 ? grounds[i % Math.max(1, grounds.length)] : undefined;
      const shot = scene ? sceneShot(v.data, v.pose, scene) : whiteShot(v.data, v.pose);
      return { variant: v, resolved: resolveBase(shot, v.data) };
    });
  }, [products, scenes]);
  const at = 2;
  return (
    <section
      aria-label={msg('As a search-result thumbnail')}
      className="min-h-0 grow overflow-y-auto bg-white p-6"
    >
      <div className="mb-4 flex items-center gap-3">
        <p className="text-ink-2 grow">
          {msg(
            'As one of many in a search result, {side} px wide. What cannot be read here is not read by anyone.',
            { side: SIDE },
          )}
        </p>
        <IconButton label={msg('Back to the stage')} onClick={onClose}>
          <X size={15} aria-hidden />
        </IconButton>
      </div>
      <ul className="flex flex-wrap gap-5">
        {neighbours.slice(0, at).map((n) => (
          <Result key={n.variant.id} resolved={n.resolved} variant={n.variant} />
        ))}
        <Result resolved={resolved} variant={null} />
        {neighbours.slice(at).map((n) => (
          <Result key={n.variant.id} resolved={n.resolved} variant={n.variant} />
        ))}
      </ul>
    </section>
  );
}

function Result({ resolved, variant }: { resolved: ResolvedShot; variant: Variant | null }) {
  const { canvas, size } = useThumbnail(resolved, SIDE, SIDE, true);
  return (
    <li style={{ width: SIDE }}>
      <span className="flex items-center justify-center overflow-hidden" style={{ height: SIDE }}>
        <canvas
          ref={canvas}
          style={size}
          role="img"
          aria-label={variant ? variant.data.title : msg('This picture')}
        />
      </span>
      <p className={`mt-1.5 truncate text-[12.5px] ${variant ? '' : 'font-semibold'}`}>
        {variant ? variant.data.title : msg('This picture')}
      </p>
    </li>
  );
}
