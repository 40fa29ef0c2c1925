// What the last act came to, until it is closed or something else is said.
import { useBench } from './store';
import { Act } from '../kit/Act';

export function Message() {
  const message = useBench((s) => s.message);
  if (!message) return null;
  return (
    <div className="toast" role="status">
      <span>{message}</span>
      <Act onClick={() => useBench.setState({ message: null })}>close</Act>
    </div>
  );
}
