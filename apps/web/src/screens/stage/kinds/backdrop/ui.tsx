import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import { reducedUrl } from '../../../../api/client';
import { isMockup } from '../../mockup/editing';
import type { KindUi } from '../kind-ui';
import { BackdropDesk } from './desk';
import { GradientHandles } from './gradient-handles';
import { BackdropInside } from './inside';
import { MockupDesk } from './mockup-desk';

export const backdropUi: KindUi<BackdropElement> = {
  Place: (props) => (
    <div className="mt-2.5">
      {isMockup(props.element) && <MockupDesk {...props} element={props.element} />}
      <BackdropDesk {...props} />
    </div>
  ),
  Handles: GradientHandles,
  Inside: BackdropInside,
  resize: 'corners',
  slat({ fill }) {
    if (fill.type === 'scene')
      return <img src={reducedUrl(fill.picture, 160)} alt="" className="h-full w-full object-cover" />;
    if (fill.type === 'transparent') return <span className="clear-ground h-full w-full" />;
    const stops = fill.type === 'gradient' ? fill.stops.map((s) => s.colour) : [fill.colour, fill.colour];
    return (
      <span className="h-full w-full" style={{ background: `linear-gradient(90deg, ${stops.join(', ')})` }} />
    );
  },
};
