// What the last act came to, until it is closed or something else is said.
import { useBench } from './store';

export function Message() {
  const message = useBench((s) => s.message);
  if (!message) return null;
  return (
    <div className="toast" role="status">
      <span>{message}</span>
      <button type="button" className="plain" onClick={() => useBench.setState({ message: null })}>
        close
      </button>
    </div>
  );
}
