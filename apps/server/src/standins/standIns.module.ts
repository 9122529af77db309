import { type DynamicModule, Module } from '@nestjs/common';
import { Installation } from '../platform/installation.ts';
import { Laboratories } from '../ports/laboratory.ts';
import { MailCarrier } from '../ports/mailCarrier.ts';
import { SmtpCarrier } from '../ports/smtpCarrier.ts';
import { StandInLaboratoriesController } from './laboratory/standInLaboratories.controller.ts';
import { StandInLaboratories } from './laboratory/standInLaboratories.ts';
import { OutboxOnly } from './outboxOnly.ts';

/** A real carrier where the installation names a mail server. */
function mailCarrier({ smtp, mailFrom }: Installation): MailCarrier {
  return smtp ? new SmtpCarrier(smtp, mailFrom) : new OutboxOnly();
}

/** What stands behind the ports here. The steps know the ports alone, so that nothing of them changes with it. */
@Module({
  controllers: [StandInLaboratoriesController],
  providers: [
    { provide: MailCarrier, useFactory: mailCarrier, inject: [Installation] },
    StandInLaboratories,
    { provide: Laboratories, useExisting: StandInLaboratories },
  ],
  exports: [MailCarrier, Laboratories],
})
export class StandInsModule {
  static everywhere(): DynamicModule {
    return { module: StandInsModule, global: true };
  }
}
