import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { reducedUrl } from '../../api/client';
import { msg } from '../../language/language';
import { Button } from '../../ui/controls';
import { say } from '../../ui/notices';
import { shadeSeen } from '../../workers/surveying';
import { LookButton } from './look-button';

type Point = [number, number];

/** Outlines that a survey has several of. */
export type OutlineKind = 'things' | 'shades';

/** The outline that is being drawn. */
export interface ChosenOutline {
  kind: OutlineKind;
  n: number;
}

/** What an outline is called. */
export const outlineName = ({ kind, n }: ChosenOutline): string =>
  kind === 'things' ? msg('thing {n}', { n: n + 1 }) : msg('shade {n}', { n: n + 1 });

interface Props {
  survey: SceneSurvey;
  chosen: ChosenOutline | null;
  onChoose(outline: ChosenOutline | null): void;
  commit(value: Partial<SceneSurvey>): void;
}

/** What shadows meet besides the ground: a wall, things that stand there, and shade that is there already. */
export function ShadowsSection({ picture, ...props }: Props & { picture: string }) {
  const { survey, commit } = props;
  return (
    <div className="grid gap-3">
      <Wall survey={survey} commit={commit} />
      <Outlines
        {...props}
        kind="things"
        title={msg('Things')}
        about={msg('What stands in the scene takes the shadows that fall on it. Draw around it.')}
        add={msg('Add a thing')}
      />
      <Outlines
        {...props}
        kind="shades"
        title={msg('Shade')}
        about={msg(
          'Where the ground lies in shade, shadows darken nothing twice, and what stands there is shaded.',
        )}
        add={msg('Add a shade')}
      >
        <FindShade {...props} picture={picture} />
      </Outlines>
    </div>
  );
}

function Wall({ survey: { wall, width, height }, commit }: Pick<Props, 'survey' | 'commit'>) {
  return (
    <div role="group" aria-label={msg('Wall')} className="grid gap-2">
      <p className="text-ink-2 text-[12px]">
        {wall
          ? msg('Shadows bend up the wall at this line. Drag its ends to where the wall meets the ground.')
          : msg('Shadows bend up a wall behind the products where its foot is drawn.')}
      </p>
      {wall ? (
        <Button onClick={() => commit({ wall: null })}>{msg('Remove the wall')}</Button>
      ) : (
        <Button
          onClick={() =>
            commit({
              wall: [
                [width * 0.15, height * 0.6],
                [width * 0.85, height * 0.6],
              ],
            })
          }
        >
          {msg('Draw the foot of the wall')}
        </Button>
      )}
    </div>
  );
}

function Outlines({
  survey,
  chosen,
  onChoose,
  commit,
  kind,
  title,
  about,
  add,
  children,
}: Props & { kind: OutlineKind; title: string; about: string; add: string; children?: React.ReactNode }) {
  const list = survey[kind] ?? [];
  return (
    <div role="group" aria-label={title} className="border-line grid gap-2 border-t pt-2">
      <p className="text-ink-2 text-[12px]">{about}</p>
      {list.length > 0 && (
        <ul className="grid gap-1">
          {list.map((_, n) => (
            <li key={n} className="flex items-center gap-2">
              <button
                type="button"
                aria-pressed={chosen?.kind === kind && chosen.n === n}
                onClick={() => onChoose({ kind, n })}
                className="border-line aria-pressed:border-spruce grow rounded-md border px-2 py-1 text-left first-letter:uppercase"
              >
                {outlineName({ kind, n })}
              </button>
              <Button
                tone="quiet"
                aria-label={msg('Remove {what}', { what: outlineName({ kind, n }) })}
                onClick={() => {
                  commit({ [kind]: list.toSpliced(n, 1) });
                  onChoose(null);
                }}
              >
                {msg('Remove')}
              </Button>
            </li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap gap-2">
        <Button
          disabled={list.length >= MOST}
          onClick={() => {
            commit({ [kind]: [...list, firstOutline(survey)] });
            onChoose({ kind, n: list.length });
          }}
        >
          {add}
        </Button>
        {children}
      </div>
    </div>
  );
}

/** Outlines of a kind that a survey takes. */
const MOST = 40;

/** Looks for shade on the ground; what is found is added, and drawn better by hand. */
function FindShade({ picture, survey, onChoose, commit }: Props & { picture: string }) {
  return (
    <LookButton
      title={msg('Find shade in the picture')}
      meanwhile={msg('Looking for shade')}
      onLook={async () => {
        const found = await shadeSeen(reducedUrl(picture, 2048), survey);
        if (!found.length)
          return say('look', msg('No shade is seen on the ground. Where there is some, draw it by hand.'));
        commit({ shades: [...(survey.shades ?? []), ...found].slice(0, MOST) });
        onChoose(null);
      }}
    />
  );
}

/** A small square on the ground. */
function firstOutline({ width: w, height: h }: SceneSurvey): Point[] {
  return [
    [w * 0.42, h * 0.66],
    [w * 0.58, h * 0.66],
    [w * 0.58, h * 0.8],
    [w * 0.42, h * 0.8],
  ];
}
