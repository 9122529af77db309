import { ProductAnswer, ProductPriceInput } from '@glenfold/contract';
import { Body, Controller, Get, Param, ParseUUIDPipe, Put } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { SeenVersion } from '../platform/version.ts';
import { CatalogueService, productAnswer } from './catalogue.service.ts';

@ApiTags('products')
@Controller()
export class CatalogueController {
  constructor(private readonly catalogue: CatalogueService) {}

  @Get('products')
  @For('prices.read')
  @ApiOkResponse({ type: ProductAnswer, isArray: true })
  async products(): Promise<ProductAnswer[]> {
    return (await this.catalogue.products()).map(productAnswer);
  }

  @Put('products/:id')
  @For('prices.write')
  @ApiOkResponse({ type: ProductAnswer })
  async setPrice(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: ProductPriceInput,
    @SeenVersion() version: number,
  ): Promise<ProductAnswer> {
    return productAnswer(await this.catalogue.setPrice(id, input, version));
  }
}
