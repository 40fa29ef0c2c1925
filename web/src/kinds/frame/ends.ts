// The cuts of a piece's ends in one line.
import type { Schemas } from '../../api/client';

export function endsText(line: Schemas['FrameLine']): string {
  const [start, finish] = line.ends;
  if (!start || !finish) return '';
  const cuts = start.text === finish.text ? `both ${start.text}` : `${start.text} / ${finish.text}`;
  return line.between ? `${cuts}, ${line.between}` : cuts;
}
