import { type SoilGroup, groupOfTexture } from './soilGroups.ts';
import { textureClass } from './texture.ts';

type Share = { readonly value: number } | null | undefined;

/** What is known of a zone’s soil: as somebody wrote it down, and the shares of a jar test. */
interface KnownSoil {
  readonly soilGroup?: SoilGroup | null | undefined;
  readonly measured: { readonly sand?: Share; readonly silt?: Share; readonly clay?: Share };
}

/** The soil of a zone as it was written down, else by its jar test; nothing where neither tells. */
export function soilOf({
  soilGroup,
  measured,
}: KnownSoil): { readonly group: SoilGroup; readonly byJar: boolean } | undefined {
  if (soilGroup) return { group: soilGroup, byJar: false };
  const { sand, silt, clay } = measured;
  if (!sand || !silt || !clay) return undefined;
  const { result } = textureClass({ sand: sand.value, silt: silt.value, clay: clay.value });
  return { group: groupOfTexture(result.class), byJar: true };
}
