// The step that is not kept yet, as a sentence with its values open: Tab goes through them, the picture follows, Enter
// keeps, Esc drops.
import { useEffect, useMemo, useRef, useState } from 'react';
import { differences } from './differences';
import { dropDraft, editDraft, keepDraft } from './draft';
import { at } from './edit';
import { putBy, type Names, type Part } from './parts';
import { fieldOf, sentence } from './sentence';
import { SentenceParts } from './SentenceParts';
import { namesIn, useSuggestions } from './suggestions';
import { useBench } from './store';
import { folded, isUsual } from './usual';
import { Act } from '../kit/Act';
import { Choice } from '../kit/Choice';
import { Field } from '../kit/Field';

/** What is pointed at for a value of this sort, in words. */
const SORTS: Partial<Record<Names, string>> = {
  edges: 'an edge',
  panels: 'a panel',
  lines: 'an edge or a bend',
  holes: 'a hole',
  features: 'a face or an edge',
  nodes: 'a node',
  members: 'a member',
  lines3: 'a line or a member',
};

export function DraftSentence() {
  const draft = useBench((s) => s.draft);
  const piece = useBench((s) => s.document);
  const answer = useBench((s) => s.answer);
  const ghost = useBench((s) => s.ghost);
  const want = useBench((s) => s.want);
  const suggestions = useSuggestions(draft?.operation.name);
  const group = useRef<HTMLDivElement>(null);
  const turn = draft?.turn;
  const parts = useMemo(() => (piece && draft ? sentence(piece, draft.operation, []) : []), [piece, draft]);
  const first = draft?.wants[0];
  const [whole, setWhole] = useState(false);
  const shown = useMemo(
    () =>
      whole || !draft
        ? parts
        : folded(
            parts,
            (part) =>
              part.kind !== 'word' &&
              !draft.asks.includes(fieldOf(part.path)) &&
              isUsual(part, (one) => at(draft.operation, one.path)),
          ),
    [parts, whole, draft],
  );

  /** The next pick goes into this value. */
  const wantFor = (part: Extract<Part, { kind: 'value' }>) => {
    const words = part.names ? SORTS[part.names] : undefined;
    if (!words) {
      useBench.setState({ want: null });
      return;
    }
    useBench.setState({
      want: {
        words,
        names: part.names,
        take: (name) => {
          editDraft(part.path, part.list ? namesIn(name) : name);
          useBench.setState({ want: null });
          // On to what is typed next.
          requestAnimationFrame(() => focusValue(group.current, useBench.getState().draft?.asks ?? []));
        },
      },
    });
  };
  useEffect(() => {
    if (turn === undefined) return;
    setWhole(false);
    focusValue(group.current, useBench.getState().draft?.asks ?? []);
    const waits = parts.find((part) => part.kind === 'value' && fieldOf(part.path) === first);
    if (waits?.kind === 'value') wantFor(waits);
    // A new draft begins with its first value.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [turn]);
  if (!draft || !piece) return null;
  const changes =
    ghost && answer
      ? differences(answer, ghost).filter((line) => /^(blank|mass each|folded size|size|mass):/.test(line))
      : [];
  return (
    <div
      className="draft"
      role="group"
      aria-label={`New step ${draft.operation.name}`}
      ref={group}
      onKeyDown={(event) => {
        if (event.key === 'Tab') goOn(event, draft.asks);
        else if (event.key === 'Enter' && !(event.target as HTMLElement).closest('button')) {
          event.preventDefault();
          void keepDraft();
        } else if (event.key === 'Escape') {
          event.stopPropagation();
          dropDraft();
        }
      }}
    >
      {want && (
        <p className="asks" role="status">
          Point at {want.words}, or type its name.
        </p>
      )}
      <div className="sentence">
        <SentenceParts
          parts={shown}
          choice={(part) => (
            <Choice
              label={part.label}
              value={part.value}
              options={part.options.map(([key, words]) => [key, words] as const)}
              change={(key) => editDraft(part.path, putBy(part.options, key))}
            />
          )}
          value={(part) => (
            <Field
              mono
              chip
              label={part.label}
              placeholder={part.ghost}
              value={part.text}
              names={suggestions(part)}
              data-value={fieldOf(part.path)}
              onFocus={() => wantFor(part)}
              change={(text) => {
                const value = text === '' && part.optional ? undefined : part.list ? namesIn(text) : text;
                editDraft(part.path, value);
              }}
            />
          )}
        />
        {shown.length < parts.length && (
          <>
            {' '}
            <Act onClick={() => setWhole(true)}>the rest as usual…</Act>
          </>
        )}
      </div>
      <div aria-live="polite">
        {draft.fault ? (
          <span className="fault">{draft.fault}</span>
        ) : (
          changes.length > 0 && <span className="comes">{changes.join(' · ')}</span>
        )}
      </div>
      <div className="oprow">
        <Act kind="main" onClick={() => void keepDraft()}>
          Keep (Enter)
        </Act>
        <Act kind="line" onClick={dropDraft}>
          Drop (Esc)
        </Act>
      </div>
    </div>
  );
}

/** Puts the cursor into the first value that is typed: what is pointed at is filled in already. */
function focusValue(group: HTMLDivElement | null, asks: string[]): void {
  const field = inOrder(group, asks)[0];
  field?.focus();
  if (field instanceof HTMLInputElement) field.select();
}

/** What can have the focus: the values that a drawing gives first, in its order, then everything else. */
function inOrder(group: HTMLElement | null, asks: string[]): HTMLElement[] {
  const all = [...(group?.querySelectorAll<HTMLElement>('input, select, button') ?? [])];
  const asked = asks.map((field) => all.find((one) => one.dataset.value === field)).filter((one) => one !== undefined);
  return [...asked, ...all.filter((one) => !asked.includes(one))];
}

/** Tab goes on in that order. */
function goOn(event: React.KeyboardEvent<HTMLElement>, asks: string[]): void {
  const all = inOrder(event.currentTarget, asks);
  const next = all[all.indexOf(event.target as HTMLElement) + (event.shiftKey ? -1 : 1)];
  if (!next) return;
  event.preventDefault();
  next.focus();
  if (next instanceof HTMLInputElement) next.select();
}
