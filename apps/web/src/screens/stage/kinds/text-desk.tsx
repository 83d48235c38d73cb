import type { TextElement } from '@scenograph/core/elements/text/definition';
import { FONTS } from '@scenograph/core/type/catalogue';
import {
  Button,
  ColourField,
  NumberField,
  Segmented,
  Select,
  Slider,
  Switch,
  TextField,
} from '../../../ui/controls';
import type { KindDeskProps } from './desk-props';

const PLACEHOLDERS = ['{title}', '{variant}', '{price}', '{sku}', '{size}'];

export function TextDesk({ element, during, commit }: KindDeskProps<TextElement>) {
  return (
    <div className="grid gap-2.5">
      <TextField
        label="Words"
        multiline
        value={element.text}
        onCommit={(text) => commit('Change words', { text })}
      />
      <div className="flex flex-wrap gap-1">
        {PLACEHOLDERS.map((p) => (
          <button
            key={p}
            type="button"
            title={`Add the product's ${p.slice(1, -1)}`}
            className="measure border-line hover:border-spruce rounded-sm border px-1.5 py-0.5"
            onClick={() => commit('Bind to data', { text: element.text ? `${element.text} ${p}` : p })}
          >
            {p}
          </button>
        ))}
      </div>
      <Select
        label="Font"
        value={element.font}
        onChange={(font) => commit('Change font', { font })}
        options={FONTS.map((f) => ({ value: f.id, title: `${f.family}, ${f.style}` }))}
      />
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label="Size"
          unit="px"
          value={element.size}
          min={4}
          max={2000}
          onCommit={(size) => commit('Change size', { size })}
        />
        <NumberField
          label="Leading"
          unit="x"
          value={element.leading}
          min={0.6}
          max={3}
          step={0.05}
          digits={2}
          onCommit={(leading) => commit('Change leading', { leading })}
        />
      </div>
      <Segmented
        label="Alignment"
        value={element.align}
        onChange={(align) => commit('Align text', { align })}
        options={[
          { value: 'left', title: 'Left' },
          { value: 'centre', title: 'Centre' },
          { value: 'right', title: 'Right' },
        ]}
      />
      <ColourField
        label="Colour"
        value={element.colour}
        onChange={(colour) => during({ colour })}
        onCommit={(colour) => commit('Colour text', { colour })}
      />
      <Switch
        label="Panel behind the text"
        on={!!element.plate}
        onChange={(on) =>
          commit(on ? 'Add panel' : 'Remove panel', {
            plate: on
              ? {
                  colour: '#f7f7f6',
                  opacity: 0.88,
                  padding: Math.round(element.size * 0.25),
                  radius: Math.round(element.size * 0.1),
                }
              : null,
          })
        }
      />
      {element.plate && (
        <>
          <ColourField
            label="Panel colour"
            value={element.plate.colour}
            onChange={(colour) => during({ plate: { ...element.plate!, colour } })}
            onCommit={(colour) => commit('Colour panel', { plate: { ...element.plate!, colour } })}
          />
          <Slider
            label="Opacity"
            unit="%"
            value={Math.round(element.plate.opacity * 100)}
            onChange={(v) => during({ plate: { ...element.plate!, opacity: v / 100 } })}
            onCommit={(v) => commit('Panel opacity', { plate: { ...element.plate!, opacity: v / 100 } })}
          />
        </>
      )}
      {element.text === '' && (
        <Button onClick={() => commit('Change words', { text: '{title}' })}>Use the product’s title</Button>
      )}
    </div>
  );
}
