import { FORMATS } from '../spec/slot';
import { extension, plainName } from '../spec/file-name';

/** What one picture can be exported as. */
export const EXPORT_FORMATS = [...FORMATS, 'tiff'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** A picture's file by its shot, variant and size in pixels, such as `morning-sill-teal-2000x1500.jpg`. */
export function exportName(
  { shot, variant, width, height }: { shot: string; variant: string | null; width: number; height: number },
  format: string,
): string {
  const words = [shot, variant]
    .map((text) => plainName((text ?? '').toLowerCase(), ''))
    .filter(Boolean)
    .join('-');
  return `${words || 'picture'}-${width}x${height}.${extension(format)}`;
}
