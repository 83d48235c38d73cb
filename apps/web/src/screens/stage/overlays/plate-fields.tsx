import type { ShotElement } from '@scenograph/core/elements/index';
import type { Plate } from '@scenograph/core/elements/text/model';
import { Switch } from '../../../ui/controls';
import { Amount, BrandColour, patchAt, Share, type Field } from './fields';
import { msg } from '../../../language/language';

/** A filled panel behind words, of text and callouts. */
export function PlateFields({
  element,
  size,
  during,
  commit,
}: Omit<Field, 'path'> & { element: ShotElement & { plate: Plate | null }; size: number }) {
  const field = { element, during, commit };
  const begin: Plate = {
    colour: '#f7f7f6',
    opacity: 0.88,
    padding: Math.round(size * 0.25),
    radius: Math.round(size * 0.1),
  };
  return (
    <>
      <Switch
        label={msg('Panel behind the words')}
        on={!!element.plate}
        onChange={(on) =>
          commit(on ? msg('Add panel') : msg('Remove panel'), patchAt(element, 'plate', on ? begin : null))
        }
      />
      {element.plate && (
        <>
          <BrandColour {...field} label={msg('Panel colour')} path="plate.colour" />
          <Share {...field} label={msg('Opacity')} path="plate.opacity" />
          <div className="grid grid-cols-2 gap-2">
            <Amount {...field} label={msg('Padding')} path="plate.padding" />
            <Amount {...field} label={msg('Radius')} path="plate.radius" />
          </div>
        </>
      )}
    </>
  );
}
