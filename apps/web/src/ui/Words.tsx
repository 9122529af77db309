import { withReadableDays } from '@glenfold/contract';
import { Fragment } from 'react';

const SUBSCRIPTS = /[₀-₉]+/g;

/** Text as people read it: its days in one form, and subscript digits (P₂O₅) set as subscripts, which the bundled fonts can draw. */
export function Words({ children }: { readonly children: string }) {
  const text = withReadableDays(children);
  const parts = text.split(SUBSCRIPTS);
  const subs = text.match(SUBSCRIPTS) ?? [];
  return parts.map((part, index) => (
    <Fragment key={index}>
      {part}
      {subs[index] && <sub>{[...subs[index]].map((digit) => digit.charCodeAt(0) - 0x2080).join('')}</sub>}
    </Fragment>
  ));
}
