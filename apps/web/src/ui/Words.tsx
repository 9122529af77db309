import { Fragment } from 'react';

const SUBSCRIPTS = /[₀-₉]+/g;

/** Text whose subscript digits (P₂O₅) are set as subscripts, which the bundled fonts can draw. */
export function Words({ children }: { readonly children: string }) {
  const parts = children.split(SUBSCRIPTS);
  const subs = children.match(SUBSCRIPTS) ?? [];
  return parts.map((part, index) => (
    <Fragment key={index}>
      {part}
      {subs[index] && <sub>{[...subs[index]].map((digit) => digit.charCodeAt(0) - 0x2080).join('')}</sub>}
    </Fragment>
  ));
}
