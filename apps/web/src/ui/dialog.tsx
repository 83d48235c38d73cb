import { AlertDialog, Dialog as RadixDialog } from 'radix-ui';
import { X } from 'lucide-react';
import type { FormEventHandler, ReactNode } from 'react';
import { useReturnFocus } from './return-focus';
import { msg } from '../language/language';

const FIRST_FIELD =
  '[data-dialog-body] :is(input:not([type="file"], [type="hidden"], :disabled), textarea, [role="combobox"])';

export function Dialog({
  open,
  onClose,
  title,
  about,
  children,
  footer,
  wide,
  onSubmit,
}: {
  open: boolean;
  /** Left out where there is no way round the choice in the footer. */
  onClose?(): void;
  title: string;
  about?: string;
  children: ReactNode;
  footer?: ReactNode;
  wide?: boolean;
  /** Makes a form of the dialog, which a submit button in its footer or Enter in a field sends. */
  onSubmit?: FormEventHandler<HTMLFormElement>;
}) {
  const { onOpenAutoFocus, onCloseAutoFocus } = useReturnFocus();
  // What must be answered interrupts, and is announced so.
  const Kit = onClose ? RadixDialog : AlertDialog;
  const inside = (
    <>
      <div data-dialog-body className="overflow-y-auto px-5 py-4">
        {children}
      </div>
      {footer && (
        <div className="border-line flex items-center justify-end gap-2 border-t px-5 py-3">{footer}</div>
      )}
    </>
  );
  return (
    <Kit.Root open={open} onOpenChange={(o) => !o && onClose?.()}>
      <Kit.Portal>
        <Kit.Overlay className="fixed inset-0 z-40 bg-[#171b1955]" />
        <Kit.Content
          {...(about ? {} : { 'aria-describedby': undefined })}
          onCloseAutoFocus={onCloseAutoFocus}
          onOpenAutoFocus={(e) => {
            onOpenAutoFocus();
            // What is asked for comes first; a dialog without a field begins at its first button.
            const inside = e.currentTarget as HTMLElement;
            const field =
              inside.querySelector<HTMLElement>(FIRST_FIELD) ??
              (onClose ? null : inside.querySelector<HTMLElement>('button'));
            if (!field) return;
            e.preventDefault();
            field.focus();
          }}
          className={`border-line bg-card fixed top-1/2 left-1/2 z-50 flex max-h-[88vh] -translate-x-1/2 -translate-y-1/2 flex-col rounded-lg border shadow-[0_18px_60px_rgba(23,27,25,0.25)] ${wide ? 'w-[860px]' : 'w-[520px]'} max-w-[94vw]`}
        >
          <div className="border-line flex items-start justify-between gap-4 border-b px-5 py-3.5">
            <div>
              <Kit.Title className="font-display text-[17px] font-bold">{title}</Kit.Title>
              {about && <Kit.Description className="text-ink-2 mt-0.5">{about}</Kit.Description>}
            </div>
            {onClose && (
              <RadixDialog.Close aria-label={msg('Close')} className="text-ink-2 hover:text-ink -mr-1 p-1">
                <X size={16} aria-hidden />
              </RadixDialog.Close>
            )}
          </div>
          {onSubmit ? (
            <form noValidate onSubmit={onSubmit} className="contents">
              {inside}
            </form>
          ) : (
            inside
          )}
        </Kit.Content>
      </Kit.Portal>
    </Kit.Root>
  );
}
