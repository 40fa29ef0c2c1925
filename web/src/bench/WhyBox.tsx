// A figure asked why: its formula, its numbers and where the rule is from; and the words in it that may not be known.
import type { Why } from '../api/client';
import { ActLink } from '../kit/Act';
import { anchorOf, WORDS } from '../words';

/** Words of the glossary that stand in a text. */
const wordsIn = (text: string): string[] =>
  WORDS.map((one) => one.word).filter((word) => new RegExp(`(^|[^a-z])${word}s?([^a-z]|$)`, 'i').test(text));

export function WhyBox({ why }: { why: Why }) {
  const words = wordsIn([why.title, why.formula, why.working, why.source].join(' ').replace(/\bK\b/g, 'K-factor'));
  return (
    <details>
      <summary>why?</summary>
      <dl className="why">
        <dt>{why.title}</dt>
        <dd>{why.formula}</dd>
        <dt>with its numbers</dt>
        <dd>{why.working || 'not measured yet'}</dd>
        <dt>source</dt>
        <dd>{why.source || '—'}</dd>
        {words.length > 0 && (
          <>
            <dt>words</dt>
            <dd>
              {words.map((word) => (
                <ActLink key={word} to={`/words#${anchorOf(word)}`}>
                  {word}
                </ActLink>
              ))}
            </dd>
          </>
        )}
      </dl>
    </details>
  );
}
