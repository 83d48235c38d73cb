import type { ProductElement } from '@scenograph/core/elements/product/definition';
import { Segmented, Slider, Switch } from '../../../ui/controls';
import { LightDome } from '../light-dome';
import type { KindDeskProps } from './desk-props';

/** How a product stands; part of "Place". */
export function ProductPlaceDesk({ element, commit }: KindDeskProps<ProductElement>) {
  return (
    <div className="mt-2.5 grid gap-1">
      <Segmented
        label="How it sits"
        value={element.pose}
        onChange={(pose) => commit(pose === 'flat' ? 'Lay flat' : 'Stand', { pose })}
        options={[
          { value: 'stand', title: 'Stands' },
          { value: 'flat', title: 'Lies flat' },
        ]}
      />
      <Switch
        label="Every variant takes this place"
        on={element.followsVariant}
        onChange={(followsVariant) => commit('Follow the variant', { followsVariant })}
      />
    </div>
  );
}

/** The shadow and the light it falls by. */
export function ProductLightDesk({ element, during, commit }: KindDeskProps<ProductElement>) {
  const { shadow } = element;
  return (
    <div>
      <LightDome
        light={shadow.light}
        onChange={(light) => during({ shadow: { ...shadow, light } })}
        onCommit={(light) => commit('Move the light', { shadow: { ...shadow, light } })}
      />
      <Slider
        label="Shadow"
        unit="%"
        value={Math.round(shadow.strength * 100)}
        onChange={(v) => during({ shadow: { ...shadow, strength: v / 100 } })}
        onCommit={(v) => commit('Shadow strength', { shadow: { ...shadow, strength: v / 100 } })}
      />
      <Slider
        label="Contact"
        unit="%"
        value={Math.round(shadow.contact * 100)}
        onChange={(v) => during({ shadow: { ...shadow, contact: v / 100 } })}
        onCommit={(v) => commit('Contact shadow', { shadow: { ...shadow, contact: v / 100 } })}
      />
    </div>
  );
}
