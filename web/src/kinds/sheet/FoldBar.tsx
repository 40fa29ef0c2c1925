// The fold slider: flat to folded.
import { setFold, useBench } from '../../bench/store';
import { Act } from '../../kit/Act';

export function FoldBar() {
  const fold = useBench((s) => s.fold);
  return (
    <div className="foldbar">
      <Act onClick={() => void setFold(0)}>flat</Act>
      <input
        type="range"
        min={0}
        max={1}
        step={0.01}
        value={fold}
        aria-label="Fold, from flat to folded"
        onChange={(event) => void setFold(Number(event.target.value))}
      />
      <Act onClick={() => void setFold(1)}>folded</Act>
    </div>
  );
}
