/** A button that asks for files. */
export function FileButton({
  title,
  label,
  accept,
  multiple = false,
  onFiles,
}: {
  title: string;
  /** What is asked for, said to who does not see the button. */
  label: string;
  accept: string;
  multiple?: boolean;
  onFiles(files: File[]): void;
}) {
  return (
    <label className="border-line bg-card hover:border-ink-3 inline-flex h-7 cursor-pointer items-center justify-center rounded-md border px-3 font-medium has-[:focus-visible]:outline-2">
      {title}
      <input
        type="file"
        multiple={multiple}
        accept={accept}
        className="sr-only"
        aria-label={label}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = '';
          if (files.length) onFiles(files);
        }}
      />
    </label>
  );
}
