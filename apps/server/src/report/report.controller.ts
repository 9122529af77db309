import { ShareLinkAnswer, ShareLinkInput, SharedSiteAnswer, SiteReportAnswer } from '@glenfold/contract';
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
  Req,
  type StreamableFile,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';
import { type Access, For } from '../platform/gate.ts';
import { notFound } from '../platform/problem.ts';
import { planFile } from '../rates/planFile.ts';
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
  ) {}

  @Get('reports')
  @For('report.read')
  @ApiOkResponse({ type: SharedSiteAnswer, isArray: true })
  sites(@Req() { access }: Request): Promise<SharedSiteAnswer[]> {
    return this.reports.sites(readable(access!));
  }

  @Get('sites/:siteId/report')
  @For('report.read')
  @ApiOkResponse({ type: SiteReportAnswer })
  site(@Param('siteId', ParseUUIDPipe) siteId: string, @Req() { access }: Request): Promise<SiteReportAnswer> {
    if (readable(access!)?.includes(siteId) === false) notFound();
    return this.reports.site(siteId, `/api/sites/${siteId}/report`);
  }

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
    return planFile(await this.reports.plan(siteId, planId));
  }

  @Get('sites/:siteId/share-links')
  @For('report.share')
  @ApiOkResponse({ type: ShareLinkAnswer, isArray: true })
  shared(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<ShareLinkAnswer[]> {
    return this.links.links(siteId);
  }

  @Post('sites/:siteId/share-links')
  @For('report.share')
  @ApiCreatedResponse({ type: ShareLinkAnswer })
  share(@Param('siteId', ParseUUIDPipe) siteId: string, @Body() input: ShareLinkInput): Promise<ShareLinkAnswer> {
    return this.links.make(siteId, input);
  }

  @Delete('share-links/:id')
  @For('report.share')
  @HttpCode(204)
  @ApiNoContentResponse()
  revoke(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.links.revoke(id);
  }

  @Get('shared/:token')
  @For('anyone')
  @Header('x-robots-tag', 'noindex')
  @ApiOkResponse({ type: SiteReportAnswer })
  byLink(@Param('token') token: string): Promise<SiteReportAnswer> {
    return this.links.open(token, (siteId) => this.reports.site(siteId, `/api/shared/${token}`));
  }

  @Get('shared/:token/plans/:planId/plan.pdf')
  @For('anyone')
  @Header('content-type', 'application/pdf')
  @Header('x-robots-tag', 'noindex')
  @ApiProduces('application/pdf')
  @ApiOkResponse(pdf)
  planByLink(@Param('token') token: string, @Param('planId', ParseUUIDPipe) planId: string): Promise<StreamableFile> {
    return this.links.open(token, async (siteId) => planFile(await this.reports.plan(siteId, planId)));
  }
}
