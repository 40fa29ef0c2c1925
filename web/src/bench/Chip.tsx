// A value in a sentence: click or Enter to type, Enter to commit, Esc to leave it as it was.
import { useEffect, useId, useRef, useState, type ReactNode } from 'react';
import { Refusal, type BuildAnswer, type Piece } from '../api/client';
import { commit, ownFault, preview, useBench } from './store';
import { Press } from '../kit/Press';
import { Input } from '../kit/Input';

interface Props {
  text: string;
  label: string;
  ghost?: string;
  optional?: boolean;
  live?: boolean;
  wrong?: boolean;
  suggestions?: string[];
  /** The same as a list of its own, made once it is typed: whoever is not typed need not follow what there is. */
  list?: (id: string) => ReactNode;
  /** The piece with this text in place (undefined: the field left out). */
  edit: (piece: Piece, text: string | undefined) => Piece | Promise<Piece>;
  /** What it came to, from an answer. */
  comes?: (answer: BuildAnswer) => string | undefined;
  own: { operation?: string; callout?: string; field?: string };
  note: string;
  /** Judges the piece with this text in place where the live build does not: what it came to, or the fault. */
  judge?: (piece: Piece) => Promise<{ comes?: string; fault?: string }>;
  /** Called with the text once it is taken over. */
  done?: (text: string) => void;
  /** It is typed at once when it appears. */
  opens?: boolean;
}

export function Chip({
  text,
  label,
  ghost,
  optional,
  live,
  wrong,
  suggestions,
  list,
  edit,
  comes,
  own,
  note,
  judge,
  done,
  opens = false,
}: Props) {
  const [draft, setDraft] = useState<string | null>(opens ? text : null);
  const [said, setSaid] = useState<{ comes?: string; fault?: string }>({});
  const input = useRef<HTMLInputElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  const refocus = useRef(false);
  const asked = useRef<AbortController | null>(null);
  const id = useId();

  useEffect(() => {
    if (draft !== null || !refocus.current) return;
    refocus.current = false;
    // Between the answer and this drawing someone may have gone on to another field.
    if (document.activeElement === null || document.activeElement === document.body) button.current?.focus();
  }, [draft]);

  useEffect(() => {
    const piece = useBench.getState().document;
    if (draft === null || !piece || draft === text) {
      setSaid((old) => (draft === text ? {} : old));
      return;
    }
    const asking = new AbortController();
    asked.current = asking;
    const timer = setTimeout(async () => {
      const trimmed = draft.trim();
      if (trimmed === '' && optional) {
        setSaid({});
        return;
      }
      let answer: BuildAnswer | Refusal;
      try {
        const edited = await edit(piece, trimmed);
        if (judge) {
          const found = await judge(edited);
          if (!asking.signal.aborted) setSaid(found);
          return;
        }
        answer = await preview(edited, asking.signal);
      } catch (refused) {
        if (asking.signal.aborted) return;
        if (!(refused instanceof Refusal)) throw refused;
        answer = refused;
      }
      if (asking.signal.aborted) return;
      if (answer instanceof Refusal) setSaid({ fault: answer.problem.detail });
      else {
        const fault = ownFault(answer, own);
        setSaid(fault ? { fault } : { comes: comes?.(answer) });
      }
    }, 40);
    return () => {
      asking.abort();
      clearTimeout(timer);
    };
    // The piece is read when asked; a new draft is what asks.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [draft]);

  const finish = async (back: boolean) => {
    if (draft === null) return;
    const trimmed = draft.trim();
    if (trimmed === text) {
      refocus.current = back;
      setDraft(null);
      return;
    }
    if (trimmed === '' && !optional) {
      setSaid({ fault: `A ${label} is needed here. Esc leaves it as it was.` });
      return;
    }
    // What it would come to is told by what it comes to.
    asked.current?.abort();
    const now = useBench.getState().document;
    const judged = judge && now ? await judge(await edit(now, trimmed === '' ? undefined : trimmed)) : {};
    const fault = judged.fault ?? (await commit((now) => edit(now, trimmed === '' ? undefined : trimmed), note, own));
    if (fault) setSaid({ fault });
    else {
      // The answer took its time: whoever has gone on to another field keeps the focus there.
      refocus.current = back && document.activeElement === input.current;
      setDraft(null);
      setSaid({});
      done?.(trimmed);
    }
  };

  const dropped = (event: React.DragEvent) => {
    const name = event.dataTransfer.getData('text/x-callout');
    if (!name) return;
    event.preventDefault();
    void commit((now) => edit(now, name), note, own).then((fault) => {
      if (fault) {
        setDraft(name);
        setSaid({ fault });
      }
    });
  };

  if (draft === null) {
    return (
      <Press
        ref={button}
        className={`chip${live ? ' live' : ''}${text === '' ? ' ghost' : ''}${wrong ? ' wrong' : ''}`}
        aria-label={`${label}: ${text || ghost || 'none'}`}
        onClick={() => {
          setDraft(text);
          setSaid({});
        }}
        onDragOver={(event) => event.dataTransfer.types.includes('text/x-callout') && event.preventDefault()}
        onDrop={dropped}
      >
        {text || ghost}
      </Press>
    );
  }
  return (
    <>
      <Input
        ref={input}
        className="chip"
        autoFocus
        onFocus={(event) => event.target.select()}
        value={draft}
        size={Math.max(5, draft.length + 1)}
        aria-label={label}
        aria-invalid={said.fault !== undefined}
        aria-describedby={`${id}-said`}
        list={suggestions || list ? `${id}-list` : undefined}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={() => void finish(false)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault();
            void finish(true);
          } else if (event.key === 'Escape') {
            event.stopPropagation();
            refocus.current = true;
            setDraft(null);
            setSaid({});
          }
        }}
      />
      {list?.(`${id}-list`)}
      {suggestions && (
        <datalist id={`${id}-list`}>
          {suggestions.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      )}
      <span id={`${id}-said`} aria-live="polite">
        {said.comes !== undefined && !said.fault && <span className="comes">= {said.comes}</span>}
        {said.fault && <span className="fault">{said.fault}</span>}
      </span>
    </>
  );
}
