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

/** The shadow, and the light it falls by unless the camera's own is shown. */
export function ProductLightDesk({ element, during, commit }: KindDeskProps<ProductElement>) {
  const { shadow, ownShadow } = element;
  const camera = shadow.source === 'camera' && ownShadow !== null;
  return (
    <div>
      {!camera && (
        <LightDome
          light={shadow.light}
          onChange={(light) => during({ shadow: { ...shadow, light } })}
          onCommit={(light) => commit('Move the light', { shadow: { ...shadow, light } })}
        />
      )}
      <Slider
        label="Shadow"
        unit="%"
        value={Math.round(shadow.strength * 100)}
        onChange={(v) => during({ shadow: { ...shadow, strength: v / 100 } })}
        onCommit={(v) => commit('Shadow strength', { shadow: { ...shadow, strength: v / 100 } })}
      />
      {!camera && (
        <Slider
          label="Contact"
          unit="%"
          value={Math.round(shadow.contact * 100)}
          onChange={(v) => during({ shadow: { ...shadow, contact: v / 100 } })}
          onCommit={(v) => commit('Contact shadow', { shadow: { ...shadow, contact: v / 100 } })}
        />
      )}
      {ownShadow ? (
        <div className="mt-2">
          <Segmented
            label="Where the shadow comes from"
            value={shadow.source}
            onChange={(source) =>
              commit(source === 'camera' ? "Show the camera's own shadow" : 'Shadow by the light', {
                shadow: { ...shadow, source },
              })
            }
            options={[
              { value: 'light', title: 'By the light' },
              { value: 'camera', title: "Camera's own" },
            ]}
          />
        </div>
      ) : (
        <p className="text-ink-2 mt-1 text-[12px]">
          This cutout keeps no shadow of its photo. Turn it on in the cutout desk to show it here.
        </p>
      )}
    </div>
  );
}
