// What another window saved of this piece in between: what each changed, and which of them goes on.
import type { Piece } from '../api/client';
import type { Difference } from './merge';
import type { Part } from './parts';
import { sentence } from './sentence';
import { keepBoth, keepMine, takeTheirs, useBench } from './store';
import { Act } from '../kit/Act';

/** So many are told one by one. */
const MOST = 6;

/** What a thing says in a piece, in few words: a step's sentence, a number's value, a field of one word. */
function saidIn(piece: Piece, what: string): string {
  const [, list, name] = /^(step|call-out) (.+)$/.exec(what) ?? [];
  if (list === 'step') {
    const step = piece.operations?.find((one) => one.name === name);
    const text = (part: Part) => (part.kind === 'choice' ? wordsOf(part) : part.text);
    return step
      ? sentence(piece, step, [])
          .map(text)
          .filter(Boolean)
          .join(' ')
          .replace(/ ([,.;])/g, '$1')
      : '';
  }
  if (list === 'call-out') return piece.callouts?.find((one) => one.name === name)?.value ?? '';
  const value = (piece as unknown as Record<string, unknown>)[what.replaceAll(' ', '_')];
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
}

const wordsOf = (part: Extract<Part, { kind: 'choice' }>) =>
  part.options.find(([key]) => key === part.value)?.[1] ?? part.value;

/** Where, what was done, and what stands there now. */
function told(where: string, done: string, now: string): string {
  if (!done) return '';
  const short = now.length > 90 ? `${now.slice(0, 88)}…` : now;
  return done === 'deleted' || !short ? `${done} ${where}` : `${done} ${where}: ${short}`;
}

function words({ what, mine, theirs }: Difference, here: Piece, there: Piece): string {
  const both = [told('here', mine, saidIn(here, what)), told('there', theirs, saidIn(there, what))];
  return `${what}: ${both.filter(Boolean).join('; ')}`;
}

export function Elsewhere({ aside }: { aside: () => void }) {
  const other = useBench((s) => s.other);
  const conflict = useBench((s) => s.save === 'conflict');
  const here = useBench((s) => s.document);
  if (!other || !here) return null;
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
              {words(one, here, view.document)}
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
