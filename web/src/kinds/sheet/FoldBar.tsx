// The fold slider: flat to folded.
import { setFold, useBench } from '../../bench/store';
import { Act } from '../../kit/Act';
import { Slide } from '../../kit/Slide';

export function FoldBar() {
  const fold = useBench((s) => s.fold);
  return (
    <div className="foldbar">
      <Act onClick={() => void setFold(0)}>flat</Act>
      <Slide
        label="Fold, from flat to folded"
        least={0}
        most={1}
        step={0.01}
        value={fold}
        change={(value) => void setFold(value)}
      />
      <Act onClick={() => void setFold(1)}>folded</Act>
    </div>
  );
}
