import { EMPTY_KIT, type BrandKit } from '@scenograph/core/brand/kit';
import { FONTS, ownFontId } from '@scenograph/core/type/catalogue';
import { say } from '../ui/notices';
import { refresh, upload, useRoute, type OwnFont } from './client';
import { msg } from '../language/language';

export const FONT_FILES = '.ttf,.otf,.woff,.woff2';

/** The brand kit as the server has it now. */
export function useKit(): BrandKit {
  return useRoute('GET /api/brand').data?.kit ?? EMPTY_KIT;
}

export interface FontChoice {
  value: string;
  title: string;
}

/** Every font that can be chosen: those that ship, then one's own. */
export function useFonts(): FontChoice[] {
  const { data: own } = useRoute('GET /api/fonts');
  return [
    ...FONTS.map((f) => ({ value: f.id, title: `${f.family} ${f.style}, ${f.character}` })),
    ...(own ?? []).map((f) => ({
      value: ownFontId(f.hash),
      title: msg('{family} {style}, your own', { family: f.family, style: f.style }),
    })),
  ];
}

/** Takes font files; what is refused is said, the others come in. */
export async function bringInFonts(files: File[]): Promise<OwnFont[]> {
  const taken: OwnFont[] = [];
  for (const file of files)
    try {
      const font = await upload('POST /api/fonts', { query: { name: file.name }, file });
      say('pass', msg('{family} {style} can be used.', { family: font.family, style: font.style }));
      taken.push(font);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  if (taken.length) refresh('/api/fonts');
  return taken;
}
