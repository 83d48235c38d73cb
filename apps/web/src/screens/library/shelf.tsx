import { Link } from 'react-router';
import { sceneCamera } from '@scenograph/core/stage/survey';
import { reducedUrl, type Scene } from '../../api/client';
import { msg } from '../../language/language';

/** Scenes or mockups as cards, each to its survey. */
export function Shelf({ scenes }: { scenes: Scene[] }) {
  return (
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-3.5">
      {scenes.map((s) => (
        <li key={s.id} className="border-line bg-card overflow-hidden rounded-lg border">
          <Link to={`/library/scenes/${s.id}`} aria-label={msg('Survey of {s}', { s: s.title })}>
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
              {msg('{width} x {height} px, {about}', {
                width: s.survey.width,
                height: s.survey.height,
                about: about(s),
              })}
            </p>
            <p className="measure text-ink-2">
              {msg('light {azimuthDeg}°, {elevationDeg}° up', {
                azimuthDeg: Math.round(s.survey.light.azimuthDeg),
                elevationDeg: Math.round(s.survey.light.elevationDeg),
              })}
            </p>
            <div className="mt-1.5 flex gap-1" aria-label={msg('Palette')}>
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
  if (areas.length)
    return msg('{areas} print {areas, plural, one {area} other {areas}}', { areas: areas.length });
  return sceneCamera(survey)
    ? msg('{spots, plural, one {# placement point} other {# placement points}}', { spots: spots.length })
    : msg('not surveyed yet');
}
