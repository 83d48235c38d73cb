import { Controller, Inject } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import { Call, On } from '../http/route';
import { BoardService } from './board.service';

@Controller()
export class BoardController {
  constructor(@Inject(BoardService) private readonly boards: BoardService) {}

  @On('GET /api/listings/:id/board')
  board(@Call() { params }: CallOf<'GET /api/listings/:id/board'>) {
    return this.boards.board(params.id);
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
  async feed(@Call() { params, body }: CallOf<'PUT /api/listings/:id/feeds'>) {
    await this.boards.feed(params.id, body.slot, body.shotId);
    return body;
  }

  @On('PUT /api/listings/:id/cells')
  async assign(@Call() { params, body }: CallOf<'PUT /api/listings/:id/cells'>) {
    await this.boards.assign(params.id, body.cells, body.shotId);
    return { assigned: body.cells.length };
  }

  @On('POST /api/listings/:id/fill')
  fill(@Call() { params }: CallOf<'POST /api/listings/:id/fill'>) {
    return this.boards.fill(params.id);
  }

  @On('PUT /api/listings/:id/encoding')
  async encode(@Call() { params, body }: CallOf<'PUT /api/listings/:id/encoding'>) {
    await this.boards.encode(params.id, body.slotKey, body.encoding);
    return body;
  }

  @On('POST /api/listings/:id/turn')
  turn(@Call() { params, body }: CallOf<'POST /api/listings/:id/turn'>) {
    return this.boards.turn(params.id, body.way);
  }

  @On('POST /api/listings/:id/waivers')
  waive(@Call() { params, body }: CallOf<'POST /api/listings/:id/waivers'>) {
    return this.boards.waive(params.id, body);
  }

  @On('DELETE /api/listings/:id/waivers/:waiver')
  withdraw(@Call() { params }: CallOf<'DELETE /api/listings/:id/waivers/:waiver'>) {
    return this.boards.withdrawWaiver(params.id, params.waiver);
  }
}
