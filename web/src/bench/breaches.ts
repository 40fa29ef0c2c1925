// Rules that do not hold, by what that means.
import type { BuildAnswer } from '../api/client';

export type Breach = BuildAnswer['breaches'][number];
type Rule = BuildAnswer['rules'][number];

/** Faults alone: a doubt asks, and a hint is never a fault. */
export const brokenIn = (answer: BuildAnswer): Breach[] => answer.breaches.filter((one) => one.level === 'broken');

/** How many of a level there are. */
export const countOf = (answer: BuildAnswer, level: Breach['level']): number =>
  answer.breaches.filter((one) => one.level === level).length;

const WORDS: Record<Rule['about'], string> = {
  bends: 'Bends',
  holes: 'Holes and cut-outs',
  folding: 'Folding',
  stock: 'Stock and machines',
  members: 'Members and joints',
};

/** Rules by what they are about, in the order of the list. */
export function grouped(rules: Rule[]): { words: string; rules: Rule[] }[] {
  const groups: { words: string; rules: Rule[] }[] = [];
  for (const about of Object.keys(WORDS) as Rule['about'][]) {
    const own = rules.filter((one) => one.about === about);
    if (own.length > 0) groups.push({ words: WORDS[about], rules: own });
  }
  return groups;
}

/** How a rule stands: "2 broken, 1 hint"; nothing where there is nothing to say. */
export function stands(one: Pick<Rule, 'broken' | 'doubtful' | 'hints'>): string {
  const hints = one.hints === 1 ? '1 hint' : `${one.hints} hints`;
  return [
    one.broken > 0 ? `${one.broken} broken` : '',
    one.doubtful > 0 ? `${one.doubtful} doubtful` : '',
    one.hints > 0 ? hints : '',
  ]
    .filter(Boolean)
    .join(', ');
}
