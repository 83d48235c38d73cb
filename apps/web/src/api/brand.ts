import { EMPTY_KIT, type BrandKit } from '@scenograph/core/brand/kit';
import type { Template } from '@scenograph/core/templates/template';
import { FONTS, ownFontId } from '@scenograph/core/type/catalogue';
import { say } from '../ui/notices';
import { refresh, sendFile, useServer } from './client';

export interface StoredKit {
  kit: BrandKit;
  revision: number;
  /** How many changes can be undone. */
  steps: number;
}

export interface OwnFont {
  id: string;
  family: string;
  style: string;
  hash: string;
}

export type ListedTemplate = Template & { own: boolean };

export const FONT_FILES = '.ttf,.otf,.woff,.woff2';

/** The brand kit as the server has it now. */
export function useKit(): BrandKit {
  return useServer<StoredKit>('/api/brand').data?.kit ?? EMPTY_KIT;
}

export interface FontChoice {
  value: string;
  title: string;
}

/** Every font that can be chosen: those that ship, then one's own. */
export function useFonts(): FontChoice[] {
  const { data: own } = useServer<OwnFont[]>('/api/fonts');
  return [
    ...FONTS.map((f) => ({ value: f.id, title: `${f.family} ${f.style}, ${f.character}` })),
    ...(own ?? []).map((f) => ({ value: ownFontId(f.hash), title: `${f.family} ${f.style}, your own` })),
  ];
}

/** Takes font files; what is refused is said, the others come in. */
export async function bringInFonts(files: File[]): Promise<OwnFont[]> {
  const taken: OwnFont[] = [];
  for (const file of files)
    try {
      const path = `/api/fonts?name=${encodeURIComponent(file.name)}`;
      const font = await sendFile<OwnFont>(path, file, () => undefined);
      say('pass', `${font.family} ${font.style} can be used.`);
      taken.push(font);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  if (taken.length) refresh('/api/fonts');
  return taken;
}
