// What another window saved of this piece in between: what each changed, and which of them goes on.
import type { Difference } from './merge';
import { keepBoth, keepMine, takeTheirs, useBench } from './store';
import { Act } from '../kit/Act';

/** So many are told one by one. */
const MOST = 6;

const words = ({ what, mine, theirs, touches }: Difference) =>
  touches
    ? `${what}: ${mine} here, ${theirs} there`
    : `${what}: ${mine ? `${mine} here` : ''}${mine && theirs ? ', ' : ''}${theirs ? `${theirs} there` : ''}`;

export function Elsewhere({ aside }: { aside: () => void }) {
  const other = useBench((s) => s.other);
  const conflict = useBench((s) => s.save === 'conflict');
  if (!other) return null;
  const { view, merged } = other;
  const own = merged.differences.filter((one) => one.mine !== '');
  const touching = merged.differences.filter((one) => one.touches);
  const first = [...touching, ...merged.differences.filter((one) => !one.touches)];
  return (
    <div className="banner elsewhere" role="alert">
      <div>
        <b className={conflict ? 'bad' : 'todo'}>
          Another window saved this piece as revision {view.version}
          {conflict ? '; what you changed since is not saved.' : '.'}
        </b>{' '}
        {touching.length > 0 && <span className="bad">Both changed the same: choose one. </span>}
        <ul aria-label="What differs">
          {first.slice(0, MOST).map((one) => (
            <li key={one.what} className={one.touches ? 'bad' : ''}>
              {words(one)}
            </li>
          ))}
          {first.length > MOST && <li>and {first.length - MOST} more</li>}
          {first.length === 0 && <li>nothing differs</li>}
        </ul>
      </div>
      {own.length > 0 && merged.both && (
        <Act kind="main" onClick={keepBoth}>
          Keep both
        </Act>
      )}
      <Act kind={own.length > 0 ? 'line' : 'main'} onClick={() => void takeTheirs()}>
        {own.length > 0 ? 'Take theirs' : 'Show it'}
      </Act>
      <Act kind="line" onClick={keepMine}>
        Keep mine
      </Act>
      {own.length > 0 && (
        <Act kind="line" onClick={aside}>
          Save mine as a file
        </Act>
      )}
    </div>
  );
}
