import { Controller, Inject, Res } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { Response } from 'express';
import { Call, On } from '../http/route';
import { SheetsService } from './sheets.service';

@Controller()
export class SheetsController {
  constructor(@Inject(SheetsService) private readonly sheets: SheetsService) {}

  @On('POST /api/shots/:id/option-sheet')
  async options(
    @Call() { params, body }: CallOf<'POST /api/shots/:id/option-sheet'>,
    @Res() response: Response,
  ) {
    const png = await this.sheets.options(params.id, body.options, body.columns, response);
    response.attachment('options.png').type('image/png').send(Buffer.from(png));
  }

  @On('POST /api/shots/:id/proof')
  async proof(@Call() { params, body }: CallOf<'POST /api/shots/:id/proof'>, @Res() response: Response) {
    const bytes = await this.sheets.proof(params.id, body, response);
    response
      .attachment(`proof.${body.format}`)
      .type(body.format === 'pdf' ? 'application/pdf' : 'image/png')
      .send(Buffer.from(bytes));
  }
}
