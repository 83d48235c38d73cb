import { Controller, useForm, useWatch } from 'react-hook-form';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { Checkbox } from '../../ui/controls';
import { FormDialog } from '../../ui/form-dialog';
import { FormField } from '../../ui/form-field';
import { msg } from '../../language/language';

/** Asks why a check is waived, and whether for one cell or for its slot with every variant. */
export function WaiveDialog({
  result,
  onWaive,
  onClose,
}: {
  result: CheckResult;
  onWaive(reason: string, everyVariant: boolean): void;
  onClose(): void;
}) {
  const form = useForm({ defaultValues: { reason: '', every: false } });
  const reason = useWatch({ control: form.control, name: 'reason' });
  return (
    <FormDialog
      form={form}
      onSend={(values) => onWaive(values.reason.trim(), values.every)}
      send={msg('Waive it')}
      ready={reason.trim().length >= 3}
      onClose={onClose}
      title={msg('Waive "{result}" here', { result: msg(result.title) })}
      about={msg('{sentence} The reason is kept with the listing and written into manifests.', {
        sentence: result.sentence,
      })}
    >
      <div className="grid gap-3">
        <FormField multiline label={msg('Reason')} {...form.register('reason')} />
        <label className="flex items-center gap-2">
          <Controller
            control={form.control}
            name="every"
            render={({ field }) => <Checkbox checked={field.value} onChange={field.onChange} />}
          />
          {msg('In this slot for every variant')}
        </label>
      </div>
    </FormDialog>
  );
}
