// What a change of stock or bending did to a piece, in lines: before and after, as the server printed both.
import type { BuildAnswer } from '../api/client';
import { stands } from './breaches';

type Rule = BuildAnswer['rules'][number];
const told = (rule: Rule, well: string) => stands(rule) || well;

/** Figures, bends, call-outs, rules and errors that are not what they were. */
export function differences(before: BuildAnswer, after: BuildAnswer): string[] {
  const lines: string[] = [];
  for (const figure of after.figures) {
    const old = before.figures.find((one) => one.key === figure.key);
    if (old && old.text !== figure.text) lines.push(`${figure.label}: ${old.text} → ${figure.text}`);
  }
  const bendOf = (answer: BuildAnswer, name: string) => answer.blank?.bends.find((one) => one.name === name);
  for (const bend of after.blank?.bends ?? []) {
    const old = bendOf(before, bend.name);
    if (old && old.allowance !== bend.allowance)
      lines.push(`bend ${bend.name}: allowance ${old.allowance} → ${bend.allowance}`);
  }
  for (const callout of after.callouts) {
    const old = before.callouts.find((one) => one.name === callout.name);
    if (old && old.verdict !== callout.verdict)
      lines.push(
        `call-out ${callout.name}: ${old.verdict} → ` +
          `${callout.verdict}${callout.off_by ? ` by ${callout.off_by}` : ''}`,
      );
    else if (old && old.measured_text !== callout.measured_text)
      lines.push(
        `call-out ${callout.name}: measured ${old.measured_text || 'nothing'} → ` +
          `${callout.measured_text || 'nothing'}, ${callout.verdict}`,
      );
  }
  for (const rule of after.rules) {
    const old = before.rules.find((one) => one.rule === rule.rule);
    if (!old || stands(old) === stands(rule)) continue;
    lines.push(`${rule.title}: ${told(old, 'held')} → ${told(rule, 'holds')}`);
  }
  const errors = (answer: BuildAnswer) =>
    answer.findings
      .filter((one) => one.severity === 'error')
      .map((one) => `${one.operation ? `${one.operation}: ` : ''}${one.message}`);
  const old = errors(before);
  for (const one of errors(after)) if (!old.includes(one)) lines.push(`new: ${one}`);
  for (const one of old) if (!errors(after).includes(one)) lines.push(`no more: ${one}`);
  return lines;
}
