import { reducedUrl, refresh, upload, useRoute } from '../../../api/client';
import { FileButton } from '../../../ui/file-button';
import { say } from '../../../ui/notices';

const FILES = 'image/png,image/jpeg,image/webp,.svg,image/svg+xml';

/** A picture from the library, or a file that is taken into it. */
export function PictureChoice({
  label,
  chosen,
  onChoose,
}: {
  label: string;
  chosen: string | null;
  onChoose(picture: string): void;
}) {
  const { data } = useRoute('GET /api/pictures');
  const take = async ([file]: File[]) => {
    try {
      const made = await upload('POST /api/pictures', { query: { name: file.name }, file });
      refresh('/api/pictures');
      onChoose(made.picture);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <div>
      <p className="text-ink-2 mb-1 text-[12px]">{label}</p>
      <div role="group" aria-label={label} className="mb-1.5 grid max-h-32 grid-cols-4 gap-1 overflow-y-auto">
        {data?.map((p) => (
          <button
            key={p.id}
            type="button"
            title={p.title}
            aria-label={`${label}: ${p.title}`}
            aria-pressed={chosen === p.picture}
            className={`flex h-12 items-center justify-center rounded-sm border bg-[#bdbdbd] p-0.5 ${chosen === p.picture ? 'border-spruce outline-spruce outline-2' : 'border-line'}`}
            onClick={() => onChoose(p.picture)}
          >
            <img src={reducedUrl(p.picture, 160)} alt="" className="max-h-full max-w-full" />
          </button>
        ))}
      </div>
      <FileButton
        title="Import a picture"
        label={`A file for ${label.toLowerCase()}`}
        accept={FILES}
        onFiles={(f) => void take(f)}
      />
    </div>
  );
}
