// A button that takes a file of the piece, and says when one taken before is stale.
import { download } from './download';
import { useBench } from './store';
import { isStale, noteTaken, useTaken } from './taken';
import { Act } from '../kit/Act';

export function FileButton({
  file,
  query = '',
  words,
  label,
  plain,
  first,
}: {
  file: string;
  query?: string;
  words: string;
  label?: string;
  plain?: boolean;
  /** Whether it is what its reader is sent first. */
  first?: boolean;
}) {
  const id = useBench((s) => s.id);
  const version = useBench((s) => s.version);
  const saved = useBench((s) => s.save === 'saved');
  const taken = useTaken((s) => s.pieces[String(id)]?.[file + query]);
  const stale = isStale(taken, version, saved);
  const take = async () => {
    // What the server has saved is what it makes the file from.
    const from = useBench.getState().version;
    if (await download(`/api/pieces/${id}/${file}${query}`)) noteTaken(id, file + query, from);
  };
  return (
    <span className="filebutton">
      {first && <small className="first">first</small>}
      <Act
        kind={plain ? 'plain' : 'line'}
        className={plain ? 'mono' : undefined}
        aria-label={label}
        title={
          taken
            ? `taken ${taken.at.replace('T', ' ').slice(0, 16)} UTC from revision ` +
              `${taken.version}${stale ? '; the piece has changed since' : ''}`
            : undefined
        }
        onClick={() => void take()}
      >
        {words}
      </Act>
      {stale && <small className="bad"> stale</small>}
    </span>
  );
}
