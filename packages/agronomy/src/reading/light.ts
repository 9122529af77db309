import { findGrass } from '../nutrients/grasses.ts';
import type { ZoneFacts } from './zoneFacts.ts';

/** Hours of direct sun from which a grass stands in full sun, and below which in deep shade (general extension figures). */
const FULL = { cool: 6, warm: 8 } as const;
const DEEP = 3;

type Light = Pick<ZoneFacts, 'shade' | 'shadeChosen'>;

/**
 * The class of light that everything is worked out by: by the hours of direct sun where they were counted, as it was
 * chosen where not.
 *
 * @param grass the main one, whose season says how much is full sun; @param sunHours hours a day
 * @returns with the class that was chosen against the hours, where it was
 */
export function lightOf(
  shade: ZoneFacts['shade'],
  sunHours: number | null | undefined,
  grass: string | null | undefined,
): Light {
  if (sunHours == null) return { shade };
  const season = grass ? findGrass(grass).season : 'cool';
  const counted = sunHours < DEEP ? 'deep' : sunHours < FULL[season] ? 'part' : 'full sun';
  return counted === shade ? { shade } : { shade: counted, shadeChosen: shade };
}

/** That the hours decide, in a sentence; nothing where they agree with what was chosen. */
export const lightWords = ({
  shade,
  shadeChosen,
  sunHours,
}: Pick<ZoneFacts, 'shade' | 'shadeChosen' | 'sunHours'>): string =>
  shadeChosen === undefined
    ? ''
    : ` ${sunHours!} h of sun were counted: calculated as ${shade === 'full sun' ? shade : `${shade} shade`}, not as the ${shadeChosen === 'full sun' ? shadeChosen : `${shadeChosen} shade`} that was chosen.`;
