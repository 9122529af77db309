import { type DynamicModule, type MiddlewareConsumer, Module, type NestModule } from '@nestjs/common';
import { AuditService } from '../audit/audit.service.ts';
import type { Installation } from '../platform/installation.ts';
import { AccessMiddleware } from './access.ts';
import { SiteMail } from './siteMail.service.ts';
import { DemoController, DemoPeople } from './demoPeople.ts';
import { InvitationService } from './invitation.service.ts';
import { MailService } from './mail.service.ts';
import { MemberService } from './member.service.ts';
import { PracticeController } from './practice.controller.ts';
import { PracticeService } from './practice.service.ts';
import { ResetService } from './reset.service.ts';
import { SecretAddresses } from './secretAddresses.ts';
import { SessionController } from './session.controller.ts';
import { SessionService } from './session.service.ts';
import { SetupService } from './setup.service.ts';
import { SignInService } from './signIn.service.ts';

/** Practices, people, roles, sessions. */
@Module({})
export class PeopleModule implements NestModule {
  /** @param demo mounts the way in with one click. */
  static with({ demo }: Pick<Installation, 'demo'>): DynamicModule {
    return {
      module: PeopleModule,
      global: true,
      controllers: [SessionController, PracticeController, ...(demo ? [DemoController] : [])],
      providers: [
        AuditService,
        SiteMail,
        DemoPeople,
        InvitationService,
        MailService,
        MemberService,
        PracticeService,
        ResetService,
        SecretAddresses,
        SessionService,
        SetupService,
        SignInService,
      ],
      exports: [SiteMail, PracticeService, SecretAddresses, SessionService, SetupService],
    };
  }

  configure(consumer: MiddlewareConsumer): void {
    consumer.apply(AccessMiddleware).forRoutes('{*path}');
  }
}
