import { Global, Module, type DynamicModule } from '@nestjs/common';
import type { Knex } from 'knex';
import { AssetsController } from './assets/assets.controller.ts';
import { AssetsService } from './assets/assets.service.ts';
import { ArchivesController } from './archive/archives.controller.ts';
import { ArchivesService } from './archive/archives.service.ts';
import { CardsController } from './cards/cards.controller.ts';
import { DATABASE } from './db/database.ts';
import { ExportsController } from './exports/exports.controller.ts';
import { ExportsService } from './exports/exports.service.ts';
import { FootageController } from './footage/footage.controller.ts';
import { FootageService } from './footage/footage.service.ts';
import { SoundsController } from './sounds/sounds.controller.ts';
import { SoundsService } from './sounds/sounds.service.ts';
import { KeptController } from './shelf/kept.controller.ts';
import { KeptService } from './shelf/kept.service.ts';
import { ShelfController } from './shelf/shelf.controller.ts';
import { ShelfService } from './shelf/shelf.service.ts';
import { QueueService } from './queue/queue.service.ts';
import { HealthController } from './health/health.controller.ts';
import { LoopsService } from './cards/loops.service.ts';
import { ChangesService } from './shots/changes.service.ts';
import { OpenShots } from './shots/open-shots.ts';
import { PartsService } from './shots/parts.service.ts';
import { PicturesService } from './cards/pictures.service.ts';
import { ProductionsService } from './shots/productions.service.ts';
import { SavesService } from './shots/saves.service.ts';
import { ProductionsController, ShotsController } from './shots/shots.controller.ts';
import { ShotsService } from './shots/shots.service.ts';
import { RoomController } from './tidy/room.controller.ts';
import { VersionsController } from './versions/versions.controller.ts';
import { VersionsService } from './versions/versions.service.ts';

@Module({ controllers: [HealthController, RoomController] })
class HealthModule {}

@Module({
  controllers: [ShotsController, ProductionsController],
  providers: [ShotsService, SavesService, PartsService, ChangesService, ProductionsService, OpenShots],
  exports: [ShotsService, SavesService, ProductionsService, OpenShots],
})
class ShotsModule {}

@Module({ controllers: [AssetsController], providers: [AssetsService] })
class AssetsModule {}

@Module({ providers: [QueueService], exports: [QueueService] })
class QueueModule {}

@Module({ imports: [QueueModule], controllers: [FootageController], providers: [FootageService] })
class FootageModule {}

@Module({ imports: [QueueModule], controllers: [ArchivesController], providers: [ArchivesService] })
class ArchivesModule {}

@Module({
  imports: [ShotsModule],
  controllers: [ShelfController, KeptController],
  providers: [ShelfService, KeptService],
})
class ShelfModule {}

@Module({ controllers: [SoundsController], providers: [SoundsService] })
class SoundsModule {}

@Module({
  imports: [ShotsModule, QueueModule],
  controllers: [CardsController],
  providers: [PicturesService, LoopsService],
  exports: [PicturesService],
})
class CardsModule {}

@Module({
  imports: [ShotsModule, QueueModule, CardsModule],
  controllers: [VersionsController],
  providers: [VersionsService],
  exports: [VersionsService],
})
class VersionsModule {}

@Module({
  imports: [ShotsModule, QueueModule, VersionsModule],
  controllers: [ExportsController],
  providers: [ExportsService],
})
class ExportsModule {}

@Global()
@Module({})
export class AppModule {
  static with(database: Knex): DynamicModule {
    return {
      module: AppModule,
      imports: [
        HealthModule,
        ShotsModule,
        AssetsModule,
        CardsModule,
        ExportsModule,
        FootageModule,
        ArchivesModule,
        SoundsModule,
        ShelfModule,
        VersionsModule,
      ],
      providers: [{ provide: DATABASE, useValue: database }],
      exports: [DATABASE],
    };
  }
}
