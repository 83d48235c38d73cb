import { Body, Controller, Inject, Param, Post, Res } from '@nestjs/common';
import type { Response } from 'express';
import Joi from 'joi';
import { PAGES } from '@scenograph/core/delivery/sheets';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { SheetsService, type ProofRequest } from './sheets.service';

const ids = Joi.array().items(Joi.string().max(60)).max(60).required();
const optionSheet = Joi.object({
  options: ids.min(1),
  columns: Joi.number().integer().min(1).max(8).default(3),
});
const line = Joi.string().max(200).allow('');
const proof = Joi.object({
  page: Joi.string()
    .valid(...Object.keys(PAGES))
    .required(),
  format: Joi.string().valid('pdf', 'png').required(),
  title: Joi.string().trim().min(1).max(200).required(),
  options: Joi.array().items(line).max(12).required(),
  prices: Joi.array().items(line).max(12).required(),
  notes: Joi.string().max(1200).allow('').required(),
  foot: line.required(),
  logo: Joi.string().uuid().allow(null).required(),
  show: ids,
});

@Controller('api/shots')
export class SheetsController {
  constructor(@Inject(SheetsService) private readonly sheets: SheetsService) {}

  @Post(':id/option-sheet')
  async options(
    @Param('id', IdPipe) id: string,
    @Body(validated(optionSheet)) body: { options: string[]; columns: number },
    @Res() response: Response,
  ) {
    const png = await this.sheets.options(id, body.options, body.columns);
    response
      .set({ 'Content-Type': 'image/png', 'Content-Disposition': 'attachment; filename="options.png"' })
      .send(png);
  }

  @Post(':id/proof')
  async proof(
    @Param('id', IdPipe) id: string,
    @Body(validated(proof)) body: ProofRequest,
    @Res() response: Response,
  ) {
    const bytes = await this.sheets.proof(id, body);
    response
      .set({
        'Content-Type': body.format === 'pdf' ? 'application/pdf' : 'image/png',
        'Content-Disposition': `attachment; filename="proof.${body.format}"`,
      })
      .send(bytes);
  }
}
