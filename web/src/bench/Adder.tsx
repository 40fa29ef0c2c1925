// "/": a line to type an operation in, with the verbs listed below it.
import { useEffect, useRef, useState } from 'react';
import type { Piece } from '../api/client';
import { kindOfPiece } from '../kinds';
import { operations } from './edit';
import { readPhrase } from './phrase';
import { commit, selectOperation, setCaret, useBench } from './store';
import { Press } from '../kit/Press';

export function Adder({ piece }: { piece: Piece }) {
  const kind = kindOfPiece(piece);
  const open = useBench((s) => s.adding);
  const caret = useBench((s) => s.caret);
  const names = useBench((s) => s.answer?.names);
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [at, setAt] = useState(-1);
  const input = useRef<HTMLInputElement>(null);
  const prefill = useBench((s) => s.prefill);
  useEffect(() => {
    if (open) input.current?.focus();
  }, [open]);
  useEffect(() => {
    if (prefill === null) return;
    setText(prefill);
    setFault(null);
    useBench.setState({ prefill: null });
    input.current?.focus();
  }, [prefill]);
  const close = () => {
    useBench.setState({ adding: false });
    setText('');
    setFault(null);
    setAt(-1);
  };
  if (!open) {
    return (
      <>
        <Press className="addbar" onClick={() => useBench.setState({ adding: true })}>
          {kind.words.verbs}
        </Press>
        <kind.FromFile piece={piece} />
      </>
    );
  }
  const typed = text.trim().toLowerCase();
  const shown = kind.verbs
    .flatMap((one) => one.phrases)
    .filter((one) => one.verb.startsWith(typed) || typed.startsWith(one.verb));
  const word = /[\w.-]*$/.exec(text)?.[0] ?? '';
  const hints =
    typed.includes(' ') && word.length > 0 && names
      ? [
          ...names.nodes,
          ...names.lines,
          ...names.members,
          ...names.edges,
          ...names.panels,
          ...names.bends.map((one) => `${one}.mould-outside`),
        ]
          .filter((one) => one.startsWith(word) && one !== word)
          .slice(0, 5)
      : [];
  const choices =
    hints.length > 0
      ? hints.map((one) => ({ title: one, sub: '', text: text.slice(0, text.length - word.length) + one }))
      : shown.map((one) => ({
          title: one.verb,
          sub: one.example,
          text: typed.startsWith(one.verb) ? text : `${one.verb} `,
        }));
  const run = async () => {
    if (at >= 0 && choices[at]) {
      setText(choices[at].text);
      setAt(-1);
      return;
    }
    const read = readPhrase(text, piece);
    if ('fault' in read) {
      setFault(read.fault);
      return;
    }
    const add = (now: Piece): Piece => {
      const list = operations(now);
      const place = caret ?? list.length;
      return { ...now, operations: [...list.slice(0, place), read.operation, ...list.slice(place)] };
    };
    const refused = await commit(add, `added ${read.operation.name}`, { operation: read.operation.name });
    if (refused) {
      setFault(refused);
      return;
    }
    if (caret !== null) setCaret(caret + 1);
    selectOperation(read.operation.name);
    setText('');
    setFault(null);
  };
  return (
    <div className="adder">
      <input
        ref={input}
        className="field mono"
        aria-label="New operation"
        aria-describedby="adder-fault"
        placeholder={kind.words.example}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setFault(null);
          setAt(-1);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') void run();
          else if (event.key === 'Escape') {
            event.stopPropagation();
            close();
          } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
            event.preventDefault();
            const by = event.key === 'ArrowDown' ? 1 : -1;
            setAt((old) => Math.max(-1, Math.min(choices.length - 1, old + by)));
          } else if (event.key === 'Tab' && hints[0]) {
            event.preventDefault();
            setText(choices[Math.max(0, at)]?.text ?? text);
          }
        }}
      />
      <span id="adder-fault" aria-live="polite">
        {fault && <span className="fault">{fault}</span>}
      </span>
      <ul aria-label="Verbs and names">
        {choices.map((one, index) => (
          <li key={one.title} className={index === at ? 'on' : ''}>
            <Press
              tabIndex={-1}
              onMouseDown={(event) => {
                event.preventDefault();
                setText(one.text);
              }}
            >
              {one.title}
              {one.sub && <small>{one.sub}</small>}
            </Press>
          </li>
        ))}
      </ul>
      <p className="soft">Enter adds, Esc closes. After a verb: {shown[0]?.words ?? 'values parted by commas'}.</p>
    </div>
  );
}
