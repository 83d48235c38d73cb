import 'reflect-metadata';
import { setTimeout as pause } from 'node:timers/promises';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { Module } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import { createSandbox } from '@scenograph/host-node/sandbox/sandbox';
import type { NestExpressApplication } from '@nestjs/platform-express';
import compression from 'compression';
import express from 'express';
import { BinController } from './bin/bin.controller';
import { BLOBS, BlobsController } from './blobs/blobs.controller';
import { createBlobStore } from './blobs/blob-store';
import { BoardController } from './board/board.controller';
import { BoardService } from './board/board.service';
import { BrandController } from './brand/brand.controller';
import { BrandService } from './brand/brand.service';
import { DATABASE, databaseUrl, migrateDatabase, openDatabase, POOL } from './database/database';
import { DeliveriesController } from './deliveries/deliveries.controller';
import { DeliveriesService } from './deliveries/deliveries.service';
import { outliveDatabase } from './database/outlive';
import { listen } from './events/events';
import { EVENTS, EventsController } from './events/events.controller';
import { readingFailed, SentenceFilter } from './http/errors';
import { isWorthCompressing, servePages } from './http/pages';
import { guardDoors } from './http/doors';
import { clearStale, cutSlowBodies, INTAKE } from './http/incoming';
import { onlyPlainText } from './http/plain-text';
import { endInOrder } from './watch/ending';
import { unanswered } from './http/route';
import { SystemController } from './http/system.controller';
import { frameworkLog, logRequests } from './watch/logs';
import { timedIntake, timeThreads } from './watch/timed';
import { createMetrics, METRICS } from './watch/metrics';
import { WatchController } from './watch/watch.controller';
import { paintThreads, THREADS } from './jobs/paint-threads';
import { openQueue, QUEUE } from './jobs/queue';
import { ArtworkController } from './library/artwork.controller';
import { ArtworkService } from './library/artwork.service';
import { LibraryController } from './library/library.controller';
import { ScenesService } from './library/scenes.service';
import { ListingsController } from './listings/listings.controller';
import { ListingsService } from './listings/listings.service';
import { PhotosController } from './photos/photos.controller';
import { PhotosService } from './photos/photos.service';
import { VariantsService } from './products/variants.service';
import { ProductsController } from './products/products.controller';
import { ShotsController } from './shots/shots.controller';
import { RecipesController } from './recipes/recipes.controller';
import { RecipesService } from './recipes/recipes.service';
import { SheetsController } from './shots/sheets.controller';
import { SheetsService } from './shots/sheets.service';
import { ShotsService } from './shots/shots.service';
import { SpecSheetsController } from './spec-sheets/spec-sheets.controller';
import { SpecSheetsService } from './spec-sheets/spec-sheets.service';
import { TemplatesController } from './templates/templates.controller';

/** Milliseconds for which answers that are under way may come to their end when the server is told to. */
const PATIENCE = 4000;

// eslint-disable-next-line max-lines-per-function -- most of it is the list of what there is
async function main(): Promise<void> {
  const open = unanswered();
  if (open.length) throw new Error(`No handler answers ${open.join(', ')}.`);
  outliveDatabase();
  const url = databaseUrl();
  const { pool, db } = openDatabase(url);
  await migrateDatabase(pool, db);
  const store = createBlobStore(db);
  const queue = await openQueue(url);
  // Deliveries are painted by workers; this thread is for a person who waits at a desk.
  const threads = paintThreads(1);
  const sandbox = createSandbox(fileURLToPath(new URL('./sandbox.mjs', import.meta.url)));
  const metrics = createMetrics(db, sandbox.kills);
  const { events, close } = listen(url);
  void clearStale();

  @Module({
    controllers: [
      SystemController,
      WatchController,
      BinController,
      BlobsController,
      PhotosController,
      LibraryController,
      ArtworkController,
      BrandController,
      TemplatesController,
      ProductsController,
      SpecSheetsController,
      ListingsController,
      BoardController,
      ShotsController,
      SheetsController,
      DeliveriesController,
      RecipesController,
      EventsController,
    ],
    providers: [
      { provide: POOL, useValue: pool },
      { provide: DATABASE, useValue: db },
      { provide: BLOBS, useValue: store },
      { provide: QUEUE, useValue: queue },
      { provide: THREADS, useValue: timeThreads(threads, metrics) },
      { provide: EVENTS, useValue: events },
      { provide: INTAKE, useValue: timedIntake(sandbox.intake, metrics) },
      { provide: METRICS, useValue: metrics },
      PhotosService,
      ListingsService,
      BoardService,
      SpecSheetsService,
      ShotsService,
      DeliveriesService,
      RecipesService,
      ScenesService,
      ArtworkService,
      BrandService,
      SheetsService,
      VariantsService,
    ],
  })
  class AppModule {}

  const app = await NestFactory.create<NestExpressApplication>(AppModule, {
    bodyParser: false,
    logger: frameworkLog,
  });
  app.use(logRequests);
  app.use(metrics.requests);
  guardDoors(app);
  app.use(compression({ filter: isWorthCompressing }));
  app.use(cutSlowBodies);
  app.use(express.json({ limit: '16mb' }));
  app.use(onlyPlainText);
  app.use(readingFailed);
  app.useGlobalFilters(new SentenceFilter());
  servePages(app, fileURLToPath(new URL('../../web/dist', import.meta.url)));
  const host = process.env.HOST || '127.0.0.1';
  // Port 0 is any that is free.
  await app.listen(Number(process.env.PORT || 4310), host);
  // Node's five seconds would close an idle connection just as a client, or a proxy, sends its next request on it.
  const server = app.getHttpServer();
  server.keepAliveTimeout = 65_000;
  server.headersTimeout = 70_000;
  process.send?.({ ready: true, port: (server.address() as AddressInfo).port });

  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    // Open event streams end, browsers reconnect by themselves; what is being answered is given a moment.
    events.complete();
    const answered = new Promise((resolve) => server.close(resolve));
    server.closeIdleConnections();
    await Promise.race([answered, pause(PATIENCE)]);
    server.closeAllConnections();
    sandbox.close();
    await endInOrder([
      () => Promise.allSettled([app.close(), close(), queue.stop(), threads.destroy()]),
      () => pool.end(),
    ]);
  };
  process.on('SIGTERM', () => void stop());
  process.on('SIGINT', () => void stop());
  // Whoever started it is gone: nobody else would end it.
  process.once('disconnect', () => void stop());
}

main().catch((error: NodeJS.ErrnoException) => {
  console.error(
    error.code === 'EADDRINUSE' ? `Port ${process.env.PORT ?? 4310} is in use; set PORT to another.` : error,
  );
  process.exit(1);
});
