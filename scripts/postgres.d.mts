export function findBinaries(): string | undefined;
