import { PhotoAnswer, PhotoInput, UnderlayAnswer, UnderlayInput, UnderlayPlaceInput } from '@glenfold/contract';
import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Put,
  Query,
  type StreamableFile,
} from '@nestjs/common';
import {
  ApiCreatedResponse,
  ApiNoContentResponse,
  ApiOkResponse,
  ApiProduces,
  ApiQuery,
  ApiTags,
} from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { SeenVersion } from '../platform/version.ts';
import { PicturesService } from './pictures.service.ts';

/** A picture never changes under its address; it is kept by the browser that was let in, and by nobody between. */
const KEPT = 'private, max-age=31536000, immutable';

@ApiTags('ground')
@Controller()
export class PicturesController {
  constructor(private readonly pictures: PicturesService) {}

  /** Photos of a site's zones. */
  @Get('sites/:siteId/photos')
  @For('work.read')
  @ApiOkResponse({ type: PhotoAnswer, isArray: true })
  photos(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<PhotoAnswer[]> {
    return this.pictures.photos(siteId);
  }

  /** Add a photo to a zone. */
  @Post('zones/:zoneId/photos')
  @For('field.write')
  @ApiCreatedResponse({ type: PhotoAnswer })
  addPhoto(@Param('zoneId', ParseUUIDPipe) zoneId: string, @Body() input: PhotoInput): Promise<PhotoAnswer> {
    return this.pictures.addPhoto(zoneId, input);
  }

  /** The picture of a photo, or its thumbnail. */
  @Get('photos/:photoId/image')
  @For('work.read')
  @Header('cache-control', KEPT)
  @ApiQuery({ name: 'size', enum: ['small'], required: false })
  @ApiProduces('image/jpeg', 'image/png', 'image/webp')
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  photo(@Param('photoId', ParseUUIDPipe) photoId: string, @Query('size') size?: string): Promise<StreamableFile> {
    return this.pictures.photo(photoId, size === 'small');
  }

  /** Delete a photo; it can be restored. */
  @Delete('photos/:photoId')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  removePhoto(@Param('photoId', ParseUUIDPipe) photoId: string): Promise<void> {
    return this.pictures.removePhoto(photoId);
  }

  /** Restore a deleted photo. */
  @Post('photos/:photoId/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: PhotoAnswer })
  restorePhoto(@Param('photoId', ParseUUIDPipe) photoId: string): Promise<PhotoAnswer> {
    return this.pictures.restorePhoto(photoId);
  }

  /** Lay a picture under the plan. */
  @Post('sites/:siteId/underlay')
  @For('work.write')
  @ApiCreatedResponse({ type: UnderlayAnswer })
  layUnder(@Param('siteId', ParseUUIDPipe) siteId: string, @Body() input: UnderlayInput): Promise<UnderlayAnswer> {
    return this.pictures.layUnder(siteId, input);
  }

  /** Move, turn or scale the picture under the plan. */
  @Put('underlays/:underlayId')
  @For('work.write')
  @ApiOkResponse({ type: UnderlayAnswer })
  placeUnderlay(
    @Param('underlayId', ParseUUIDPipe) underlayId: string,
    @Body() input: UnderlayPlaceInput,
    @SeenVersion() version: number,
  ): Promise<UnderlayAnswer> {
    return this.pictures.placeUnderlay(underlayId, input, version);
  }

  /** The picture under the plan. */
  @Get('underlays/:underlayId/image')
  @For('work.read')
  @Header('cache-control', KEPT)
  @ApiProduces('image/jpeg', 'image/png', 'image/webp')
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  underlayImage(@Param('underlayId', ParseUUIDPipe) underlayId: string): Promise<StreamableFile> {
    return this.pictures.underlayImage(underlayId);
  }

  /** Take the picture from under the plan; it can be restored. */
  @Delete('underlays/:underlayId')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeUnderlay(@Param('underlayId', ParseUUIDPipe) underlayId: string): Promise<void> {
    return this.pictures.removeUnderlay(underlayId);
  }

  /** Restore the picture under the plan. */
  @Post('underlays/:underlayId/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: UnderlayAnswer })
  restoreUnderlay(@Param('underlayId', ParseUUIDPipe) underlayId: string): Promise<UnderlayAnswer> {
    return this.pictures.restoreUnderlay(underlayId);
  }
}
