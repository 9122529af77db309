import { StreamableFile } from '@nestjs/common';
import { dayOf } from '../platform/clock.ts';
import { Problem } from '../platform/problem.ts';
import type { IssuedPlan, Plan } from './plan.entity.ts';
import { planPdf } from './planPdf.ts';

/** A plan on paper, as a download that a browser shows. */
async function onPaper(issued: IssuedPlan, kind: 'plan' | 'draft', day: string): Promise<StreamableFile> {
  const file = `${issued.siteName} ${issued.zoneName} ${kind}.pdf`.replace(/[^\w .-]/g, '');
  return new StreamableFile(await planPdf(issued, kind, day), {
    type: 'application/pdf',
    disposition: `inline; filename="${file}"`,
  });
}

/** A plan as it was handed over. */
export function planFile({ issued, issuedAt }: Plan): Promise<StreamableFile> {
  if (!issued || !issuedAt) throw new Problem(404, 'Not handed over', 'This plan has not been handed over yet.');
  return onPaper(issued, 'plan', dayOf(issuedAt));
}

/** A plan as it stands on the day of printing. */
export const draftFile = (draft: IssuedPlan, today: string): Promise<StreamableFile> => onPaper(draft, 'draft', today);
