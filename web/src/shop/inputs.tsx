// What is typed on the shop's page: words and figures, taken over when the field is left; what cannot be is said
// in place.
import { useEffect, useState } from 'react';
import { Input } from '../kit/Input';

export function Text({
  label,
  value,
  set,
  wide,
  bare,
}: {
  label: string;
  value: string;
  set: (value: string) => void;
  wide?: boolean;
  bare?: boolean;
}) {
  const [draft, setDraft] = useState(value);
  useEffect(() => setDraft(value), [value]);
  const input = (
    <Input
      className="field"
      aria-label={bare ? label : undefined}
      value={draft}
      size={wide ? 34 : 14}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={() => draft !== value && set(draft)}
      onKeyDown={(event) => event.key === 'Enter' && draft !== value && set(draft)}
    />
  );
  return bare ? (
    input
  ) : (
    <label>
      <small>{label}</small>
      {input}
    </label>
  );
}

export function Figure({
  label,
  value,
  set,
  bare,
  wrong,
}: {
  label: string;
  value: number;
  set: (value: number) => void;
  bare?: boolean;
  /** Why the server refused it. */
  wrong?: string | undefined;
}) {
  const [draft, setDraft] = useState(String(value));
  const [bad, setBad] = useState(false);
  useEffect(() => {
    setDraft(String(value));
    setBad(false);
  }, [value]);
  const done = () => {
    const read = Number(draft.replace(',', '.'));
    if (draft.trim() === '' || !Number.isFinite(read)) setBad(true);
    else if (read !== value) set(read);
  };
  const input = (
    <>
      <Input
        className="field num"
        inputMode="decimal"
        aria-label={bare ? label : undefined}
        aria-invalid={bad || wrong !== undefined}
        value={draft}
        size={8}
        style={{ textAlign: 'right' }}
        onChange={(event) => {
          setDraft(event.target.value);
          setBad(false);
        }}
        onBlur={done}
        onKeyDown={(event) => event.key === 'Enter' && done()}
      />
      {bad && (
        <span className="bad">
          {' '}
          "{draft}" is no number; it stays {value}.
        </span>
      )}
      {wrong && !bad && (
        <span className="bad" role="alert">
          {' '}
          {wrong}
        </span>
      )}
    </>
  );
  return bare ? (
    input
  ) : (
    <label>
      <small>{label}</small>
      {input}
    </label>
  );
}
