// What opens from a strip along the bottom: a title, a way to close it, what is in it.
import { Act } from '../kit/Act';
export function DetailPanel({
  title,
  close,
  children,
}: {
  title: string;
  close: () => void;
  children: React.ReactNode;
}) {
  return (
    <section className="detail" aria-label={title}>
      <div style={{ display: 'flex' }}>
        <h3 style={{ flex: 1 }}>{title}</h3>
        <Act onClick={close}>close (Esc)</Act>
      </div>
      {children}
    </section>
  );
}
