// One call-out: name, words, value, tolerance, what it measures, where its balloon sits.
import { useState } from 'react';
import type { CallOut, Piece } from '../api/client';
import { kindOfPiece } from '../kinds';
import { Chip } from './Chip';
import { at, callouts, named, plain, put, type Path } from './edit';
import { kindOf, type MeasureForm } from './parts';
import { commit, renamed, select, selectCallout, useBench } from './store';
import { Act } from '../kit/Act';
import { Select } from '../kit/Select';
import { Input } from '../kit/Input';

const TOLERANCES: Record<string, MeasureForm> = {
  none: { words: 'general', start: undefined, inputs: [] },
  plus_minus: {
    words: 'plus and minus',
    start: { plus_minus: '0.5 mm' },
    inputs: [{ path: ['plus_minus'], label: 'plus and minus' }],
  },
  deviations: {
    words: 'upper and lower',
    start: { deviations: { upper: '0.2 mm', lower: '0 mm' } },
    inputs: [
      { path: ['deviations', 'upper'], label: 'upper deviation' },
      { path: ['deviations', 'lower'], label: 'lower deviation' },
    ],
  },
  limits: {
    words: 'limits',
    start: { limits: { least: '0 mm', most: '1 mm' } },
    inputs: [
      { path: ['limits', 'least'], label: 'least' },
      { path: ['limits', 'most'], label: 'most' },
    ],
  },
  iso13920: {
    words: 'ISO 13920, welded',
    start: { iso13920: 'B' },
    inputs: [{ path: ['iso13920'], label: 'class', options: ['A', 'B', 'C', 'D'] }],
  },
  iso2768: {
    words: 'ISO 2768-1',
    start: { iso2768: 'm' },
    inputs: [{ path: ['iso2768'], label: 'class', options: ['f', 'm', 'c'] }],
  },
};

export function CallOutEditor() {
  const piece = useBench((s) => s.document);
  const answer = useBench((s) => s.answer);
  const name = useBench((s) => s.selection.callout);
  const placing = useBench((s) => s.placing);
  const hasPicture = useBench((s) => s.hasPicture);
  // A kind that still lacks its names is kept here until they are given: half a measure is never saved.
  const [draft, setDraft] = useState<{ kind: string; value: unknown } | null>(null);
  const index = piece && name ? callouts(piece).findIndex((one) => one.name === name) : -1;
  const callout = piece && index >= 0 ? callouts(piece)[index] : undefined;
  if (!piece || !name || !callout) return null;
  const proof = answer?.callouts.find((one) => one.name === name);
  const own = { callout: name };
  const change = async (path: Path, value: unknown, note: string): Promise<boolean> => {
    const fault = await commit((now) => put(now, ['callouts', named(name), ...path], value), note, own);
    if (fault) useBench.setState({ message: fault });
    return fault === null;
  };
  const names = answer?.names;
  const lists = {
    panels: names?.panels ?? [],
    edges: names?.edges ?? [],
    bends: names?.bends ?? [],
    nodes: names?.nodes ?? [],
    members: names?.members ?? [],
    pieces: names?.pieces ?? [],
    faces: names?.faces ?? [],
    forms: names?.forms ?? [],
    operations: (piece.operations ?? []).map((one) => one.name),
    rims: [...(names?.edges ?? []), ...(names?.bends ?? []), ...(names?.holes ?? [])],
    holes: [...new Set([...(names?.holes ?? []), ...(names?.holes ?? []).map((one) => one.split('.')[0] ?? one)])],
    features: [
      ...(names?.edges ?? []),
      ...(names?.panels ?? []).flatMap((one) => [`${one}.top`, `${one}.bottom`]),
      ...(names?.bends ?? []).flatMap((one) => [
        `${one}.outside`,
        `${one}.inside`,
        `${one}.mould-outside`,
        `${one}.mould-inside`,
      ]),
      ...(names?.holes ?? []),
      ...(names?.forms ?? []),
    ],
  };
  const { measures, measureOf } = kindOfPiece(piece);
  const measure: unknown = draft?.value ?? callout.measure;
  const measureKind = draft?.kind ?? measureOf(callout.measure);

  const setMeasure = (value: unknown) => {
    const complete = JSON.stringify(value)?.includes('""') !== true;
    // It stays on screen until it is taken over: a refusal, or an answer that takes its time, loses nothing.
    setDraft({ kind: measureOf(value), value });
    if (!complete) return;
    void change(['measure'], value ?? undefined, `${name} measures ${measures[measureOf(value)]?.words ?? ''}`).then(
      (taken) => taken && setDraft((now) => (now?.value === value ? null : now)),
    );
  };
  const remove = () => {
    void commit(
      (now) => ({ ...now, callouts: callouts(now).filter((one) => one.name !== name) }),
      `deleted call-out ${name}`,
    ).then((fault) => {
      if (fault) useBench.setState({ message: fault });
      else {
        select({});
        useBench.setState({ message: `Call-out ${name} is deleted. Ctrl+Z brings it back.` });
      }
    });
  };
  return (
    <div className="editor" role="group" aria-label={`Call-out ${name}`}>
      <span className="lab">name</span>
      <span>
        <Chip
          text={name}
          label="call-out name"
          edit={(now, text) => renamed('callout', name, text ?? '')(now)}
          own={{}}
          note={`renamed call-out ${name}`}
          done={selectCallout}
        />
      </span>
      <span className="lab">words</span>
      <span>
        <Chip
          text={callout.text ?? ''}
          ghost="what the drawing calls it"
          optional
          label="words"
          edit={(now, text) => put(now, ['callouts', named(name), 'text'], text)}
          own={{}}
          note={`${name}: words`}
        />
      </span>
      <span className="lab">value</span>
      <span>
        <Chip
          key={name}
          // One that is new has nothing yet: its value is what comes first.
          opens={callout.value === '0 mm' && !callout.text && !callout.measure}
          text={callout.value}
          label="value"
          edit={(now: Piece, text) => put(now, ['callouts', named(name), 'value'], text)}
          comes={(found) => found.callouts.find((one) => one.name === name)?.value_text}
          own={own}
          note={`${name}: value`}
        />
      </span>
      <label htmlFor="tolerance">tolerance</label>
      <Select
        id="tolerance"
        className="field"
        value={kindOf(callout.tolerance)}
        onChange={(event) => void change(['tolerance'], TOLERANCES[event.target.value]?.start, `${name}: tolerance`)}
      >
        {Object.entries(TOLERANCES).map(([key, one]) => (
          <option key={key} value={key}>
            {one.words}
          </option>
        ))}
      </Select>
      {(TOLERANCES[kindOf(callout.tolerance)]?.inputs ?? []).map((input) => (
        <Row key={input.label} label={input.label}>
          {input.options ? (
            <Select
              className="field"
              aria-label={input.label}
              value={plain(at(callout.tolerance, input.path))}
              onChange={(event) => void change(['tolerance', ...input.path], event.target.value, `${name}: tolerance`)}
            >
              {input.options.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </Select>
          ) : (
            <Chip
              text={plain(at(callout.tolerance, input.path))}
              label={input.label}
              edit={(now, text) => put(now, ['callouts', named(name), 'tolerance', ...input.path], text)}
              own={own}
              note={`${name}: tolerance`}
            />
          )}
        </Row>
      ))}
      <label htmlFor="measures">measures</label>
      <Select
        id="measures"
        className="field"
        value={measureKind}
        onChange={(event) => setMeasure(measures[event.target.value]?.start)}
      >
        {Object.entries(measures).map(([key, one]) => (
          <option key={key} value={key}>
            {one.words}
          </option>
        ))}
      </Select>
      {(measures[measureKind]?.inputs ?? []).map((input) => (
        <Row key={input.label} label={input.label}>
          {input.options ? (
            <Select
              className="field"
              aria-label={input.label}
              value={plain(at(measure, input.path))}
              onChange={(event) => setMeasure(put(measure, input.path, event.target.value || undefined))}
            >
              {input.options.map((one) => (
                <option key={one} value={one}>
                  {one || 'shortest'}
                </option>
              ))}
            </Select>
          ) : (
            <NameField
              value={plain(at(measure, input.path))}
              label={input.label}
              names={lists[input.list ?? 'features']}
              onChange={(text) => setMeasure(put(measure, input.path, text))}
            />
          )}
        </Row>
      ))}
      <div className="wide">
        {hasPicture && (
          <Act aria-pressed={placing} onClick={() => useBench.setState({ placing: !placing })}>
            {placing ? 'click on the drawing…' : callout.place ? 'move the balloon' : 'place the balloon'}
          </Act>
        )}
        {callout.place && (
          <Act onClick={() => void change(['place'], undefined, `${name}: without its balloon`)}>remove balloon</Act>
        )}
        <Act onClick={remove}>delete</Act>
      </div>
      {proof && proof.verdict !== 'holds' && proof.reason && (
        <p className={`wide ${proof.verdict === 'off' ? 'bad' : 'todo'}`} style={{ margin: 0 }}>
          {proof.reason}
        </p>
      )}
    </div>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <>
      <span className="lab">{label}</span>
      <span>{children}</span>
    </>
  );
}

function NameField({
  value,
  label,
  names,
  onChange,
}: {
  value: string;
  label: string;
  names: string[];
  onChange: (text: string) => void;
}) {
  const [text, setText] = useState(value);
  const list = `names-${label}`;
  return (
    <>
      <Input
        className="field mono"
        aria-label={label}
        value={text}
        list={list}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && onChange(text.trim())}
        onBlur={() => text.trim() !== value && onChange(text.trim())}
      />
      <datalist id={list}>
        {names.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
    </>
  );
}

export type { CallOut };
