// What was typed and not understood, answered with the form that was expected and the typist's own values in it.

/** A quantity as drawings write it: `20`, `3.5 mm`, `3 1/8"`, `3-1/2 in`, `Ø9`, `R20`, `45°`. */
const QUANTITY = /(?:[øØ⌀R]|dia\s+)?\d+(?:[ -]\d+\/\d+|\/\d+|\.\d+)?(?:\s*(?:mm|in|deg|["°]))?(?![\w/])/g;
/** A name of an edge, a panel, a bend: `base.front`, `upright`. */
const NAME = /\b[a-z][\w-]*(?:\.[\w-]+)+\b/;

/** A side as a drawing calls it, without its panel. */
const SIDE = /\b(?:front|back|left|right)\b/;

/** The form with its quantities, one after another, and its first name those that were typed. */
export function withOwn(form: string, typed: string): string {
  const own = typed.match(QUANTITY) ?? [];
  let at = 0;
  const filled = form.replace(QUANTITY, (usual) => own[at++]?.trim() ?? usual);
  const name = NAME.exec(typed)?.[0];
  if (name) return filled.replace(NAME, name);
  // Of a side alone, that side of the panel: never another.
  const side = SIDE.exec(typed)?.[0];
  return side ? filled.replace(SIDE, side) : filled;
}

/** How many letters must be changed, put in, left out or swapped with their neighbour to make one word the other. */
export function misspelt(one: string, two: string): number {
  const rows = [Array.from({ length: two.length + 1 }, (_, at) => at)];
  for (let i = 1; i <= one.length; i += 1) {
    const row = [i];
    for (let j = 1; j <= two.length; j += 1) {
      const same = one[i - 1] === two[j - 1] ? 0 : 1;
      let least = Math.min(rows[i - 1]![j]! + 1, row[j - 1]! + 1, rows[i - 1]![j - 1]! + same);
      if (i > 1 && j > 1 && one[i - 1] === two[j - 2] && one[i - 2] === two[j - 1])
        least = Math.min(least, rows[i - 2]![j - 2]! + 1);
      row.push(least);
    }
    rows.push(row);
  }
  return rows[one.length]![two.length]!;
}

const wordsIn = (text: string) => text.toLowerCase().match(/[a-z]{3,}/g) ?? [];

/** Of the forms that there are the one whose words were meant: each typed word is one of its words, or nearly. */
export function meant(forms: string[], typed: string): string | undefined {
  const said = wordsIn(typed);
  if (said.length === 0) return undefined;
  const scored = forms.map((form) => {
    // Where no name is typed none is meant: "rim 12 mm" is not about an edge of `lower-rim-front`.
    const words = wordsIn(NAME.test(typed) ? form : form.replace(NAME, ''));
    const away = said.map((one) => Math.min(...words.map((word) => misspelt(one, word))));
    const hits = said.filter((one, at) => away[at]! <= (one.length > 4 ? 2 : 1)).length;
    return { form, hits, away: away.reduce((sum, one) => sum + one, 0) };
  });
  const best = scored.filter((one) => one.hits > 0).sort((a, b) => b.hits - a.hits || a.away - b.away)[0];
  return best?.form;
}

/** What to say of words that were not understood. */
export function notUnderstood(typed: string, forms: string[]): string {
  const form = meant(forms, typed);
  if (form) return `"${typed}" is not understood. Say "${withOwn(form, typed)}".`;
  const said = forms.slice(0, 4).map((one) => `"${withOwn(one, typed)}"`);
  return `"${typed}" is not understood. Say one of ${said.join(', ')}.`;
}
