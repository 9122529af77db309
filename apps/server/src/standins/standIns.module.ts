import { type DynamicModule, Module } from '@nestjs/common';
import { Installation } from '../platform/installation.ts';
import { FileStore } from '../ports/fileStore.ts';
import { Laboratories } from '../ports/laboratory.ts';
import { MailCarrier } from '../ports/mailCarrier.ts';
import { SmtpCarrier } from '../ports/smtpCarrier.ts';
import { StandInLaboratoriesController } from './laboratory/standInLaboratories.controller.ts';
import { StandInLaboratories } from './laboratory/standInLaboratories.ts';
import { FolderStore } from './folderStore.ts';
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
    { provide: FileStore, useFactory: ({ files }: Installation) => new FolderStore(files), inject: [Installation] },
    StandInLaboratories,
    { provide: Laboratories, useExisting: StandInLaboratories },
  ],
  exports: [FileStore, MailCarrier, Laboratories],
})
export class StandInsModule {
  static everywhere(): DynamicModule {
    return { module: StandInsModule, global: true };
  }
}
