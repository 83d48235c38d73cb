import { useId, type InputHTMLAttributes, type Ref, type TextareaHTMLAttributes } from 'react';

const FIELD =
  'border-line focus:border-spruce bg-card w-full min-w-0 rounded-md border px-2 text-[13px] outline-none';

type Common = { label: string; /** What is wrong with it. */ error?: string };
type Line = Common & {
  multiline?: false;
  ref?: Ref<HTMLInputElement>;
} & InputHTMLAttributes<HTMLInputElement>;
type Lines = Common & {
  multiline: true;
  ref?: Ref<HTMLTextAreaElement>;
} & TextareaHTMLAttributes<HTMLTextAreaElement>;

/** A text of a form, registered with it by `{...form.register(name)}`; its error stands below and is read out. */
export function FormField({ label, error, ...field }: Line | Lines) {
  const id = useId();
  const told = {
    id,
    'aria-invalid': error ? true : undefined,
    'aria-describedby': error ? `${id}-error` : undefined,
  };
  return (
    <div>
      <label htmlFor={id} className="text-ink-2 mb-1 block text-[12px]">
        {label}
      </label>
      {isLines(field) ? <TextArea {...field} {...told} /> : <TextLine {...field} {...told} />}
      {error && (
        <p id={`${id}-error`} className="text-coral-ink mt-1">
          {error}
        </p>
      )}
    </div>
  );
}

const isLines = (field: Omit<Line | Lines, keyof Common>): field is Omit<Lines, keyof Common> =>
  field.multiline === true;

function TextLine({ multiline: _, ...rest }: Omit<Line, keyof Common>) {
  return <input {...rest} className={`${FIELD} h-7`} />;
}

function TextArea({ multiline: _, ...rest }: Omit<Lines, keyof Common>) {
  return <textarea {...rest} className={`${FIELD} min-h-16 resize-y py-1.5`} />;
}
