import { Controller, Inject } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import { Call, On } from '../http/route';
import { BoardService } from './board.service';

@Controller()
export class BoardController {
  constructor(@Inject(BoardService) private readonly boards: BoardService) {}

  @On('GET /api/listings/:id/board')
  board(@Call() { params, by }: CallOf<'GET /api/listings/:id/board'>) {
    return this.boards.board(params.id, by.editor);
  }

  @On('PATCH /api/listings/:id')
  async describe(@Call() { params, body, by }: CallOf<'PATCH /api/listings/:id'>) {
    return { ...body, revision: await this.boards.describe(params.id, body, by) };
  }

  @On('DELETE /api/listings/:id')
  remove(@Call() { params, by }: CallOf<'DELETE /api/listings/:id'>) {
    return this.boards.remove(params.id, by);
  }

  @On('GET /api/listings/:id/summary')
  summary(@Call() { params }: CallOf<'GET /api/listings/:id/summary'>) {
    return this.boards.summary(params.id);
  }

  @On('GET /api/listings/:id/cell')
  cell(@Call() { params, query }: CallOf<'GET /api/listings/:id/cell'>) {
    return this.boards.cell(params.id, query);
  }

  @On('PUT /api/listings/:id/feeds')
  async feed(@Call() { params, body, by }: CallOf<'PUT /api/listings/:id/feeds'>) {
    return { ...body, revision: await this.boards.feed(params.id, body.slot, body.shotId, by) };
  }

  @On('PUT /api/listings/:id/cells')
  async assign(@Call() { params, body, by }: CallOf<'PUT /api/listings/:id/cells'>) {
    const revision = await this.boards.assign(params.id, body.cells, body.shotId, by);
    return { assigned: body.cells.length, revision };
  }

  @On('POST /api/listings/:id/fill')
  fill(@Call() { params, by }: CallOf<'POST /api/listings/:id/fill'>) {
    return this.boards.fill(params.id, by);
  }

  @On('PUT /api/listings/:id/encoding')
  async encode(@Call() { params, body, by }: CallOf<'PUT /api/listings/:id/encoding'>) {
    return { ...body, revision: await this.boards.encode(params.id, body.slotKey, body.encoding, by) };
  }

  @On('POST /api/listings/:id/turn')
  turn(@Call() { params, body, by }: CallOf<'POST /api/listings/:id/turn'>) {
    return this.boards.turn(params.id, body.way, by);
  }

  @On('POST /api/listings/:id/waivers')
  waive(@Call() { params, body, by }: CallOf<'POST /api/listings/:id/waivers'>) {
    return this.boards.waive(params.id, body, by);
  }

  @On('DELETE /api/listings/:id/waivers/:waiver')
  withdraw(@Call() { params, by }: CallOf<'DELETE /api/listings/:id/waivers/:waiver'>) {
    return this.boards.withdrawWaiver(params.id, params.waiver, by);
  }
}
