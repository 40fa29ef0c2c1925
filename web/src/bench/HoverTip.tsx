// What the pointer is over, by name and what it is.
import { whatIs } from './pick';
import { useBench } from './store';

export function HoverTip() {
  const hover = useBench((s) => s.hover);
  const closed = useBench((s) => s.menu === null);
  const answer = useBench((s) => s.ghost ?? s.answer);
  const want = useBench((s) => s.want);
  if (!hover || !closed) return null;
  return (
    <div className="hovertip" style={{ left: hover.x + 14, top: hover.y + 16 }} aria-hidden="true">
      <b>{hover.name}</b> {whatIs(hover.name, { answer })}
      {want && <em> — point at {want.words}</em>}
    </div>
  );
}
