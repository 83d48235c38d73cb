import { useState } from 'react';
import { fieldName } from '@scenograph/core/table/match-columns';
import { Button } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { msg } from '../../language/language';

/** Asks for the name of a new column. */
export function NameColumn({
  taken,
  onAdd,
  onClose,
}: {
  taken: string[];
  onAdd(name: string): void;
  onClose(): void;
}) {
  const [text, setText] = useState('');
  const name = fieldName(text);
  const trouble = !text.trim()
    ? ''
    : !name
      ? msg(
          'Use a letter, then letters, digits or underscores, and not the name of a value that the product has already.',
        )
      : taken.includes(name)
        ? msg('There is a column of that name.')
        : '';
  return (
    <Dialog
      open
      onClose={onClose}
      title={msg('Add a column')}
      about={msg('Texts of shots can be bound to it by its name in braces.')}
      footer={
        <>
          <Button onClick={onClose}>{msg('Cancel')}</Button>
          <Button tone="main" disabled={!name || !!trouble} onClick={() => onAdd(name!)}>
            {msg('Add {part}', { part: name && !trouble ? `{${name}}` : '' })}
          </Button>
        </>
      }
    >
      <label className="block">
        <span className="text-ink-2 mb-1 block text-[12px]">{msg('Name')}</span>
        <input
          autoFocus
          value={text}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && name && !trouble && onAdd(name)}
          className="border-line focus:border-spruce bg-card h-7 w-full rounded-md border px-2 outline-none"
        />
      </label>
      {trouble && <p className="text-coral-ink mt-2">{trouble}</p>}
    </Dialog>
  );
}
