import { Link } from 'react-router';
import { sceneCamera } from '@scenograph/core/stage/survey';
import { reducedUrl, type Scene } from '../../api/client';

/** Scenes or mockups as cards, each to its survey. */
export function Shelf({ scenes }: { scenes: Scene[] }) {
  return (
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-3.5">
      {scenes.map((s) => (
        <li key={s.id} className="border-line bg-card overflow-hidden rounded-lg border">
          <Link to={`/library/scenes/${s.id}`} aria-label={`Survey of ${s.title}`}>
            <img
              src={reducedUrl(s.survey.mended ?? s.picture, 640)}
              alt=""
              className="aspect-[4/3] w-full object-cover"
              loading="lazy"
            />
          </Link>
          <div className="border-line border-t px-3 py-2">
            <p className="flex justify-between font-semibold">
              {s.title} {s.season && <span className="text-ink-2 font-normal">{s.season}</span>}
            </p>
            <p className="measure text-ink-2">
              {s.survey.width} x {s.survey.height} px, {about(s)}
            </p>
            <p className="measure text-ink-2">
              light {Math.round(s.survey.light.azimuthDeg)}°, {Math.round(s.survey.light.elevationDeg)}° up
            </p>
            <div className="mt-1.5 flex gap-1" aria-label="Palette">
              {s.palette.map((c) => (
                <span key={c} title={c} className="h-3.5 w-6" style={{ background: c }} />
              ))}
            </div>
          </div>
        </li>
      ))}
    </ul>
  );
}

function about({ survey }: Scene): string {
  const { areas, spots } = survey;
  if (areas.length) return `${areas.length} print ${areas.length === 1 ? 'area' : 'areas'}`;
  return sceneCamera(survey) ? `${spots.length} placement points` : 'not surveyed yet';
}
