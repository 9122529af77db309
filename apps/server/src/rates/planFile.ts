import { StreamableFile } from '@nestjs/common';
import type { Plan } from './plan.entity.ts';
import { planPdf } from './planPdf.ts';

/** A plan on paper, as a download that a browser shows. */
export async function planFile(plan: Plan): Promise<StreamableFile> {
  const file = `${plan.issued!.siteName} ${plan.issued!.zoneName} plan.pdf`.replace(/[^\w .-]/g, '');
  return new StreamableFile(await planPdf(plan), {
    type: 'application/pdf',
    disposition: `inline; filename="${file}"`,
  });
}
