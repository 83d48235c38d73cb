import type { ProductData } from '@scenograph/core/data/product-data';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import type { ShotWithHistory } from '../../api/client';
import { FaultMarks, SafeZone } from './fault-marks';
import { kindUi } from './kinds/index';
import { MillimetreRule } from './millimetre-rule';
import { isMockup } from './mockup/editing';
import { MockupLayer } from './mockup/mockup-layer';
import { TrimLines } from '../new-picture/trim-lines';
import { OptionsBoard } from './mockup/options-board';
import { useMockupTools } from './mockup/tools';
import type { FedSlot } from './size-strip';
import { SizesBoard } from './sizes-board';
import { StageCanvas } from './stage-canvas';
import { saveNow, useStage } from './store';
import { ThumbnailPreview } from './thumbnail-preview';
import { trueSize } from './true-size';
import type { Editing } from './use-editing';

/** What the middle of the stage shows: the picture, all sizes at once, or a thumbnail among others. */
export type View = 'stage' | 'sizes' | 'thumbnail';

interface MiddleProps {
  stored: ShotWithHistory;
  resolved: ResolvedShot;
  fed: FedSlot[];
  active: FedSlot | null;
  data: ProductData | null;
  known: ReadonlyMap<string, { width: number; height: number }>;
  found: CheckResult[] | null;
  editing: Editing;
  view: View;
  onView(view: View): void;
  showSafe: boolean;
  /** Opens sections of the desk. */
  onOpen(open: string[]): void;
}

/** The picture that is worked on, or one of the views in its place. */
export function Middle(props: MiddleProps) {
  const { stored, resolved, fed, data, known, editing, view, onView, onOpen } = props;
  const { document: shot, selected, showSlot } = useStage();
  const tool = useMockupTools((s) => s.tool);
  const element = resolved.elements.find((e) => e.id === selected) ?? null;
  if (isMockup(element) && tool === 'compare')
    return (
      <OptionsBoard
        shotId={stored.id}
        element={element}
        resolved={resolved}
        commit={editing.patch}
        before={saveNow}
      />
    );
  if (view === 'sizes')
    return (
      <SizesBoard
        shot={shot!}
        data={data}
        slots={fed}
        known={known}
        onOpen={(key) => {
          showSlot(key);
          onView('stage');
          onOpen(['fit', 'checks']);
        }}
        onClose={() => onView('stage')}
      />
    );
  if (view === 'thumbnail') return <ThumbnailPreview resolved={resolved} onClose={() => onView('stage')} />;
  return <Picture {...props} />;
}

/** The picture with what lies over it: rule, handles, marks of what the checks found, the safe zone. */
function Picture({ resolved, active, found, editing, showSafe }: MiddleProps) {
  const { selected, also, inside, gestureBase, select, choose, goInside } = useStage();
  const trim = useStage((s) => s.document?.trim);
  const element = resolved.elements.find((e) => e.id === selected) ?? null;
  const size = element ? trueSize(resolved, element) : null;
  const Inside = element && inside === element.id ? kindUi(element).Inside : null;
  const OwnHandles = element && !Inside && kindUi(element).Handles;
  const during = editing.during;
  const commit = editing.patch;
  return (
    <StageCanvas
      resolved={resolved}
      selected={selected}
      also={also}
      guides={editing.guides}
      draft={gestureBase !== null}
      onSelect={select}
      onChoose={choose}
      onInside={goInside}
      onDrag={editing.drag}
      onTransform={editing.transform}
      overlay={(zoom) => (
        <>
          {size && element && <MillimetreRule element={element} size={size} zoom={zoom} />}
          {isMockup(element) && (
            <MockupLayer element={element} frame={resolved} zoom={zoom} during={during} commit={commit} />
          )}
          <FaultMarks results={found} frame={resolved} zoom={zoom} />
          {active && showSafe && <SafeZone slot={active.slot} zoom={zoom} />}
          {!active && showSafe && trim && <TrimLines frame={resolved} trim={trim} zoom={zoom} />}
          {element && Inside && (
            <Inside
              key={element.id}
              element={element}
              elements={resolved.elements}
              frame={resolved}
              zoom={zoom}
              during={during}
              commit={commit}
              onLeave={() => goInside(null)}
            />
          )}
          {element && OwnHandles && (
            <OwnHandles
              element={element}
              elements={resolved.elements}
              frame={resolved}
              zoom={zoom}
              during={during}
              commit={commit}
            />
          )}
        </>
      )}
    />
  );
}
