import {
  type Analyte,
  type ReportedValue,
  type ReportedValues,
  analyteKeys,
  inOwnUnit,
  questionDepth,
  questionPlausibility,
} from '@glenfold/agronomy';

export const entriesOf = (values: ReportedValues): Array<[Analyte, ReportedValue]> =>
  analyteKeys.flatMap((key) => (values[key] ? [[key, values[key]] as [Analyte, ReportedValue]] : []));

/** Values that look like a slip, for a result or a row of a file. */
export function questionsAbout({
  depth,
  values,
}: {
  readonly depth?: number | undefined;
  readonly values: ReportedValues;
}): string[] {
  const asked = [
    depth === undefined ? undefined : questionDepth(depth),
    ...entriesOf(values).map(([analyte, value]) =>
      value.belowDetection ? undefined : questionPlausibility(analyte, inOwnUnit(analyte, value).value),
    ),
  ];
  return asked.filter((question) => question !== undefined);
}
