import {
  GenericMaterialAnswer,
  GenericMaterialsInput,
  MaterialInput,
  MaterialsFileAnswer,
  MaterialsFileInput,
  ProductAnswer,
  ProductNameAnswer,
} from '@glenfold/contract';
import { Body, Controller, Delete, Get, Header, HttpCode, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { SeenVersion } from '../platform/version.ts';
import { MaterialsService, productAnswer } from './materials.service.ts';

@ApiTags('products')
@Controller('products')
export class MaterialsController {
  constructor(private readonly materials: MaterialsService) {}

  /** Names of the products, for those who put them down. */
  @Get('names')
  @For('field.write')
  @ApiOkResponse({ type: ProductNameAnswer, isArray: true })
  async names(): Promise<ProductNameAnswer[]> {
    return (await this.materials.products()).map(({ id, name, packUnit, analysis }) => ({
      ...{ id, name, packUnit },
      bulkDensity: analysis.bulkDensity ?? null,
    }));
  }

  /** Products of the practice with prices and stock. */
  @Get()
  @For('prices.read')
  @ApiOkResponse({ type: ProductAnswer, isArray: true })
  async products(): Promise<ProductAnswer[]> {
    return (await this.materials.products()).map(productAnswer);
  }

  /** Add a product. */
  @Post()
  @For('prices.write')
  @ApiCreatedResponse({ type: ProductAnswer })
  async add(@Body() input: MaterialInput): Promise<ProductAnswer> {
    return productAnswer(await this.materials.add(input));
  }

  /** Generic products that can be taken over. */
  @Get('generic')
  @For('prices.read')
  @ApiOkResponse({ type: GenericMaterialAnswer, isArray: true })
  generic(): Promise<GenericMaterialAnswer[]> {
    return this.materials.generic();
  }

  /** Take over generic products. */
  @Post('generic')
  @For('prices.write')
  @ApiCreatedResponse({ type: MaterialsFileAnswer })
  takeOver(@Body() { names }: GenericMaterialsInput): Promise<MaterialsFileAnswer> {
    return this.materials.takeOver(names);
  }

  /** The products as a table. */
  @Get('file.csv')
  @For('prices.read')
  @Header('content-type', 'text/csv; charset=utf-8')
  @Header('content-disposition', 'attachment; filename="products.csv"')
  @ApiProduces('text/csv')
  @ApiOkResponse({ schema: { type: 'string' } })
  csv(): Promise<string> {
    return this.materials.csv();
  }

  /** Take in products from a table, whole or not at all. */
  @Post('file')
  @For('prices.write')
  @ApiCreatedResponse({ type: MaterialsFileAnswer })
  import(@Body() { content }: MaterialsFileInput): Promise<MaterialsFileAnswer> {
    return this.materials.import(content);
  }

  /** Change a product. */
  @Put(':id')
  @For('prices.write')
  @ApiOkResponse({ type: ProductAnswer })
  async change(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: MaterialInput,
    @SeenVersion() version: number,
  ): Promise<ProductAnswer> {
    return productAnswer(await this.materials.change(id, input, version));
  }

  /** Delete a product; it can be restored. */
  @Delete(':id')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.materials.remove(id);
  }

  /** Restore a deleted product. */
  @Post(':id/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: ProductAnswer })
  async restore(@Param('id', ParseUUIDPipe) id: string): Promise<ProductAnswer> {
    return productAnswer(await this.materials.restore(id));
  }
}
