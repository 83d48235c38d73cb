import { Controller, Res } from '@nestjs/common';
import { openApi } from '@scenograph/contract/openapi';
import type { Response } from 'express';
import { apiPage } from './api-page';
import { On } from './route';

const VERSION = '0.1.0';

/** What the server says of itself. */
@Controller()
export class SystemController {
  @On('GET /api/openapi.json')
  openApi() {
    return openApi(VERSION);
  }

  @On('GET /api/docs')
  docs(_call: unknown, @Res() response: Response) {
    response.type('text/html').send(apiPage(openApi(VERSION)));
  }
}
