// What broke and what holds after a change, said to who does not see it.
import { useEffect, useRef, useState } from 'react';
import type { BuildAnswer } from '../api/client';
import { useBench } from './store';

/** So many are said one by one. */
const MOST = 3;

/** Figures with their unit: the same fault told in inches is no other. */
const FIGURES = /\d[\d.,]*(\s*(mm|in|kg|lb)\b)?/g;

/** Everything that is at fault, by what tells it apart. */
function faults(answer: BuildAnswer): Map<string, string> {
  const all = new Map<string, string>();
  for (const one of answer.findings)
    if (one.severity === 'error')
      all.set(
        `error ${one.operation} ${one.field} ${one.message.replace(FIGURES, '')}`,
        `${one.operation ?? ''} ${one.message}`.trim(),
      );
  for (const one of answer.breaches)
    if (one.level === 'broken' && !one.accepted) all.set(`rule ${one.rule} ${one.features.join(' ')}`, one.message);
  for (const one of answer.callouts)
    if (one.verdict === 'off') all.set(`call-out ${one.name}`, `call-out ${one.name} is off by ${one.off_by ?? ''}`);
  return all;
}

/** What came and what went between two answers, in a sentence or two; empty where nothing did. */
export function announced(before: BuildAnswer, after: BuildAnswer): string {
  const [old, now] = [faults(before), faults(after)];
  const came = [...now].filter(([key]) => !old.has(key)).map(([, words]) => words);
  const went = [...old].filter(([key]) => !now.has(key)).length;
  const said: string[] = [];
  if (came.length > 0) {
    const rest = came.length > MOST ? `, and ${came.length - MOST} more` : '';
    said.push(`Broken: ${came.slice(0, MOST).join('; ')}${rest}.`);
  }
  if (went > 0) said.push(now.size === 0 ? 'Everything holds.' : `${went} hold again, ${now.size} do not.`);
  return said.join(' ');
}

export function Announce() {
  const answer = useBench((s) => s.answer);
  // Of what the answer is: another piece, variant or step is another look and no change.
  const look = useBench((s) => [s.id, s.variant, s.caret].join(' '));
  const before = useRef<{ look: string; answer: BuildAnswer } | null>(null);
  const [words, setWords] = useState('');
  useEffect(() => {
    const old = before.current;
    // The look changes first and its answer comes later: until then nothing is compared.
    if (!answer || old?.answer === answer) {
      if (old && old.look !== look) before.current = null;
      return;
    }
    before.current = { look, answer };
    if (old && old.look === look) setWords(announced(old.answer, answer));
  }, [answer, look]);
  return (
    <div className="visually" aria-live="polite" data-testid="announced">
      {words}
    </div>
  );
}
