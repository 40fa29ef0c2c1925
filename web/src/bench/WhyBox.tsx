// A figure asked why: its formula, its numbers and where the rule is from.
import type { Why } from '../api/client';

export function WhyBox({ why }: { why: Why }) {
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
      </dl>
    </details>
  );
}
