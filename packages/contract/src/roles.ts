/** What a person is to a practice, most trusted first. */
export const roles = ['owner', 'advisor', 'technician', 'client'] as const;
export type Role = (typeof roles)[number];

export const roleMeanings: Readonly<Record<Role, string>> = {
  owner: 'everything, with people and settings',
  advisor: 'all work on all sites',
  technician: 'sampling, field measurements and job records; no prices, no deleting',
  client: 'reads the reports of the sites shared with them, says yes or no to a quote, and writes to the practice',
};

/** Who may do what. The server decides by this table; the web only hides what it would refuse. */
export const permissions = {
  'report.read': ['owner', 'advisor', 'technician', 'client'],
  'work.read': ['owner', 'advisor', 'technician'],
  'field.write': ['owner', 'advisor', 'technician'],
  'work.write': ['owner', 'advisor'],
  'work.delete': ['owner', 'advisor'],
  /** What products cost in a plan. */
  'costs.read': ['owner', 'advisor', 'client'],
  'prices.read': ['owner', 'advisor'],
  'prices.write': ['owner', 'advisor'],
  /** A client shares what they read themselves, where the practice allows it. */
  'report.share': ['owner', 'advisor', 'client'],
  /** Saying yes or no to what is offered. */
  'quote.answer': ['owner', 'advisor', 'client'],
  'practice.manage': ['owner'],
} as const satisfies Readonly<Record<string, readonly Role[]>>;
export type Permission = keyof typeof permissions;

export function allows(role: Role, permission: Permission): boolean {
  return (permissions[permission] as readonly Role[]).includes(role);
}
