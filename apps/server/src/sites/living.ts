import { type FindOperator, Raw } from 'typeorm';

/** Of a column with a site's id: only of sites that are there still. */
export const ofLivingSite = (): FindOperator<string> =>
  Raw(
    (column) => `EXISTS (SELECT FROM site living WHERE living."id" = ${column} AND living."deletedAt" IS NULL)`,
  ) as FindOperator<string>;

/** Of a column with a zone's id: only of zones, deleted or not, of sites that are there still. */
export const ofLivingZone = (): FindOperator<string> =>
  Raw(
    (column) =>
      `EXISTS (SELECT FROM zone z JOIN site living ON living."id" = z."siteId" WHERE z."id" = ${column} AND living."deletedAt" IS NULL)`,
  ) as FindOperator<string>;
