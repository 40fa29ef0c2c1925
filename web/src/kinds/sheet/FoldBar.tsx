// The fold slider: flat to folded.
import { setFold, useBench } from '../../bench/store';

export function FoldBar() {
  const fold = useBench((s) => s.fold);
  return (
    <div className="foldbar">
      <button type="button" className="plain" onClick={() => void setFold(0)}>
        flat
      </button>
      <input
        type="range"
        min={0}
        max={1}
        step={0.01}
        value={fold}
        aria-label="Fold, from flat to folded"
        onChange={(event) => void setFold(Number(event.target.value))}
      />
      <button type="button" className="plain" onClick={() => void setFold(1)}>
        folded
      </button>
    </div>
  );
}
