// What the kinds of weld are called, and what is drawn of them.
import type { components } from '../../api/schema';

type Weld = components['schemas']['Weld'];

/** A kind of weld in the list. */
export const WELD_WORDS: Record<Weld['kind'], string> = {
  fillet: 'fillet',
  butt: 'butt',
  butt_on_mitre: 'butt on the mitre',
  flare: 'flare along the corner',
};

/** What its symbol shows: through the wall, a ring for all round, both sides of the line. */
export const weldSymbol = ({ kind, sides }: Pick<Weld, 'kind' | 'sides'>) => ({
  butt: kind === 'butt' || kind === 'butt_on_mitre',
  allRound: sides === 'all_round',
  both: sides === 'both_sides',
});
