// What you do: the operations as numbered sentences, and how far they are shown.
import { memo } from 'react';
import type { Operation, Piece } from '../api/client';
import { Adder } from './Adder';
import { DraftSentence } from './DraftSentence';
import { Hints } from './Hints';
import { SentenceParts } from './SentenceParts';
import { Chip } from './Chip';
import { at, move, named, operations, put, verb } from './edit';
import { kindOfPiece } from '../kinds';
import type { KindOfPiece } from '../kinds/kind';
import { changesOf, fieldOf, sentence } from './sentence';
import { putBy, type Change, type Part } from './parts';
import { SectionPicture } from '../kinds/sheet/SectionPicture';
import { SurfacePicture } from '../kinds/sheet/SurfacePicture';
import { StockSentence } from './StockSentence';
import { folded, isUsual } from './usual';
import { namesIn, useSuggestions } from './suggestions';
import { commit, renamed, selectOperation, setCaret, useBench } from './store';
import { Act } from '../kit/Act';
import { Glyph } from '../kit/Glyph';
import { Press } from '../kit/Press';
import { Select } from '../kit/Select';

export function WorkColumn() {
  const piece = useBench((s) => s.document);
  const answer = useBench((s) => s.answer);
  const caret = useBench((s) => s.caret);
  const selection = useBench((s) => s.selection);
  const draft = useBench((s) => s.draft !== null);
  if (!piece) return null;
  const kind = kindOfPiece(piece);
  const list = operations(piece);
  const shownTo = caret ?? list.length;
  return (
    <section className="column" aria-label="You do">
      <h2>You do</h2>
      <StockSentence piece={piece} />
      {list.length === 0 && !draft && (
        <div className="empty" style={{ margin: '0 14px 8px' }}>
          <b>No work yet.</b>
          <p>{kind.words.empty}</p>
          <p className="mono">{kind.words.first}</p>
        </div>
      )}
      <ol className="work">
        {list.map((operation, index) => {
          const made = answer?.operations[index];
          const on = selection.operation === operation.name;
          const faults =
            answer?.findings.filter((one) => one.operation === operation.name && one.severity !== 'hint') ?? [];
          const own = answer?.breaches.filter((one) => one.operations[0] === operation.name) ?? [];
          const breaches = own.filter((one) => one.level !== 'hint');
          return (
            <li
              key={operation.name}
              className={[
                on && 'on',
                index >= shownTo && 'ahead',
                operation.rested && 'rested',
                caret !== null && index === shownTo - 1 && 'at',
              ]
                .filter(Boolean)
                .join(' ')}
              onClick={() => !on && selectOperation(operation.name)}
            >
              <Press
                className="n"
                aria-label={`Step ${index + 1}, ${operation.name}: show the piece up to here`}
                aria-current={on || undefined}
                onClick={() => setCaret(index + 1)}
              >
                {index + 1}
              </Press>
              <div style={{ flex: 1, minWidth: 0 }}>
                <Sentence
                  open={on}
                  kind={piece.kind}
                  operation={operation}
                  index={index}
                  sides={made?.sides ?? []}
                  faultyFields={faults.map((one) => one.field ?? '')}
                />
                {made?.section && <SectionPicture section={made.section} />}
                {on &&
                  answer?.surfaces
                    .filter((one) => one.operation === operation.name)
                    .map((one) => <SurfacePicture key={one.operation} surface={one} />)}
                {made?.state === 'ahead' && <span className="soft"> not shown</span>}
                {operation.rested && <span className="soft"> left out</span>}
                {faults.map((one) => (
                  <span className="fault" key={one.message}>
                    {one.message}. {one.way_out}
                  </span>
                ))}
                {on && (
                  <Hints
                    of={operation.name}
                    messages={(answer?.findings ?? [])
                      .filter((one) => one.operation === operation.name && one.severity === 'hint')
                      .map((one) => one.message)}
                  />
                )}
                {on &&
                  own
                    .filter((one) => one.level === 'hint')
                    .slice(0, 2)
                    .map((one) => (
                      <span className="soft" key={one.message} style={{ display: 'block' }}>
                        {one.message}.
                      </span>
                    ))}
                {breaches.slice(0, 2).map((one) => (
                  <span className="fault" key={one.message}>
                    {one.message}.
                  </span>
                ))}
                {on && <Row kind={kind} operation={operation} />}
                <Acts operation={operation} index={index} count={list.length} />
              </div>
            </li>
          );
        })}
      </ol>
      {draft ? <DraftSentence /> : <Adder piece={piece} />}
      {caret !== null && (
        <p className="soft" style={{ margin: '0 14px 8px' }}>
          What is added goes in here, after step {shownTo} of {list.length}.
        </p>
      )}
    </section>
  );
}

/** What can be done with any step: pictures beside it, under the pointer, with the focus and where it is chosen. */
function Acts({ operation, index, count }: { operation: Operation; index: number; count: number }) {
  const change = (next: (now: Piece) => Piece, note: string) =>
    void commit(next, note).then((fault) => fault && useBench.setState({ message: fault }));
  const remove = () => {
    change(
      (now) => ({ ...now, operations: operations(now).filter((one) => one.name !== operation.name) }),
      `deleted ${operation.name}`,
    );
    // What is shown up to stays the same without it.
    const { caret } = useBench.getState();
    if (caret !== null && index < caret) setCaret(caret - 1);
    useBench.setState({ message: `${operation.name} is deleted. Ctrl+Z brings it back.` });
  };
  return (
    <div className="opacts" role="group" aria-label={`Step ${operation.name}`}>
      <Glyph
        icon="up"
        words={`move ${operation.name} up`}
        disabled={index === 0}
        press={() => change((now) => move(now, operation.name, -1), `moved ${operation.name} up`)}
      />
      <Glyph
        icon="down"
        words={`move ${operation.name} down`}
        disabled={index === count - 1}
        press={() => change((now) => move(now, operation.name, 1), `moved ${operation.name} down`)}
      />
      <Glyph
        icon={operation.rested ? 'work' : 'rest'}
        words={operation.rested ? `put ${operation.name} back in` : `leave out ${operation.name}`}
        press={() =>
          change(
            (now) => put(now, ['operations', named(operation.name), 'rested'], operation.rested ? undefined : true),
            operation.rested ? `put ${operation.name} back in` : `left ${operation.name} out`,
          )
        }
      />
      <Glyph icon="out" words={`delete ${operation.name}`} press={remove} />
    </div>
  );
}

/** Its name, and what can be changed of it, while it is chosen. */
function Row({ kind, operation }: { kind: KindOfPiece; operation: Operation }) {
  return (
    <div className="oprow">
      <span className="soft">called </span>
      <Chip
        text={operation.name}
        label="operation name"
        edit={(now, text) => renamed('operation', operation.name, text ?? '')(now)}
        own={{}}
        note={`renamed ${operation.name}`}
        done={selectOperation}
      />
      {kind.RowTools && <kind.RowTools operation={operation} />}
      <More kind={kind} operation={operation} />
    </div>
  );
}

/** What can be added to an operation, changed of it or taken from it, in one click. */
function More({ kind, operation }: { kind: KindOfPiece; operation: Operation }) {
  const names = useBench((s) => s.answer?.names);
  const key = verb(operation);
  const list = changesOf({ kind: kind.key }, operation, { edges: names?.edges ?? [], holes: names?.holes ?? [] });
  if (list.length === 0) return null;
  const run = (change: Change) => {
    const next = (now: Piece) =>
      change.sets.reduce(
        (piece, [path, value]) => put(piece, ['operations', named(operation.name), 'do', key, ...path], value),
        now,
      );
    void commit(next, `${operation.name}: ${change.words}`, { operation: operation.name }).then(
      (fault) => fault && useBench.setState({ message: fault }),
    );
  };
  const near = list.filter((one) => /^[+−]/.test(one.words));
  return (
    <>
      {near.map((one) => (
        <Act key={one.words} onClick={() => run(one)}>
          {one.words}
        </Act>
      ))}
      {near.length < list.length && (
        <Select
          className="chip"
          aria-label={`Change ${operation.name}`}
          value=""
          onChange={(event) => {
            const one = list.find((change) => change.words === event.target.value);
            if (one) run(one);
          }}
        >
          <option value="">make it…</option>
          {list
            .filter((one) => !near.includes(one))
            .map((one) => (
              <option key={one.words}>{one.words}</option>
            ))}
        </Select>
      )}
    </>
  );
}

interface Said {
  /** Whether all of it is shown, or only what was chosen. */
  open: boolean;
  kind: Piece['kind'];
  operation: Operation;
  index: number;
  sides: string[];
  faultyFields: string[];
}

const alike = (one: string[], two: string[]) => one.length === two.length && one.every((text, at) => text === two[at]);

/** A sentence is written anew when its own words change: a frame has hundreds of values, and one of them is typed. */
const Sentence = memo(
  Saying,
  (old, next) =>
    old.open === next.open &&
    old.kind === next.kind &&
    old.operation === next.operation &&
    old.index === next.index &&
    alike(old.sides, next.sides) &&
    alike(old.faultyFields, next.faultyFields),
);

function Saying({ open, kind, operation, index, sides, faultyFields }: Said) {
  const callout = useBench((s) => s.selection.callout);
  const all = sentence({ kind }, operation, sides);
  // What is at fault is shown, however it stands.
  const usual = (part: Part) =>
    part.kind !== 'word' &&
    !faultyFields.includes(fieldOf(part.path)) &&
    isUsual(part, (one) => at(operation, one.path));
  const parts = open ? all : folded(all, usual);
  return (
    <div className="sentence">
      <SentenceParts
        parts={parts}
        choice={(part) => <Choice part={part} operation={operation} />}
        value={(part) => {
          const field = fieldOf(part.path);
          return (
            <Chip
              text={part.text}
              label={part.label}
              ghost={part.ghost}
              optional={part.optional}
              live={
                callout !== undefined &&
                new RegExp(`(?<![A-Za-z0-9_.])${callout}(?![A-Za-z0-9_])`).test(part.text) &&
                !part.names
              }
              wrong={faultyFields.includes(field)}
              list={part.names && ((id) => <Suggested id={id} operation={operation.name} part={part} />)}
              edit={(piece, text) =>
                put(piece, ['operations', named(operation.name), ...part.path], part.list ? namesIn(text) : text)
              }
              comes={(answer) => answer.operations[index]?.values.find((one) => one.field === field)?.text}
              own={{ operation: operation.name }}
              note={`${operation.name}: ${part.label}`}
            />
          );
        }}
      />
      {parts.length < all.length && (
        <>
          {' '}
          <Act
            className="usual"
            aria-label={`The rest of ${operation.name} as usual: show it`}
            onClick={() => selectOperation(operation.name)}
          >
            as usual
          </Act>
        </>
      )}
    </div>
  );
}

/** The names that the value which is typed may be one of. */
function Suggested({ id, operation, part }: { id: string; operation: string; part: Extract<Part, { kind: 'value' }> }) {
  const names = useSuggestions(operation)(part);
  return (
    <datalist id={id}>
      {names?.map((one) => (
        <option key={one} value={one} />
      ))}
    </datalist>
  );
}

function Choice({ part, operation }: { part: Extract<Part, { kind: 'choice' }>; operation: Operation }) {
  const change = (value: string) => {
    const next = putBy(part.options, value);
    void commit(
      (now) => put(now, ['operations', named(operation.name), ...part.path], next),
      `${operation.name}: ${part.label} ${value}`,
      { operation: operation.name },
    ).then((fault) => fault && useBench.setState({ message: fault }));
  };
  return (
    <Select
      className="chip"
      aria-label={`${part.label} of ${operation.name}`}
      value={part.value}
      onChange={(event) => change(event.target.value)}
    >
      {part.options.map(([value, words]) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
    </Select>
  );
}
