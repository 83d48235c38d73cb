import { Body, Controller, Delete, Get, Inject, Param, Post, Put, Query } from '@nestjs/common';
import { encodingSchema, type Encoding } from '@scenograph/core/delivery/encoding';
import Joi from 'joi';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { BoardService, type CellChoice } from './board.service';

const slotKey = Joi.string().max(200).required();
const uuid = Joi.string().uuid();
const choice = Joi.object({ variantId: uuid.required(), slotKey });
const assign = Joi.object({
  cells: Joi.array().items(choice).min(1).max(50_000).required(),
  shotId: Joi.alternatives(uuid, Joi.string().valid('slot')).allow(null).required(),
});
const feed = Joi.object({ slot: slotKey, shotId: uuid.allow(null).required() });
const encode = Joi.object({ slotKey, encoding: encodingSchema.allow(null).required() });
const waive = Joi.object({
  slotKey,
  variantId: uuid.allow(null).required(),
  check: Joi.string().max(40).required(),
  reason: Joi.string().trim().min(3).max(400).required().messages({
    'string.empty': 'a reason must be written',
    'string.min': 'the reason must say a little more',
  }),
});
const way = Joi.object({ way: Joi.string().valid('undo', 'redo').required() });

@Controller('api/listings/:id')
export class BoardController {
  constructor(@Inject(BoardService) private readonly boards: BoardService) {}

  @Get('board')
  board(@Param('id', IdPipe) id: string) {
    return this.boards.board(id);
  }

  @Get('summary')
  summary(@Param('id', IdPipe) id: string) {
    return this.boards.summary(id);
  }

  @Get('cell')
  cell(@Param('id', IdPipe) id: string, @Query(validated(choice)) cell: CellChoice) {
    return this.boards.cell(id, cell);
  }

  @Put('feeds')
  async feed(
    @Param('id', IdPipe) id: string,
    @Body(validated(feed)) body: { slot: string; shotId: string | null },
  ) {
    await this.boards.feed(id, body.slot, body.shotId);
    return { slot: body.slot, shotId: body.shotId };
  }

  @Put('cells')
  async assign(
    @Param('id', IdPipe) id: string,
    @Body(validated(assign)) body: { cells: CellChoice[]; shotId: string | null },
  ) {
    await this.boards.assign(id, body.cells, body.shotId);
    return { assigned: body.cells.length };
  }

  @Post('fill')
  fill(@Param('id', IdPipe) id: string) {
    return this.boards.fill(id);
  }

  @Put('encoding')
  async encode(
    @Param('id', IdPipe) id: string,
    @Body(validated(encode)) body: { slotKey: string; encoding: Encoding | null },
  ) {
    await this.boards.encode(id, body.slotKey, body.encoding);
    return body;
  }

  @Post('turn')
  turn(@Param('id', IdPipe) id: string, @Body(validated(way)) body: { way: 'undo' | 'redo' }) {
    return this.boards.turn(id, body.way);
  }

  @Post('waivers')
  waive(
    @Param('id', IdPipe) id: string,
    @Body(validated(waive))
    body: { slotKey: string; variantId: string | null; check: string; reason: string },
  ) {
    return this.boards.waive(id, body);
  }

  @Delete('waivers/:waiver')
  withdraw(@Param('id', IdPipe) id: string, @Param('waiver', IdPipe) waiver: string) {
    return this.boards.withdrawWaiver(id, waiver);
  }
}
