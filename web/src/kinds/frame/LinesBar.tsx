// Shows or hides the centre lines and nodes of a frame.
import { useBench } from '../../bench/store';

export function LinesBar() {
  const lines = useBench((s) => s.lines);
  return (
    <div className="foldbar">
      <button type="button" className="plain" aria-pressed={lines} onClick={() => useBench.setState({ lines: !lines })}>
        {lines ? 'hide lines and nodes' : 'lines and nodes'}
      </button>
    </div>
  );
}
