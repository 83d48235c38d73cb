import { refresh, upload, useRoute } from '../../../api/client';
import { FileButton } from '../../../ui/file-button';
import { PictureList } from '../../../ui/picture-list';
import { say } from '../../../ui/notices';
import { msg } from '../../../language/language';

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
      <div className="mb-1.5">
        <PictureList
          label={label}
          look="objects"
          items={data}
          chosen={data?.find((p) => p.picture === chosen)?.id ?? null}
          nameOf={({ title }) => `${label}: ${title}`}
          onPick={({ picture }) => onChoose(picture)}
        />
      </div>
      <FileButton
        title={msg('Import a picture')}
        label={msg('A file for {label}', { label: label.toLowerCase() })}
        accept={FILES}
        onFiles={(f) => void take(f)}
      />
    </div>
  );
}
