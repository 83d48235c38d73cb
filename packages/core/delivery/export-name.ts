import { FORMATS } from '../spec/slot';
import { extension, plainName } from '../spec/file-name';

/** What one picture can be exported as. */
export const EXPORT_FORMATS = [...FORMATS, 'tiff', 'pdf'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** A file by its shot, variant and size: of a picture in pixels (`morning-sill-teal-2000x1500.jpg`), of a page in millimetres (`postcard-148x105mm.pdf`). */
export function exportName(
  { shot, variant, width, height }: { shot: string; variant: string | null; width: number; height: number },
  format: string,
): string {
  const words = [shot, variant]
    .map((text) => plainName((text ?? '').toLowerCase(), ''))
    .filter(Boolean)
    .join('-');
  return `${words || 'picture'}-${Math.round(width)}x${Math.round(height)}${format === 'pdf' ? 'mm' : ''}.${extension(format)}`;
}
