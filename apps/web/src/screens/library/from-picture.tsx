import { useEffect, useRef, useState } from 'react';
import { writeLength } from '@scenograph/core/data/length';
import { bulged } from '@scenograph/core/stage/estimate-areas';
import type { Bulge } from '@scenograph/core/stage/estimate-bulge';
import { surveyView, type SceneSurvey } from '@scenograph/core/stage/survey';
import { edgeBetween, type AreaEdges, type PrintArea } from '@scenograph/core/surface/area';
import { reducedUrl } from '../../api/client';
import { msg } from '../../language/language';
import { Button } from '../../ui/controls';
import { useLengthUnit } from '../../ui/length-field';
import { say } from '../../ui/notices';
import { bulgeSeen, edgesSeen } from '../../workers/surveying';

/** How far beside an area's edges the picture is looked at, in shares of its longer side. */
const REACH = 0.015;

/** What the picture itself tells of a curved area: where its edges run, and how far it bulges. */
export function FromPicture({
  picture,
  area,
  survey,
  set,
}: {
  picture: string;
  area: PrintArea;
  survey: SceneSurvey;
  set(change: Partial<PrintArea>): void;
}) {
  const [bulge, setBulge] = useState<Bulge | 'none' | null>(null);
  const [busy, setBusy] = useState(false);
  // An answer for an area that was changed, or left, meanwhile is of no use.
  const asked = useRef(area);
  useEffect(() => {
    asked.current = area;
  }, [area]);
  const url = reducedUrl(picture, 2048);
  const look = async <T,>(answer: Promise<T>, take: (answer: T) => void) => {
    setBusy(true);
    const before = asked.current;
    try {
      const found = await answer;
      if (asked.current === before) take(found);
    } catch (e) {
      say('stop', (e as Error).message);
    }
    setBusy(false);
  };
  const drawEdges = () =>
    look(edgesSeen(url, area.edges!, survey.width, REACH * Math.max(survey.width, survey.height)), (edges) =>
      set({ edges }),
    );
  // Sides that an estimate bent are its own to change: asked again, it says the same again.
  const own = useRef<Sides | null>(null);
  const estimate = () => {
    const asIs = withoutSides(area, own.current);
    return look(bulgeSeen(url, asIs, survey), (found) => {
      setBulge(found ?? 'none');
      if (!found) return;
      const { bulgeMm, edges } = bulged(asIs, found, surveyView(survey));
      own.current = edges && { left: edges.left, right: edges.right };
      set({ bulgeMm, edges });
    });
  };
  return (
    <>
      <div className="flex flex-wrap gap-2">
        <Button disabled={busy} onClick={() => void drawEdges()}>
          {msg('Draw edges to the picture')}
        </Button>
        {area.shape === 'bulge' && (
          <Button disabled={busy} onClick={() => void estimate()}>
            {msg('Estimate the bulge')}
          </Button>
        )}
      </div>
      {area.shape === 'bulge' && bulge && <Told bulge={bulge} />}
    </>
  );
}

type Sides = Pick<AreaEdges, 'left' | 'right'>;

/** An area with straight side edges, where they are still those given. */
function withoutSides(area: PrintArea, sides: Sides | null): PrintArea {
  const { edges, corners } = area;
  const same =
    edges && JSON.stringify([edges.left, edges.right]) === JSON.stringify([sides?.left, sides?.right]);
  if (!same) return area;
  const [tl, tr, br, bl] = corners;
  return { ...area, edges: { ...edges, left: edgeBetween(tl, bl), right: edgeBetween(tr, br) } };
}

/** What was found, and how sure it is. */
function Told({ bulge }: { bulge: Bulge | 'none' }) {
  const { unit } = useLengthUnit();
  const mm = (value: number) => writeLength(value, unit, 1);
  return (
    <p role="status" className="text-ink-2 text-[12px]">
      {bulge === 'none'
        ? msg(
            'The picture shows no shading that tells of a bulge. Bend the edges by hand and set how far the middle stands out.',
          )
        : msg(
            'The shading fits {found} best, and {from} to {to} nearly as well. Compare the mesh with the item.',
            {
              found: mm(bulge.bulgeMm),
              from: mm(bulge.fromMm),
              to: mm(bulge.toMm),
            },
          )}
    </p>
  );
}
