// While the work is shown up to a step: what is on the screen is of so much of the piece, and one press shows it whole.
import { operations } from './edit';
import { setCaret, useBench } from './store';
import { Act } from '../kit/Act';

export function UpTo() {
  const piece = useBench((s) => s.document);
  const caret = useBench((s) => s.caret);
  if (!piece || caret === null) return null;
  const list = operations(piece);
  const last = list[caret - 1]?.name;
  return (
    <div className="upto" role="status">
      <b>
        {last === undefined
          ? 'Nothing is shown: all steps are ahead.'
          : `Shown up to step ${caret} of ${list.length}, ${last}.`}
      </b>
      <span>Pictures, figures and the strip are of so much of the piece; files are of the whole.</span>
      <Act kind="line" onClick={() => setCaret(null)}>
        Show the whole piece
      </Act>
    </div>
  );
}
