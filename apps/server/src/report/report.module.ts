import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { RatesModule } from '../rates/rates.module.ts';
import { ProofModule } from '../proof/proof.module.ts';
import { SeasonModule } from '../season/season.module.ts';
import { ReportService } from './report.service.ts';
import { SitePrice } from './sitePrice.service.ts';
import { ShareLinkService } from './shareLink.service.ts';
import { OwnerReports } from './ownerReports.service.ts';
import { OwnerReportsController } from './ownerReports.controller.ts';
import { ReadingModule } from '../reading/reading.module.ts';
import { ReportController } from './report.controller.ts';

@Module({
  imports: [GroundModule, RatesModule, ReadingModule, SeasonModule, ProofModule],
  controllers: [ReportController, OwnerReportsController],
  providers: [ReportService, SitePrice, OwnerReports, ShareLinkService],
  exports: [OwnerReports],
})
export class ReportModule {}
