import { Body, Controller, Delete, Get, Inject, Param, Post, Put, Res } from '@nestjs/common';
import type { Response } from 'express';
import Joi from 'joi';
import { DATABASE, type Database } from '../database/database';
import { validated } from '../http/validate';
import { allSheets, SpecSheetsService } from './spec-sheets.service';

const save = Joi.object({
  version: Joi.number().integer().min(1).required(),
  sheet: Joi.object().unknown(true).required(),
});

@Controller('api/spec-sheets')
export class SpecSheetsController {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(SpecSheetsService) private readonly sheets: SpecSheetsService,
  ) {}

  @Get()
  list() {
    return allSheets(this.db);
  }

  @Post()
  add(@Body() sheet: unknown) {
    return this.sheets.add(sheet);
  }

  @Get(':id')
  one(@Param('id') id: string) {
    return this.sheets.history(id);
  }

  @Get(':id/sheet.json')
  async file(@Param('id') id: string, @Res() response: Response) {
    const sheet = await this.sheets.one(id);
    response
      .set({
        'Content-Type': 'application/json',
        'Content-Disposition': `attachment; filename="${sheet.id}.json"`,
      })
      .send(`${JSON.stringify(sheet, null, 2)}\n`);
  }

  @Put(':id')
  save(@Param('id') id: string, @Body(validated(save)) body: { version: number; sheet: unknown }) {
    return this.sheets.save(id, body.version, body.sheet);
  }

  @Delete(':id')
  remove(@Param('id') id: string) {
    return this.sheets.remove(id);
  }
}
