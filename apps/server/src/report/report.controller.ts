import type { Working } from '@glenfold/agronomy';
import {
  QuoteAnswer,
  QuoteAnswersInput,
  ShareLinkAnswer,
  ShareLinkInput,
  SharedSitesAnswer,
  SiteReportAnswer,
} from '@glenfold/contract';
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
  Req,
  type StreamableFile,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';
import { AskedForSites, type SitesQuery, sitesAsked } from '../ground/sitesQuery.ts';
import { type Access, For } from '../platform/gate.ts';
import { notFound } from '../platform/problem.ts';
import { WorkingQuery, workingOf, AnswersWorking } from '../platform/workings.ts';
import { QuotePapers } from '../rates/quotePapers.service.ts';
import { Quotes } from '../rates/quotes.service.ts';
import { ProgramPapers } from '../rates/programPapers.service.ts';
import { Days } from '../settings/days.service.ts';
import { OwnerReports } from './ownerReports.service.ts';
import { ReportService } from './report.service.ts';
import { ShareLinkService } from './shareLink.service.ts';

/** Sites whose reports the person reads: a client's own, else all of the practice. */
const readable = ({ role, siteIds }: Access): readonly string[] | undefined =>
  role === 'client' ? siteIds : undefined;

const pdf = { schema: { type: 'string', format: 'binary' } };

@ApiTags('report')
@Controller()
export class ReportController {
  constructor(
    private readonly reports: ReportService,
    private readonly links: ShareLinkService,
    private readonly owners: OwnerReports,
    private readonly days: Days,
    private readonly papers: ProgramPapers,
    private readonly quotes: Quotes,
    private readonly quotePapers: QuotePapers,
  ) {}

  /** Sites whose reports can be read. */
  @Get('reports')
  @For('report.read')
  @AskedForSites()
  @ApiOkResponse({ type: SharedSitesAnswer })
  sites(@Req() { access }: Request, @Query() query: SitesQuery): Promise<SharedSitesAnswer> {
    return this.reports.sites(sitesAsked(query), readable(access!));
  }

  /** The report of a site. */
  @Get('sites/:siteId/report')
  @For('report.read')
  @ApiOkResponse({ type: SiteReportAnswer })
  site(@Param('siteId', ParseUUIDPipe) siteId: string, @Req() { access }: Request): Promise<SiteReportAnswer> {
    if (readable(access!)?.includes(siteId) === false) notFound();
    return this.reports.site(siteId, `/sites/${siteId}/report`);
  }

  /** A program of the report on paper. */
  @Get('sites/:siteId/report/plans/:planId/plan.pdf')
  @For('report.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiOkResponse(pdf)
  async plan(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Param('planId', ParseUUIDPipe) planId: string,
    @Req() { access }: Request,
  ): Promise<StreamableFile> {
    if (readable(access!)?.includes(siteId) === false) notFound();
    return this.#paper(siteId, planId);
  }

  /** How a number of a handed over program was worked out. */
  @Get('sites/:siteId/report/plans/:planId/working')
  @For('report.read')
  @AnswersWorking()
  async working(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Param('planId', ParseUUIDPipe) planId: string,
    @Query() asked: WorkingQuery,
    @Req() { access }: Request,
  ): Promise<Working> {
    if (readable(access!)?.includes(siteId) === false) notFound();
    return workingOf(await this.reports.whole(siteId, planId), asked);
  }

  /** What the owner says to a quote. */
  @Post('sites/:siteId/report/quotes/:quoteId/answers')
  @For('quote.answer')
  @HttpCode(200)
  @ApiOkResponse({ type: QuoteAnswer })
  async say(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Param('quoteId', ParseUUIDPipe) quoteId: string,
    @Body() input: QuoteAnswersInput,
    @Req() { access }: Request,
  ): Promise<QuoteAnswer> {
    if (readable(access!)?.includes(siteId) === false) notFound();
    return this.quotes.say(siteId, quoteId, input);
  }

  /** A quote of the report on paper. */
  @Get('sites/:siteId/report/quotes/:quoteId/quote.pdf')
  @For('report.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiOkResponse(pdf)
  async quote(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Param('quoteId', ParseUUIDPipe) quoteId: string,
    @Req() { access }: Request,
  ): Promise<StreamableFile> {
    if (readable(access!)?.includes(siteId) === false) notFound();
    return this.quotePapers.onPaper(siteId, quoteId);
  }

  /** The report for the owner on paper, as it was handed over. */
  @Get('sites/:siteId/report/owner-reports/:id/report.pdf')
  @For('report.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiOkResponse(pdf)
  async ownerReport(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Param('id', ParseUUIDPipe) id: string,
    @Req() { access }: Request,
  ): Promise<StreamableFile> {
    if (readable(access!)?.includes(siteId) === false) notFound();
    return this.owners.onPaper(id, siteId, false);
  }

  /** The owner's report on paper, for who holds the link. */
  @Get('shared/:token/owner-reports/:id/report.pdf')
  @For('anyone')
  @Header('content-type', 'application/pdf')
  @Header('x-robots-tag', 'noindex')
  @ApiProduces('application/pdf')
  @ApiOkResponse(pdf)
  ownerReportByLink(@Param('token') token: string, @Param('id', ParseUUIDPipe) id: string): Promise<StreamableFile> {
    return this.links.open(token, (siteId) => this.owners.onPaper(id, siteId, false));
  }

  /** Links by which a site's report is read. */
  @Get('sites/:siteId/share-links')
  @For('report.share')
  @ApiOkResponse({ type: ShareLinkAnswer, isArray: true })
  shared(@Param('siteId', ParseUUIDPipe) siteId: string, @Req() { access }: Request): Promise<ShareLinkAnswer[]> {
    if (readable(access!)?.includes(siteId) === false) notFound();
    return this.links.links(siteId);
  }

  /** Make a link by which a site's report is read. */
  @Post('sites/:siteId/share-links')
  @For('report.share')
  @ApiCreatedResponse({ type: ShareLinkAnswer })
  share(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Body() input: ShareLinkInput,
    @Req() { access }: Request,
  ): Promise<ShareLinkAnswer> {
    if (readable(access!)?.includes(siteId) === false) notFound();
    return this.links.make(siteId, input);
  }

  /** End a link. */
  @Delete('share-links/:id')
  @For('report.share')
  @HttpCode(204)
  @ApiNoContentResponse()
  revoke(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.links.revoke(id);
  }

  /** The report of a site, for who holds the link. */
  @Get('shared/:token')
  @For('anyone')
  @Header('x-robots-tag', 'noindex')
  @ApiOkResponse({ type: SiteReportAnswer })
  byLink(@Param('token') token: string): Promise<SiteReportAnswer> {
    return this.links.open(token, (siteId) => this.reports.site(siteId, `/shared/${token}`));
  }

  /** Accept or decline lines of a quote, for who holds the link. */
  @Post('shared/:token/quotes/:quoteId/answers')
  @For('anyone')
  @Header('x-robots-tag', 'noindex')
  @HttpCode(200)
  @ApiOkResponse({ type: QuoteAnswer })
  sayByLink(
    @Param('token') token: string,
    @Param('quoteId', ParseUUIDPipe) quoteId: string,
    @Body() input: QuoteAnswersInput,
  ): Promise<QuoteAnswer> {
    return this.links.open(token, (siteId) => this.quotes.say(siteId, quoteId, input));
  }

  /** A quote on paper, for who holds the link. */
  @Get('shared/:token/quotes/:quoteId/quote.pdf')
  @For('anyone')
  @Header('content-type', 'application/pdf')
  @Header('x-robots-tag', 'noindex')
  @ApiProduces('application/pdf')
  @ApiOkResponse(pdf)
  quoteByLink(
    @Param('token') token: string,
    @Param('quoteId', ParseUUIDPipe) quoteId: string,
  ): Promise<StreamableFile> {
    return this.links.open(token, (siteId) => this.quotePapers.onPaper(siteId, quoteId));
  }

  /** A program on paper, for who holds the link. */
  @Get('shared/:token/plans/:planId/plan.pdf')
  @For('anyone')
  @Header('content-type', 'application/pdf')
  @Header('x-robots-tag', 'noindex')
  @ApiProduces('application/pdf')
  @ApiOkResponse(pdf)
  planByLink(@Param('token') token: string, @Param('planId', ParseUUIDPipe) planId: string): Promise<StreamableFile> {
    return this.links.open(token, (siteId) => this.#paper(siteId, planId));
  }

  /** How a number of a program was worked out, for who holds the link. */
  @Get('shared/:token/plans/:planId/working')
  @For('anyone')
  @Header('x-robots-tag', 'noindex')
  @AnswersWorking()
  workingByLink(
    @Param('token') token: string,
    @Param('planId', ParseUUIDPipe) planId: string,
    @Query() asked: WorkingQuery,
  ): Promise<Working> {
    return this.links.open(token, async (siteId) => workingOf(await this.reports.whole(siteId, planId), asked));
  }

  async #paper(siteId: string, planId: string): Promise<StreamableFile> {
    const plan = await this.reports.plan(siteId, planId);
    return this.papers.onPaper([plan.paper], 'program', await this.days.on(siteId, plan.issuedAt));
  }
}
