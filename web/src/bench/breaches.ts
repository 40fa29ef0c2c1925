// Rules that do not hold, by what that means, and what is accepted of them.
import type { BuildAnswer, Piece } from '../api/client';

export type Breach = BuildAnswer['breaches'][number];
export type Acceptance = NonNullable<Piece['accepted']>[number];
type Rule = BuildAnswer['rules'][number];

/** Faults alone: a doubt asks, a hint is never a fault, and somebody answers for what is accepted. */
export const brokenIn = (answer: BuildAnswer): Breach[] =>
  answer.breaches.filter((one) => one.level === 'broken' && !one.accepted);

/** What somebody accepted for this piece. */
export const acceptedIn = (answer: BuildAnswer): Breach[] => answer.breaches.filter((one) => one.accepted);

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

type Counts = Pick<Rule, 'broken' | 'doubtful' | 'hints' | 'accepted'>;

/** How a rule stands: "2 broken, 1 hint"; nothing where there is nothing to say. */
export function stands(one: Counts): string {
  const hints = one.hints === 1 ? '1 hint' : `${one.hints} hints`;
  return [
    one.broken > 0 ? `${one.broken} broken` : '',
    one.accepted > 0 ? `${one.accepted} accepted` : '',
    one.doubtful > 0 ? `${one.doubtful} doubtful` : '',
    one.hints > 0 ? hints : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** The counts of several rules together. */
export function summed(rules: Counts[]): Counts {
  const sum = { broken: 0, doubtful: 0, hints: 0, accepted: 0 };
  for (const one of rules) for (const key of Object.keys(sum) as (keyof Counts)[]) sum[key] += one[key];
  return sum;
}

const isOf = (one: Acceptance, breach: Breach): boolean =>
  one.rule === breach.rule &&
  one.said === (breach.said ?? breach.message) &&
  (one.features ?? []).join('\n') === breach.features.join('\n');

/** The piece with these places of a rule accepted. */
export function accepting(piece: Piece, breaches: Breach[], words: { reason: string; by: string; on: string }): Piece {
  const fresh = breaches.map((one) => ({
    rule: one.rule,
    said: one.said ?? one.message,
    features: one.features,
    ...words,
  }));
  const others = (piece.accepted ?? []).filter((known) => !breaches.some((one) => isOf(known, one)));
  return { ...piece, accepted: [...others, ...fresh] };
}

/** The piece with this place of a rule asked again. */
export const askingAgain = (piece: Piece, breach: Breach): Piece => ({
  ...piece,
  accepted: (piece.accepted ?? []).filter((known) => !isOf(known, breach)),
});

/** The piece without one of its acceptances, by its place in the list. */
export const withoutAcceptance = (piece: Piece, at: number): Piece => ({
  ...piece,
  accepted: (piece.accepted ?? []).filter((_, index) => index !== at),
});

/** A day as it is written: 2026-11-29, by this machine's calendar. */
export function dayOf(date: Date): string {
  const two = (value: number) => String(value).padStart(2, '0');
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}
