// What the last act came to, with its undo where there is one.
import { Act } from '../kit/Act';
export interface Saying {
  text: string;
  undo?: () => void;
}

export function Said({ said }: { said: Saying | null }) {
  if (!said) return null;
  return (
    <div className="note" role="status">
      {said.text} {said.undo && <Act onClick={said.undo}>put it back</Act>}
    </div>
  );
}
