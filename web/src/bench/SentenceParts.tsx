// A sentence as its words stand, with what its values and choices are shown by.
import { Fragment, type ReactNode } from 'react';
import { Terms } from '../parts/Terms';
import type { Part } from './parts';
import { fieldOf } from './sentence';

type Of<Kind extends Part['kind']> = Extract<Part, { kind: Kind }>;

interface Props {
  parts: Part[];
  value: (part: Of<'value'>) => ReactNode;
  choice: (part: Of<'choice'>) => ReactNode;
}

export function SentenceParts({ parts, value, choice }: Props) {
  const known = new Map<string, number>();
  // A field keeps the cursor when words come before it: it is told by what it is of, not by where it stands.
  const keyOf = (part: Exclude<Part, { kind: 'word' }>) => {
    const field = fieldOf(part.path);
    const count = (known.get(field) ?? 0) + 1;
    known.set(field, count);
    return `${field} ${count}`;
  };
  return parts.map((part, place) => {
    if (part.kind !== 'word')
      return <Fragment key={keyOf(part)}> {part.kind === 'choice' ? choice(part) : value(part)}</Fragment>;
    // Commas and stops sit close to the word before them.
    const gap = place === 0 || /^[,.]/.test(part.text) ? '' : ' ';
    return (
      <Fragment key={`word ${place}`}>
        {gap}
        {part.strong ? <b>{part.text}</b> : <Terms text={part.text} />}
      </Fragment>
    );
  });
}
