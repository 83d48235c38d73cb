import { Controller, Inject, Res } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { Response } from 'express';
import { DATABASE, type Database } from '../database/database';
import { Call, On } from '../http/route';
import { allSheets, SpecSheetsService } from './spec-sheets.service';

@Controller()
export class SpecSheetsController {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(SpecSheetsService) private readonly sheets: SpecSheetsService,
  ) {}

  @On('GET /api/spec-sheets')
  list() {
    return allSheets(this.db);
  }

  @On('POST /api/spec-sheets')
  add(@Call() { body }: CallOf<'POST /api/spec-sheets'>) {
    return this.sheets.add(body);
  }

  @On('GET /api/spec-sheets/:sheet')
  one(@Call() { params }: CallOf<'GET /api/spec-sheets/:sheet'>) {
    return this.sheets.history(params.sheet);
  }

  @On('GET /api/spec-sheets/:sheet/sheet.json')
  async file(
    @Call() { params }: CallOf<'GET /api/spec-sheets/:sheet/sheet.json'>,
    @Res() response: Response,
  ) {
    const sheet = await this.sheets.one(params.sheet);
    response
      .set({
        'Content-Type': 'application/json',
        'Content-Disposition': `attachment; filename="${sheet.id}.json"`,
      })
      .send(`${JSON.stringify(sheet, null, 2)}\n`);
  }

  @On('PUT /api/spec-sheets/:sheet')
  save(@Call() { params, body }: CallOf<'PUT /api/spec-sheets/:sheet'>) {
    return this.sheets.save(params.sheet, body.version, body.sheet);
  }

  @On('DELETE /api/spec-sheets/:sheet')
  remove(@Call() { params, by }: CallOf<'DELETE /api/spec-sheets/:sheet'>) {
    return this.sheets.remove(params.sheet, by);
  }
}
