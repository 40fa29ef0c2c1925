// "/": a line to type an operation in, with the verbs listed below it.
import { Fragment, useEffect, useRef, useState } from 'react';
import type { Piece } from '../api/client';
import { startDraft, type Offer } from './draft';
import { kindOfPiece } from '../kinds';
import { operations } from './edit';
import { readPhrase } from './phrase';
import { commit, selectOperation, setCaret, useBench } from './store';
import { useOffers } from './useOffers';
import { VerbPicture } from './VerbPicture';
import { Field } from '../kit/Field';
import { Press } from '../kit/Press';

/** Groups of verbs in words, in the order of the work. */
const GROUPS: Record<Offer['group'], string> = {
  lay_down: 'Begin',
  bend: 'Bend',
  hole: 'Drill and cut',
  edge: 'Edges and corners',
  blank: 'Blanks and seams',
  line: 'Lines',
  member: 'Members',
  joint: 'Joints and ends',
  plate: 'Plates',
  again: 'Make again',
};

interface Choice {
  title: string;
  sub: string;
  /** What the line says afterwards; or the step that is laid. */
  text?: string;
  offer?: Offer;
}

export function Adder({ piece }: { piece: Piece }) {
  const kind = kindOfPiece(piece);
  const open = useBench((s) => s.adding);
  const caret = useBench((s) => s.caret);
  const names = useBench((s) => s.answer?.names);
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [at, setAt] = useState(-1);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!open) return;
    const { typed } = useBench.getState();
    if (typed) {
      setText(typed);
      useBench.setState({ typed: '' });
    }
    input.current?.focus();
    // The list below it is what is looked for; who tests without a screen has no scrolling.
    input.current?.scrollIntoView?.({ block: 'start' });
  }, [open]);
  const begins = operations(piece).length === 0;
  const { offers } = useOffers(open || begins ? NOWHERE : null);
  const steps = offers?.offers ?? [];
  const close = () => {
    useBench.setState({ adding: false });
    setText('');
    setFault(null);
    setAt(-1);
  };
  if (!open) {
    return (
      <>
        {begins && <Steps steps={steps} />}
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
  // Every word that is typed is somewhere in what a step says.
  const said = typed.split(/\s+/);
  const fitting = typed.includes(',')
    ? []
    : steps.filter((one) => said.every((part) => one.words.toLowerCase().includes(part)));
  const choices: Choice[] =
    hints.length > 0
      ? hints.map((one) => ({ title: one, sub: '', text: text.slice(0, text.length - word.length) + one }))
      : [
          ...fitting.map((offer) => ({ title: offer.words, sub: '', offer })),
          ...shown.map((one) => ({
            title: one.verb,
            sub: one.example,
            text: typed.startsWith(one.verb) ? text : `${one.verb} `,
          })),
        ];
  const take = (one: Choice) => {
    if (one.offer) {
      setText('');
      setFault(null);
      startDraft(one.offer);
    } else setText(one.text ?? text);
    setAt(-1);
  };
  const run = async () => {
    if (at >= 0 && choices[at]) {
      take(choices[at]);
      return;
    }
    const read = readPhrase(text, piece);
    if ('fault' in read) {
      setFault(read.fault);
      // The words that it is about are marked, to be typed over.
      const about = /^"(.+?)" is not understood/.exec(read.fault)?.[1];
      const from = about ? text.indexOf(about) : -1;
      if (about && from >= 0) input.current?.setSelectionRange(from, from + about.length);
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
      <Field
        ref={input}
        mono
        label="New operation"
        slotProps={{
          input: {
            'aria-describedby': 'adder-fault',
            role: 'combobox',
            'aria-autocomplete': 'list',
            'aria-expanded': choices.length > 0,
            'aria-controls': 'adder-list',
            'aria-activedescendant': choices[at] ? `adder-${at}` : undefined,
          },
        }}
        placeholder={kind.words.example}
        value={text}
        change={(typed) => {
          setText(typed);
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
      <ul aria-label="Verbs and names" role="listbox" id="adder-list">
        {choices.map((one, index) => (
          <Fragment key={one.title}>
            {heading(choices, index) && (
              <li className="grouphead" role="presentation">
                {heading(choices, index)}
              </li>
            )}
            <li
              className={`${one.offer ? 'step' : ''}${index === at ? ' on' : ''}`}
              role="option"
              id={`adder-${index}`}
              aria-selected={index === at}
              aria-label={[groupOf(one), one.title, one.sub].filter(Boolean).join(': ')}
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => take(one)}
            >
              {one.offer && <VerbPicture of={one.offer} size={40} />}
              {one.title}
              {one.sub && <small>{one.sub}</small>}
            </li>
          </Fragment>
        ))}
      </ul>
      <div className="visually" aria-live="polite">
        {text && choices.length > 0 ? `${choices.length} offered` : ''}
      </div>
      <p className="soft">Enter adds, Esc closes. After a verb: {shown[0]?.words ?? 'values parted by commas'}.</p>
    </div>
  );
}

/** Nothing is pointed at: what the list of verbs begins with. */
const NOWHERE: string[] = [];

/** The group of a choice in words; null for a name. */
function groupOf(one: Choice | undefined): string | null {
  return one?.offer ? GROUPS[one.offer.group] : one?.sub ? 'Typed lines' : null;
}

/** What stands over a choice: the name of its group, before the first of it. */
function heading(choices: Choice[], index: number): string | null {
  const own = groupOf(choices[index]);
  return own !== groupOf(choices[index - 1]) ? own : null;
}

/** Steps that a piece can begin with, one press each. */
function Steps({ steps }: { steps: Offer[] }) {
  return (
    <ul className="steps" aria-label="Begin with">
      {steps.map((one) => (
        <li key={one.words}>
          <Press className="step" onClick={() => startDraft(one)}>
            <VerbPicture of={one} size={40} />
            {one.words}
          </Press>
        </li>
      ))}
    </ul>
  );
}
