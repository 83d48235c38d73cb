import type { ReactNode } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import { msg } from '../language/language';
import { Button } from './controls';
import { Dialog } from './dialog';

/**
 * A dialog that is filled in and sent, by its button or by Enter in a field. While it is under way it cannot be sent again;
 * what was refused is said at its foot, and everything that was filled in is still there.
 */
export function FormDialog<T extends FieldValues>({
  form,
  onSend,
  send,
  ready = true,
  cancel = msg('Cancel'),
  onClose,
  also,
  children,
  ...dialog
}: {
  form: UseFormReturn<T>;
  /** Throws an error with a sentence where what was filled in is refused. */
  onSend(values: T): void | Promise<void>;
  /** What its button says. */
  send: string;
  /** There is something to send. */
  ready?: boolean;
  cancel?: string;
  onClose(): void;
  /** A second way to send the same. */
  also?: { send: string; onSend(values: T): void | Promise<void> };
  children: ReactNode;
  title: string;
  about?: string;
  wide?: boolean;
}) {
  const { isSubmitting, errors } = form.formState;
  const refused = errors.root?.message;
  const sending = (by: (values: T) => void | Promise<void>) =>
    form.handleSubmit(async (values) => {
      try {
        await by(values);
      } catch (error) {
        form.setError('root', { message: (error as Error).message });
      }
    });
  return (
    <Dialog
      open
      onClose={onClose}
      {...dialog}
      onSubmit={(e) => {
        // A dialog opened from within another form must not send that one too.
        e.stopPropagation();
        if (ready && !isSubmitting) void sending(onSend)(e);
        else e.preventDefault();
      }}
      footer={
        <>
          {refused && (
            <p role="alert" className="text-coral-ink mr-auto">
              {refused}
            </p>
          )}
          <Button onClick={onClose}>{cancel}</Button>
          {also && (
            <Button onClick={(e) => void sending(also.onSend)(e)} disabled={isSubmitting}>
              {also.send}
            </Button>
          )}
          <Button tone="main" type="submit" disabled={!ready || isSubmitting}>
            {send}
          </Button>
        </>
      }
    >
      {children}
    </Dialog>
  );
}
