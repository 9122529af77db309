import type { Role } from '@glenfold/contract';

/** Ids that addresses and bodies are filled with. */
export type Ids = Readonly<
  Record<
    | 'siteId'
    | 'zoneId'
    | 'resultId'
    | 'importId'
    | 'productId'
    | 'planId'
    | 'programId'
    | 'quoteId'
    | 'ownerDraftId'
    | 'ownerReportId'
    | 'quoteLineId'
    | 'memberId'
    | 'messageId'
    | 'invitationId'
    | 'linkId'
    | 'mailId'
    | 'practiceId'
    | 'photoId'
    | 'underlayId'
    | 'bagId'
    | 'laboratoryId'
    | 'machineId'
    | 'settingId'
    | 'runId'
    | 'endedRunId'
    | 'coreId'
    | 'jobId'
    | 'siteDateId'
    | 'calendarLinkId'
    | 'profileId'
    | 'questionId'
    | 'fieldTestId'
    | 'loadCheckId',
    string
  >
>;

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';
export type Who = Role | 'nobody';

export interface Route {
  /** owner, advisor, technician, client, nobody: the first letters of those who are let in. */
  readonly for: string;
  /** Which record the address is about. */
  readonly id?: keyof Ids;
  readonly body?: (ids: Ids) => object;
  readonly query?: (ids: Ids) => string;
  /** Nothing in it belongs to a practice, or what does is the asker's own. */
  readonly ownOnly?: true;
}
