import { createHash } from 'node:crypto';
import {
  optionSheet,
  proofSheet,
  type ProofContent,
  type SheetPicture,
} from '@scenograph/core/delivery/sheets';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { encodePicture } from '@scenograph/host-node/encode';
import { createPainter } from '@scenograph/host-node/painter';
import { sheetPdf } from '@scenograph/host-node/sheet-pdf';

/** A shot in one of its options, and what that is called. */
export type Option = [ResolvedShot, string];

type Load = (hash: string) => Promise<Uint8Array>;

/** Pictures on sheets are painted so wide at most. */
const PICTURE_WIDTH = 1400;
/** Dots per inch of a proof as PNG. */
const PROOF_DPI = 200;

/** Options side by side in one PNG, each with its label. */
export async function paintOptionSheet(
  stored: Load,
  options: Option[],
  columns: number,
): Promise<Uint8Array> {
  const { pictures, load } = await paintOptions(stored, options);
  const sheet = optionSheet(pictures, Math.min(columns, pictures.length));
  const painted = await createPainter(load).paint(sheet);
  return (await encodePicture(painted.pixels(), 'png')).bytes;
}

export interface Proof {
  content: Omit<ProofContent, 'pictures'>;
  page: Parameters<typeof proofSheet>[1];
  title: string;
  format: 'pdf' | 'png';
}

/** A proof of one page: PDF with text as text, or PNG. */
export async function paintProof(stored: Load, options: Option[], proof: Proof): Promise<Uint8Array> {
  const { pictures, load } = await paintOptions(stored, options);
  const sheet = proofSheet({ ...proof.content, pictures }, proof.page);
  if (proof.format === 'pdf') return sheetPdf(sheet, proof.title, load);
  const painted = await createPainter(load).paint(sheet, { scale: PROOF_DPI / 72 });
  return (await encodePicture(painted.pixels(), 'png', { density: PROOF_DPI })).bytes;
}

async function paintOptions(stored: Load, options: Option[]) {
  const files = new Map<string, Buffer>();
  const load = async (hash: string) => files.get(hash) ?? Buffer.from(await stored(hash));
  const pictures: SheetPicture[] = [];
  const painter = createPainter(load);
  for (const [shot, label] of options) {
    const scale = Math.min(1, PICTURE_WIDTH / shot.width);
    const painted = await painter.paint(shot, { scale });
    const { bytes } = await encodePicture(painted.pixels(), 'png');
    const hash = createHash('sha256').update(bytes).digest('hex');
    files.set(hash, Buffer.from(bytes));
    pictures.push({ hash, width: painted.width, height: painted.height, label });
  }
  return { pictures, load };
}
