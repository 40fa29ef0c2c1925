// Shows or hides the centre lines and nodes of a frame.
import { useBench } from '../../bench/store';
import { Act } from '../../kit/Act';

export function LinesBar() {
  const lines = useBench((s) => s.lines);
  return (
    <div className="foldbar">
      <Act aria-pressed={lines} onClick={() => useBench.setState({ lines: !lines })}>
        {lines ? 'hide lines and nodes' : 'lines and nodes'}
      </Act>
    </div>
  );
}
