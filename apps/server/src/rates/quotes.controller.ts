import type { UnitSystem } from '@glenfold/agronomy';
import { QuoteAnswer, QuoteAnswersInput, QuoteInput, QuoteOfSiteAnswer } from '@glenfold/contract';
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
import { systems, unitsPipe } from '../platform/units.ts';
import { QuotePapers } from './quotePapers.service.ts';
import { Quotes } from './quotes.service.ts';

@ApiTags('rates')
@Controller()
export class QuotesController {
  constructor(
    private readonly quotes: Quotes,
    private readonly papers: QuotePapers,
  ) {}

  /** The quote that was offered last. */
  @Get('sites/:siteId/quote')
  @For('work.read')
  @ApiOkResponse({ type: QuoteOfSiteAnswer })
  async last(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<QuoteOfSiteAnswer> {
    return { quote: await this.quotes.last(siteId) };
  }

  /** Offer the program as it stands; what was offered before is withdrawn. */
  @Post('sites/:siteId/quotes')
  @For('work.write')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiCreatedResponse({ type: QuoteAnswer })
  offer(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Body() input: QuoteInput,
  ): Promise<QuoteAnswer> {
    return this.quotes.offer(siteId, units, input);
  }

  /** What the owner has said on the phone or on paper. */
  @Post('quotes/:quoteId/answers')
  @For('work.write')
  @HttpCode(200)
  @ApiOkResponse({ type: QuoteAnswer })
  say(@Param('quoteId', ParseUUIDPipe) id: string, @Body() input: QuoteAnswersInput): Promise<QuoteAnswer> {
    return this.quotes.say(null, id, input);
  }

  /** Leave out of the program what was declined. */
  @Post('quotes/:quoteId/taken-over')
  @For('work.write')
  @HttpCode(200)
  @ApiOkResponse({ type: QuoteAnswer })
  takeOver(@Param('quoteId', ParseUUIDPipe) id: string): Promise<QuoteAnswer> {
    return this.quotes.takeOver(id);
  }

  /** Withdraw a quote. */
  @Delete('quotes/:quoteId')
  @For('work.write')
  @HttpCode(204)
  @ApiNoContentResponse()
  withdraw(@Param('quoteId', ParseUUIDPipe) id: string): Promise<void> {
    return this.quotes.withdraw(id);
  }

  /** A quote as it was offered, on paper. */
  @Get('quotes/:quoteId/quote.pdf')
  @For('work.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  pdf(@Param('quoteId', ParseUUIDPipe) id: string): Promise<StreamableFile> {
    return this.papers.onPaper(null, id);
  }
}
