import { X } from 'lucide-react';
import { useState } from 'react';
import { Button, TextField } from '../../ui/controls';
import { msg } from '../../language/language';

/** Further values by name; texts use them as {name}. */
export function Fields({
  sku,
  fields,
  onChange,
}: {
  sku: string;
  fields: Record<string, string>;
  onChange(fields: Record<string, string>): unknown;
}) {
  const [adding, setAdding] = useState(false);
  return (
    <div className="flex min-w-0 flex-wrap items-center gap-1.5">
      {Object.entries(fields).map(([name, value]) => (
        <div key={name} className="border-line flex items-center rounded-md border pl-2">
          <span className="measure text-ink-2">{name}</span>
          <div className="w-24 [&_input]:border-0">
            <TextField
              hideLabel
              label={msg('{name} of {sku}', { name, sku })}
              value={value}
              onCommit={(next) => onChange({ ...fields, [name]: next })}
            />
          </div>
          <button
            type="button"
            aria-label={msg('Remove {name} of {sku}', { name, sku })}
            className="text-ink-2 hover:text-ink px-1.5"
            onClick={() => {
              const { [name]: _, ...rest } = fields;
              onChange(rest);
            }}
          >
            <X size={12} aria-hidden />
          </button>
        </div>
      ))}
      {adding ? (
        <div className="w-32">
          <TextField
            hideLabel
            mono
            label={msg('Name of the new value of {sku}', { sku })}
            placeholder={msg('name, then Enter')}
            value=""
            onCommit={(name) => {
              setAdding(false);
              const plain = name.trim();
              if (plain) onChange({ [plain]: '', ...fields });
            }}
          />
        </div>
      ) : (
        <Button
          tone="quiet"
          aria-label={msg('Add a value to {sku}', { sku })}
          onClick={() => setAdding(true)}
        >
          {msg('+ value')}
        </Button>
      )}
    </div>
  );
}
