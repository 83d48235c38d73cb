import { useForm, useWatch } from 'react-hook-form';
import { fieldName } from '@scenograph/core/table/match-columns';
import { FormDialog } from '../../ui/form-dialog';
import { FormField } from '../../ui/form-field';
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
  const form = useForm({ defaultValues: { text: '' }, mode: 'onChange' });
  const text = useWatch({ control: form.control, name: 'text' });
  const name = fieldName(text);
  const free = !!name && !taken.includes(name);
  return (
    <FormDialog
      form={form}
      onSend={(values) => onAdd(fieldName(values.text)!)}
      send={msg('Add {part}', { part: free ? `{${name}}` : '' })}
      ready={!!text.trim()}
      onClose={onClose}
      title={msg('Add a column')}
      about={msg('Texts of shots can be bound to it by its name in braces.')}
    >
      <FormField
        label={msg('Name')}
        error={form.formState.errors.text?.message}
        {...form.register('text', {
          validate: (written) => {
            const field = fieldName(written);
            if (!written.trim()) return true;
            if (!field)
              return msg(
                'Use a letter, then letters, digits or underscores, and not the name of a value that the product has already.',
              );
            return !taken.includes(field) || msg('There is a column of that name.');
          },
        })}
      />
    </FormDialog>
  );
}
