import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import type { MockupElement } from './editing';
import { PrintHandles } from './print-handles';
import { FrameLayer, ShadeLayer } from './stroke-layer';
import { useMockupTools } from './tools';
import { msg } from '../../../language/language';

/** What lies over a mockup on the stage: handles of its designs, or the tool in hand. */
export function MockupLayer({
  element,
  frame,
  zoom,
  during,
  commit,
}: {
  element: MockupElement;
  frame: { width: number; height: number };
  zoom: number;
  during(value: Partial<BackdropElement>): void;
  commit(label: string, value: Partial<BackdropElement>): void;
}) {
  const { tool, take } = useMockupTools();
  if (tool === 'shade')
    return <ShadeLayer element={element} frame={frame} zoom={zoom} during={during} commit={commit} />;
  if (tool === 'frame')
    return (
      <FrameLayer
        element={element}
        frame={frame}
        zoom={zoom}
        onFrame={(value) => {
          commit(msg('Frame it closer'), value);
          take('place');
        }}
      />
    );
  return <PrintHandles element={element} zoom={zoom} during={during} commit={commit} />;
}
