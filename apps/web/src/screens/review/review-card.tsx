import { Link } from 'react-router';
import { reducedUrl, type Photo } from '../../api/client';
import { Button, buttonClass } from '../../ui/controls';
import { StatusMark } from '../../ui/status';
import { reviewState } from './review-state';
import { msg } from '../../language/language';

/** A cutout with the places in doubt, how sure it is, and the two ways on. */
export function ReviewCard({
  photo,
  ground,
  onAccept,
}: {
  photo: Photo;
  ground: string;
  onAccept(accepted: boolean): void;
}) {
  const { mark, words } = reviewState(photo);
  return (
    <div className="border-line bg-card h-full overflow-hidden rounded-lg border">
      <Link
        to={`/photos/${photo.id}/cutout`}
        aria-label={msg('Open {photo} on the cutout desk', { photo: photo.name })}
        className="relative block aspect-[4/3] p-3 focus-visible:outline-offset-[-2px]"
        style={{ background: ground }}
      >
        <img
          src={reducedUrl(photo.cutout?.picture ?? photo.working, 320)}
          alt=""
          loading="lazy"
          className="h-full w-full object-contain"
        />
        {photo.cutout && !photo.accepted && <Doubts cutout={photo.cutout} />}
      </Link>
      <div className="border-line grid gap-1.5 border-t px-3 py-2">
        <p className="flex items-center justify-between gap-2">
          <span className="truncate font-medium" title={photo.name}>
            {photo.name}
          </span>
          {photo.inUse === false && (
            <span className="text-amber-ink text-[12px]">{msg('not in use yet')}</span>
          )}
        </p>
        <p className="text-ink-2 flex items-center gap-1.5 text-[12px]">
          <StatusMark size={9} mark={mark} />
          <span className="truncate" title={photo.cutoutError ?? ''}>
            {words}
          </span>
        </p>
        <div className="flex justify-between">
          <Link to={`/photos/${photo.id}/cutout`} className={buttonClass()}>
            {msg('Open the desk')}
          </Link>
          <Button disabled={!photo.cutout} onClick={() => onAccept(!photo.accepted)}>
            {photo.accepted ? msg('Look again') : msg('Accept')}
          </Button>
        </div>
      </div>
    </div>
  );
}

/** Rings on a cutout's picture where its edge is in doubt. */
function Doubts({ cutout }: { cutout: NonNullable<Photo['cutout']> }) {
  const { bounds, doubts } = cutout;
  if (!doubts?.length) return null;
  return (
    <svg
      aria-hidden
      viewBox={`${bounds.x} ${bounds.y} ${bounds.width} ${bounds.height}`}
      className="pointer-events-none absolute inset-3 h-[calc(100%-1.5rem)] w-[calc(100%-1.5rem)] overflow-visible"
    >
      {doubts.map((d) => {
        const r = Math.max(d.radius, Math.max(bounds.width, bounds.height) * 0.03);
        return (
          <circle
            key={`${d.x}-${d.y}`}
            cx={d.x}
            cy={d.y}
            r={r}
            fill="none"
            stroke="var(--color-amber)"
            strokeWidth="3"
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
    </svg>
  );
}
