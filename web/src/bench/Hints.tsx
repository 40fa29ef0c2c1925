// What is worth knowing of a step: a few of it, and the rest when it is asked for.
import { useState } from 'react';
import { Act } from '../kit/Act';

/** As many are told at once; where one more is all there is, it is told too. */
const FEW = 4;

export function Hints({ of, messages }: { of: string; messages: string[] }) {
  const [whole, setWhole] = useState(false);
  const more = messages.length - FEW;
  const shown = whole || more < 2 ? messages : messages.slice(0, FEW);
  return (
    <>
      {shown.map((message) => (
        <span className="soft" key={message} style={{ display: 'block' }}>
          {message}.
        </span>
      ))}
      {more > 1 && (
        <Act
          className="usual"
          aria-expanded={whole}
          aria-label={whole ? `Fewer remarks on ${of}` : `${more} more remarks on ${of}: show them`}
          onClick={() => setWhole(!whole)}
        >
          {whole ? 'fewer' : `${more} more`}
        </Act>
      )}
    </>
  );
}
