// Figures of the piece as the proof strip shows them.
import { useBench } from './store';

export function FigureText({ keys }: { keys: string[] }) {
  const figures = useBench((s) => s.answer?.figures);
  const texts = keys.map((key) => figures?.find((one) => one.key === key)?.text ?? '—');
  return (
    <span className="num">
      <b>{texts.join(' · ')}</b>
    </span>
  );
}
