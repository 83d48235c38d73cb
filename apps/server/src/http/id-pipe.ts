import { NotFoundException, type PipeTransform } from '@nestjs/common';
import { UUID } from './validate';

/** Lets only well-formed ids through, so that a mistyped address is a plain "not found". */
export class IdPipe implements PipeTransform<string> {
  transform(value: string): string {
    if (!UUID.test(value)) throw new NotFoundException('Nothing is stored under that id.');
    return value;
  }
}
