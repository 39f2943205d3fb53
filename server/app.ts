import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import express, { type NextFunction, type Request, type Response } from 'express';
import type { Knex } from 'knex';
import { createHash } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ASSET_LIMITS } from './assets/picture.ts';
import { AppModule } from './app.module.ts';
import { VERSION } from './health/health.controller.ts';
import { homeFolder } from './home.ts';
import { tokenOnly } from './http/access.ts';
import { NONCE_PLACE, nonceOf, notKept, pageRules } from './http/headers.ts';
import { boundedInFlight } from './http/in-flight.ts';
import { localOnly } from './http/local-only.ts';
import { LimitedPipe } from './http/limited-pipe.ts';
import { shallowBody, singleQuery, unreadBody } from './http/plain-request.ts';
import { Problem, ProblemFilter } from './http/problem.ts';

/** What a save may weigh in one piece; a larger one goes up in parts. */
const SAVE_LIMIT = '32mb';
/** What a part may weigh: the page makes them of 8 MB, but never cuts a drawing in two. */
const PART_LIMIT = '64mb';

/** Notes the SHA-256 of what was sent, so that a part can be checked against what its sender says. */
function noteHash(request: IncomingMessage & { contentHash?: string }, _: unknown, content: Buffer): void {
  request.contentHash = createHash('sha256').update(content).digest('hex');
}

/** Where bodies that are not JSON are read whole. */
const WHOLE = /^\/api\/assets(\/|$)/;

const KEEP_ALIVE_MS = 65_000;

/** Builds the server on an open, migrated database. @param web folder of the built page, if it is served too. */
export async function createApp(database: Knex, web?: string): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(database), {
    bodyParser: false,
    logger: ['error', 'warn'],
  });
  app.setGlobalPrefix('api');
  // Longer than clients keep a connection: else one that is just being closed is sent the next request.
  app.getHttpServer().keepAliveTimeout = KEEP_ALIVE_MS;
  app.enableShutdownHooks();
  app.use(pageRules, notKept);
  app.set('query parser', 'simple');
  app.use(localOnly);
  const token = process.env['TALLOW_ACCESS_TOKEN'];
  if (token) app.use(tokenOnly(token, homeFolder('')));
  app.use(singleQuery);
  const inFlight = boundedInFlight();
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (WHOLE.test(request.path) || request.is('json')) inFlight(request, response, next);
    else next();
  });
  app.use(/^\/api\/shots\/[^/]+\/saves$/, express.json({ limit: SAVE_LIMIT, strict: true }));
  app.use(/^\/api\/shots\/[^/]+\/saves\/[^/]+\/parts\/\d+$/, express.json({ limit: PART_LIMIT, verify: noteHash }));
  app.use('/api/assets', express.raw({ limit: ASSET_LIMITS.bytes + 1024, type: 'application/octet-stream' }));
  app.use(express.json({ limit: '100kb', strict: true }));
  app.use(shallowBody);
  app.use(unreadBody);
  app.useGlobalPipes(new LimitedPipe());
  app.useGlobalFilters(new ProblemFilter());
  const openApi = new DocumentBuilder().setTitle('Tallow').setVersion(VERSION).build();
  SwaggerModule.setup('api/docs', app, () => SwaggerModule.createDocument(app, openApi));
  if (web) {
    const page = readFileSync(join(web, 'index.html'), 'utf8');
    app.useStaticAssets(web, { index: false, immutable: true, maxAge: '1y' });
    app.use((request: Request, response: Response, next: NextFunction) => {
      if (request.method !== 'GET' || request.path.startsWith('/api')) next();
      else if (/\.\w+$/.test(request.path)) next(new Problem(404, 'There is no such file.'));
      else
        response
          .set('Cache-Control', 'no-store')
          .type('html')
          .send(page.replaceAll(NONCE_PLACE, nonceOf(response)));
    });
  }
  return app;
}
