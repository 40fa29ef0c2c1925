// The words of the trade as Steelk uses them: one word, one thing. The glossary shows them, and `words.test.ts` holds
// every text on the screen to them.

export interface Word {
  word: string;
  /** What it is, in a sentence or two. */
  means: string;
  /** What is not said for it, and why: a test finds these in texts of the screen. */
  not?: { pattern: RegExp; instead: string }[];
}

export const WORDS: Word[] = [
  {
    word: 'qty',
    means: 'How many of a piece the job needs.',
    not: [{ pattern: /(\d|\}) off\b/, instead: 'qty 4, or 4 in a row' }],
  },
  {
    word: 'spares',
    means: 'How many more than needed are cut, to prove a bend or a set-up on. Masses of all are without them.',
  },
  {
    word: 'first-off',
    means: 'The first of a batch, made and measured before the rest are. Papers and programs say so.',
    not: [{ pattern: /\bfirst article\b/i, instead: 'first-off' }],
  },
  {
    word: 'off',
    means: 'Out of tolerance: what is measured is not what the drawing says. Nothing else is called so.',
    not: [
      { pattern: /\b(take|taken|took|takes) (a |the |its )?\w* ?off\b/i, instead: 'take from, delete' },
      { pattern: /\btool off\b/i, instead: 'without cutting' },
      { pattern: /\boff (the|each)\b/i, instead: 'from, beside' },
    ],
  },
  {
    word: 'leave out',
    means: 'A step that is left out stays in the work and does nothing until it is put back in.',
    not: [{ pattern: /\b(suppress|disable|deactivate|hide) (the |this )?(step|operation)/i, instead: 'leave out' }],
  },
  {
    word: 'put back in',
    means: 'Ends leaving a step out. What was deleted is put back.',
    not: [{ pattern: /\bre-?enable|unsuppress/i, instead: 'put back in' }],
  },
  {
    word: 'delete',
    means: 'Takes a piece, a job or a picture away. It waits in the bin and can be put back.',
    not: [{ pattern: /\b(trash|erase)\b/i, instead: 'delete, bin' }],
  },
  {
    word: 'shown up to here',
    means: 'Pictures and figures are of the piece after so many of its steps; files are always of the whole piece.',
    not: [{ pattern: /\b(roll ?back|caret|history marker)\b/i, instead: 'shown up to step 3' }],
  },
  {
    word: 'mould line',
    means:
      'Where the two outside faces of a bend would meet if the corner were sharp. Outside sizes of bent parts are ' +
      'mostly drawn to it.',
  },
  {
    word: 'setback',
    means: 'From the mould line back to where the bend begins (the tangent): (R + T) x tan(A/2).',
  },
  {
    word: 'K-factor',
    means:
      'Where in the thickness the metal keeps its length in a bend: 0 at the inside face, 0.5 in the middle. The ' +
      'blank is computed from it.',
  },
  {
    word: 'leg outside and inside',
    means:
      'A leg is measured to the outside faces, to the inside faces or to the mould line; each makes another blank.',
  },
  {
    word: 'long point',
    means: 'The far corner of a mitred end. Members are listed long point to long point: what the saw must leave.',
  },
  {
    word: 'kerf',
    means: 'How wide the cut is: what the cutter or the saw turns into waste. The path is moved by half of it.',
  },
  {
    word: 'grip allowance',
    means: 'Extra length at each end of a bent member, for the bender to hold; cut away afterwards.',
    not: [{ pattern: /\bgrip loss\b/i, instead: 'grip allowance' }],
  },
  {
    word: 'bar offcut',
    means: 'What is left of a bar when its pieces are cut; long enough, it is a bar for the next job.',
    not: [{ pattern: /\b(drop|remnant)s? of (a|the) bar\b/i, instead: 'bar offcut' }],
  },
  {
    word: 'relief',
    means: 'A small cut at the end of a bend, so that the metal beside it does not tear.',
  },
  {
    word: 'call-out',
    means: 'A number of the drawing with its tolerance and what it measures. It holds, is off, or is not placed yet.',
    not: [{ pattern: /\bcallout\b/i, instead: 'call-out' }],
  },
  {
    word: 'opposite hand',
    means: 'The piece as a mirror shows it: another piece, with a mark of its own.',
  },
];

/** The word's place on the glossary page. */
export const anchorOf = (word: string): string => word.replace(/[^a-z]+/gi, '-').toLowerCase();
