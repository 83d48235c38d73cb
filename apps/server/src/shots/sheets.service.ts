import { createHash } from 'node:crypto';
import { Inject, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common';
import { eq } from 'drizzle-orm';
import type { CallOf } from '@scenograph/contract';
import { isBackdrop, type BackdropElement } from '@scenograph/core/elements/backdrop/model';
import { MOST_ON_PAGE, optionSheet, proofSheet, type SheetPicture } from '@scenograph/core/delivery/sheets';
import { resolveBase, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { takeOption } from '@scenograph/core/surface/options';
import { encodePicture } from '@scenograph/host-node/encode';
import { createPainter } from '@scenograph/host-node/painter';
import { sheetPdf } from '@scenograph/host-node/sheet-pdf';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { DATABASE, type Database } from '../database/database';
import { pictures } from '../database/schema';
import { ShotsService } from './shots.service';

type ProofRequest = CallOf<'POST /api/shots/:id/proof'>['body'];

/** Pictures on sheets are painted so wide at most. */
const PICTURE_WIDTH = 1400;
/** Dots per inch of a proof as PNG. */
const PROOF_DPI = 200;

/** Sheets of a shot's options, and proofs to be agreed on. */
@Injectable()
export class SheetsService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(BLOBS) private readonly store: BlobStore,
    @Inject(ShotsService) private readonly shots: ShotsService,
  ) {}

  /** Options side by side in one PNG, each with its label. */
  async options(id: string, ids: string[], columns: number): Promise<Buffer> {
    const made = await this.paintOptions(id, ids);
    const sheet = optionSheet(made.pictures, Math.min(columns, made.pictures.length));
    const painted = await this.painter(made.files).paint(sheet);
    return Buffer.from((await encodePicture(painted.pixels(), 'png')).bytes);
  }

  /** A proof of one page: PDF with text as text, or PNG. */
  async proof(id: string, request: ProofRequest): Promise<Buffer> {
    if (request.show.length > MOST_ON_PAGE)
      throw new UnprocessableEntityException(
        `A page shows up to ${MOST_ON_PAGE} pictures; ${request.show.length} were chosen. Choose fewer, or make a second page.`,
      );
    const made = await this.paintOptions(id, request.show);
    let logo: SheetPicture | null = null;
    if (request.logo) {
      const [row] = await this.db.select().from(pictures).where(eq(pictures.id, request.logo));
      if (!row) throw new NotFoundException('This logo is not in the library any more. Choose another.');
      logo = { hash: row.picture, width: row.width, height: row.height, label: row.title };
    }
    const sheet = proofSheet({ ...request, logo, pictures: made.pictures }, request.page);
    const load = (hash: string) => this.load(made.files, hash);
    if (request.format === 'pdf') return sheetPdf(sheet, request.title, load);
    const painted = await this.painter(made.files).paint(sheet, { scale: PROOF_DPI / 72 });
    const { bytes } = await encodePicture(painted.pixels(), 'png', { density: PROOF_DPI });
    return Buffer.from(bytes);
  }

  private painter(files: Map<string, Buffer>) {
    return createPainter((hash) => this.load(files, hash));
  }

  private async load(files: Map<string, Buffer>, hash: string): Promise<Buffer> {
    return files.get(hash) ?? this.store.get(hash);
  }

  private async paintOptions(id: string, ids: string[]) {
    const shot = await this.shots.one(id);
    const resolved = resolveBase(shot.document, null);
    const files = new Map<string, Buffer>();
    const list: SheetPicture[] = [];
    const painter = this.painter(files);
    for (const [of, label] of variations(resolved, ids, shot.title)) {
      const scale = Math.min(1, PICTURE_WIDTH / of.width);
      const painted = await painter.paint(of, { scale });
      const { bytes } = await encodePicture(painted.pixels(), 'png');
      const hash = createHash('sha256').update(bytes).digest('hex');
      files.set(hash, Buffer.from(bytes));
      list.push({ hash, width: painted.width, height: painted.height, label });
    }
    return { pictures: list, files };
  }
}

/** The shot in each of the named options; as it is where none is named. */
function variations(shot: ResolvedShot, ids: string[], title: string): [ResolvedShot, string][] {
  if (!ids.length) return [[shot, title]];
  const mockup = shot.elements.find((e): e is BackdropElement => isBackdrop(e) && e.fill.type === 'scene');
  const fill = mockup?.fill.type === 'scene' ? mockup.fill : null;
  return ids.map((id) => {
    const option = fill?.item.options.find((o) => o.id === id);
    if (!mockup || !fill || !option)
      throw new NotFoundException(
        'One of these options is not kept with the shot any more. Reload the page.',
      );
    const changed = { ...mockup, fill: { ...fill, item: takeOption(fill.item, option) } };
    return [{ ...shot, elements: shot.elements.map((e) => (e === mockup ? changed : e)) }, option.title];
  });
}
