// What opens from a strip along the bottom: a title, a way to close it, what is in it.
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
        <button type="button" className="plain" onClick={close}>
          close (Esc)
        </button>
      </div>
      {children}
    </section>
  );
}
