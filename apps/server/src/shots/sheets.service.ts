import { Inject, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common';
import { eq } from 'drizzle-orm';
import type { CallOf } from '@scenograph/contract';
import { isBackdrop, type BackdropElement } from '@scenograph/core/elements/backdrop/model';
import { MOST_ON_PAGE, type SheetPicture } from '@scenograph/core/delivery/sheets';
import { resolveBase, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { takeOption } from '@scenograph/core/surface/options';
import type { Response } from 'express';
import type { Piscina } from 'piscina';
import { DATABASE, type Database } from '../database/database';
import { pictures } from '../database/schema';
import { paintFor, THREADS } from '../jobs/paint-threads';
import type { Option } from '../jobs/sheets';
import { ShotsService } from './shots.service';

type ProofRequest = CallOf<'POST /api/shots/:id/proof'>['body'];

/** Sheets of a shot's options, and proofs to be agreed on. */
@Injectable()
export class SheetsService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(THREADS) private readonly threads: Piscina,
    @Inject(ShotsService) private readonly shots: ShotsService,
  ) {}

  /** Options side by side in one PNG, each with its label. */
  async options(id: string, ids: string[], columns: number, response: Response): Promise<Uint8Array> {
    const options = await this.variations(id, ids);
    return paintFor(this.threads, { task: 'option-sheet', options, columns }, response);
  }

  /** A proof of one page: PDF with text as text, or PNG. */
  async proof(id: string, request: ProofRequest, response: Response): Promise<Uint8Array> {
    const { show, page, format, title } = request;
    if (show.length > MOST_ON_PAGE)
      throw new UnprocessableEntityException(
        `A page shows up to ${MOST_ON_PAGE} pictures; ${show.length} were chosen. Choose fewer, or make a second page.`,
      );
    const options = await this.variations(id, show);
    let logo: SheetPicture | null = null;
    if (request.logo) {
      const [row] = await this.db.select().from(pictures).where(eq(pictures.id, request.logo));
      if (!row) throw new NotFoundException('This logo is not in the library any more. Choose another.');
      logo = { hash: row.picture, width: row.width, height: row.height, label: row.title };
    }
    const proof = { content: { ...request, logo }, page, format, title };
    return paintFor(this.threads, { task: 'proof', options, proof }, response);
  }

  private async variations(id: string, ids: string[]): Promise<Option[]> {
    const shot = await this.shots.one(id);
    return variations(resolveBase(shot.document, null), ids, shot.title);
  }
}

/** The shot in each of the named options; as it is where none is named. */
function variations(shot: ResolvedShot, ids: string[], title: string): Option[] {
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
