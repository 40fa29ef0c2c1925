// Small pictures of words of the trade.
import type { ReactNode } from 'react';

/** An angle of sheet, seen from its end: outside corner at 40, 80; legs of 100 and 60, 12 thick, inside radius 14. */
const ANGLE = 'M40 20V54Q40 80 66 80H150V68H66Q52 68 52 54V20Z';

const PICTURES: Record<string, ReactNode> = {
  'mould line': (
    <>
      <path className="metal" d={ANGLE} />
      <path className="scribe" d="M40 54V92M28 80H66" />
      <circle className="scribe" cx="40" cy="80" r="3" />
      <text x="96" y="96">
        the corner if it were sharp
      </text>
    </>
  ),
  setback: (
    <>
      <path className="metal" d={ANGLE} />
      <path className="scribe" d="M40 90H66M40 86V94M66 62V94" />
      <text x="53" y="103">
        setback
      </text>
    </>
  ),
  'K-factor': (
    <>
      <path className="metal" d={ANGLE} />
      <path className="scribe" d="M47 20V54Q47 73 66 73H150" />
      <text x="110" y="96">
        this line keeps its length
      </text>
    </>
  ),
  'leg outside and inside': (
    <>
      <path className="metal" d={ANGLE} />
      <path className="scribe" d="M40 94H150M40 90V98M150 90V98M52 50H150M52 46V54M150 46V54" />
      <text x="95" y="106">
        outside
      </text>
      <text x="105" y="44">
        inside
      </text>
    </>
  ),
  'long point': (
    <>
      <path className="metal" d="M30 40H170L130 70H70Z" />
      <path className="scribe" d="M30 28H170M30 24V32M170 24V32" />
      <path className="waste" d="M70 82H130" />
      <text x="100" y="20">
        long point to long point
      </text>
      <text x="100" y="96">
        short points
      </text>
    </>
  ),
  kerf: (
    <>
      <path className="metal" d="M20 30H92V80H20ZM108 30H180V80H108Z" />
      <path className="scribe" d="M92 88H108M92 24V92M108 24V92" />
      <text x="100" y="104">
        kerf: becomes waste
      </text>
    </>
  ),
  'grip allowance': (
    <>
      <path className="line" d="M30 80H60Q100 80 120 50T170 30" strokeWidth="8" />
      <path className="waste" d="M10 80H30M170 30H190" />
      <text x="40" y="98">
        grip
      </text>
      <text x="170" y="20">
        grip
      </text>
    </>
  ),
  'bar offcut': (
    <>
      <path className="metal" d="M10 45H70V65H10ZM74 45H134V65H74Z" />
      <path className="waste" d="M138 45H190V65H138Z" />
      <text x="164" y="82">
        bar offcut
      </text>
    </>
  ),
  relief: (
    <>
      <path className="metal" d="M40 90V50H56V40H66V20H150V90Z" />
      <path className="scribe" d="M56 50V40M66 45H150" />
      <text x="168" y="48">
        bend
      </text>
      <text x="46" y="34">
        relief
      </text>
    </>
  ),
  'opposite hand': (
    <>
      <path className="metal" d="M30 30H80V80H60V50H30ZM170 30H120V80H140V50H170Z" />
      <path className="waste" d="M100 18V92" />
    </>
  ),
};

export function WordPicture({ word }: { word: string }) {
  const picture = PICTURES[word];
  if (!picture) return null;
  return (
    <svg viewBox="0 0 200 110" role="img" aria-label={`Picture: ${word}`}>
      {picture}
    </svg>
  );
}
