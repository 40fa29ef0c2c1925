// One call-out: name, words, value, tolerance, what it measures, where its balloon sits.
import { useState } from 'react';
import type { CallOut, Piece } from '../api/client';
import { Chip } from './Chip';
import { at, callouts, put, type Path } from './edit';
import { commit, renamed, select, selectCallout, useBench } from './store';

type Inputs = {
  path: Path;
  label: string;
  list?: 'features' | 'bends' | 'holes' | 'panels' | 'edges' | 'nodes' | 'members' | 'pieces' | 'faces';
  options?: string[];
}[];

const TOLERANCES: Record<string, { words: string; start: unknown; inputs: Inputs }> = {
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

const AXES = ['x', 'y', 'z'];
const LEGS = ['outside', 'inside', 'mould', 'tangent'];
const along = (key: string): Inputs => [{ path: [key, 'along'], label: 'along', options: AXES }];

const MEASURES: Record<string, { words: string; start: unknown; inputs: Inputs }> = {
  none: { words: 'nothing yet', start: undefined, inputs: [] },
  distance: {
    words: 'distance',
    start: { distance: { from: '', to: '' } },
    inputs: [
      { path: ['distance', 'from'], label: 'from', list: 'features' },
      { path: ['distance', 'to'], label: 'to', list: 'features' },
      { path: ['distance', 'along'], label: 'along', options: ['', ...AXES] },
    ],
  },
  size: { words: 'overall folded size', start: { size: { along: 'x' } }, inputs: along('size') },
  leg: {
    words: 'leg of a bend',
    start: { leg: { bend: '', to: 'outside' } },
    inputs: [
      { path: ['leg', 'bend'], label: 'bend', list: 'bends' },
      { path: ['leg', 'to'], label: 'measured to', options: LEGS },
    ],
  },
  angle: {
    words: 'angle between panels',
    start: { angle: { from: '', to: '' } },
    inputs: [
      { path: ['angle', 'from'], label: 'panel', list: 'panels' },
      { path: ['angle', 'to'], label: 'and panel', list: 'panels' },
    ],
  },
  bend_angle: {
    words: 'bend angle',
    start: { bend_angle: { bend: '' } },
    inputs: [{ path: ['bend_angle', 'bend'], label: 'bend', list: 'bends' }],
  },
  inside_radius: {
    words: 'inside radius',
    start: { inside_radius: { bend: '' } },
    inputs: [{ path: ['inside_radius', 'bend'], label: 'bend', list: 'bends' }],
  },
  diameter: {
    words: 'hole diameter',
    start: { diameter: { hole: '' } },
    inputs: [{ path: ['diameter', 'hole'], label: 'hole', list: 'holes' }],
  },
  edge_length: {
    words: 'length of an edge',
    start: { edge_length: { edge: '' } },
    inputs: [{ path: ['edge_length', 'edge'], label: 'edge', list: 'edges' }],
  },
  edge_radius: {
    words: 'radius of a round edge',
    start: { edge_radius: { edge: '' } },
    inputs: [{ path: ['edge_radius', 'edge'], label: 'edge', list: 'edges' }],
  },
  hole_size: {
    words: 'size of a hole',
    start: { hole_size: { hole: '', along: 'x' } },
    inputs: [
      { path: ['hole_size', 'hole'], label: 'hole', list: 'holes' },
      { path: ['hole_size', 'along'], label: 'along', options: ['x', 'y'] },
    ],
  },
  hole_count: {
    words: 'number of holes',
    start: { hole_count: { hole: '' } },
    inputs: [{ path: ['hole_count', 'hole'], label: 'operation', list: 'holes' }],
  },
  thickness: { words: 'thickness', start: 'thickness', inputs: [] },
  blank_size: {
    words: 'blank size',
    start: { blank_size: { along: 'x' } },
    inputs: [{ path: ['blank_size', 'along'], label: 'along', options: ['x', 'y'] }],
  },
  cut_length: { words: 'cut length', start: 'cut_length', inputs: [] },
  pierces: { words: 'pierces', start: 'pierces', inputs: [] },
  net_area: { words: 'net area', start: 'net_area', inputs: [] },
  mass: { words: 'mass', start: 'mass', inputs: [] },
  centre_of_gravity: {
    words: 'centre of gravity',
    start: { centre_of_gravity: { along: 'x' } },
    inputs: along('centre_of_gravity'),
  },
  folded_volume: { words: 'folded volume', start: 'folded_volume', inputs: [] },
};

const of = (key: string): Inputs => [{ path: ['frame', key, 'member'], label: 'member', list: 'members' }];
const two = (key: string): Inputs => [
  { path: ['frame', key, 'from'], label: 'member', list: 'members' },
  { path: ['frame', key, 'to'], label: 'and member', list: 'members' },
];

/** What a frame is measured by. */
const FRAME_MEASURES: typeof MEASURES = {
  none: { words: 'nothing yet', start: undefined, inputs: [] },
  overall: {
    words: 'overall size',
    start: { frame: { overall: { along: 'x' } } },
    inputs: [{ path: ['frame', 'overall', 'along'], label: 'along', options: AXES }],
  },
  nodes: {
    words: 'distance of nodes',
    start: { frame: { nodes: { from: '', to: '' } } },
    inputs: [
      { path: ['frame', 'nodes', 'from'], label: 'from', list: 'nodes' },
      { path: ['frame', 'nodes', 'to'], label: 'to', list: 'nodes' },
      { path: ['frame', 'nodes', 'along'], label: 'along', options: ['', ...AXES] },
    ],
  },
  diagonals: {
    words: 'difference of diagonals',
    start: { frame: { diagonals: { one: ['', ''], two: ['', ''] } } },
    inputs: [
      { path: ['frame', 'diagonals', 'one', 0], label: 'first from', list: 'nodes' },
      { path: ['frame', 'diagonals', 'one', 1], label: 'first to', list: 'nodes' },
      { path: ['frame', 'diagonals', 'two', 0], label: 'second from', list: 'nodes' },
      { path: ['frame', 'diagonals', 'two', 1], label: 'second to', list: 'nodes' },
    ],
  },
  opening: { words: 'clear opening', start: { frame: { opening: { from: '', to: '' } } }, inputs: two('opening') },
  faces: {
    words: 'distance of faces',
    start: { frame: { faces: { from: '', to: '' } } },
    inputs: [
      { path: ['frame', 'faces', 'from'], label: 'face', list: 'faces' },
      { path: ['frame', 'faces', 'to'], label: 'and face', list: 'faces' },
    ],
  },
  clearance: {
    words: 'clearance of two pieces',
    start: { frame: { clearance: { from: '', to: '' } } },
    inputs: [
      { path: ['frame', 'clearance', 'from'], label: 'piece', list: 'pieces' },
      { path: ['frame', 'clearance', 'to'], label: 'and piece', list: 'pieces' },
    ],
  },
  between: {
    words: 'angle between members',
    start: { frame: { between: { from: '', to: '' } } },
    inputs: two('between'),
  },
  member_length: {
    words: 'length of a member',
    start: { frame: { member_length: { member: '' } } },
    inputs: of('member_length'),
  },
  short_length: {
    words: 'its length, short points',
    start: { frame: { short_length: { member: '' } } },
    inputs: of('short_length'),
  },
  end_angle: {
    words: "angle of a member's end",
    start: { frame: { end_angle: { member: '' } } },
    inputs: of('end_angle'),
  },
  frame_mass: { words: 'mass', start: { frame: { frame_mass: {} } }, inputs: [] },
  frame_centre: {
    words: 'centre of gravity',
    start: { frame: { frame_centre: { along: 'x' } } },
    inputs: [{ path: ['frame', 'frame_centre', 'along'], label: 'along', options: AXES }],
  },
  member_count: {
    words: 'number of members',
    start: { frame: { member_count: { member: '' } } },
    inputs: of('member_count'),
  },
};

/** The key of a measure: of a frame's, the one inside. */
const measureOf = (value: unknown): string =>
  value !== null && typeof value === 'object' && 'frame' in value ? kindOf(value.frame) : kindOf(value);

const kindOf = (value: unknown): string =>
  value == null ? 'none' : typeof value === 'string' ? value : (Object.keys(value)[0] ?? 'none');

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
    const fault = await commit((now) => put(now, ['callouts', index, ...path], value), note, own);
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
    ],
  };
  const measure: unknown = draft?.value ?? callout.measure;
  const measureKind = draft?.kind ?? measureOf(callout.measure);
  const measures = piece.kind === 'frame' ? FRAME_MEASURES : MEASURES;
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
      `took out call-out ${name}`,
    ).then((fault) => {
      if (fault) useBench.setState({ message: fault });
      else {
        select({});
        useBench.setState({ message: `Call-out ${name} is taken out. Ctrl+Z brings it back.` });
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
          edit={(now, text) => put(now, ['callouts', index, 'text'], text)}
          own={{}}
          note={`${name}: words`}
        />
      </span>
      <span className="lab">value</span>
      <span>
        <Chip
          text={callout.value}
          label="value"
          edit={(now: Piece, text) => put(now, ['callouts', index, 'value'], text)}
          comes={(found) => found.callouts.find((one) => one.name === name)?.value_text}
          own={own}
          note={`${name}: value`}
        />
      </span>
      <label htmlFor="tolerance">tolerance</label>
      <select
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
      </select>
      {(TOLERANCES[kindOf(callout.tolerance)]?.inputs ?? []).map((input) => (
        <Row key={input.label} label={input.label}>
          {input.options ? (
            <select
              className="field"
              aria-label={input.label}
              value={String(at(callout.tolerance, input.path) ?? '')}
              onChange={(event) => void change(['tolerance', ...input.path], event.target.value, `${name}: tolerance`)}
            >
              {input.options.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          ) : (
            <Chip
              text={String(at(callout.tolerance, input.path) ?? '')}
              label={input.label}
              edit={(now, text) => put(now, ['callouts', index, 'tolerance', ...input.path], text)}
              own={own}
              note={`${name}: tolerance`}
            />
          )}
        </Row>
      ))}
      <label htmlFor="measures">measures</label>
      <select
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
      </select>
      {(measures[measureKind]?.inputs ?? []).map((input) => (
        <Row key={input.label} label={input.label}>
          {input.options ? (
            <select
              className="field"
              aria-label={input.label}
              value={String(at(measure, input.path) ?? '')}
              onChange={(event) => setMeasure(put(measure, input.path, event.target.value || undefined))}
            >
              {input.options.map((one) => (
                <option key={one} value={one}>
                  {one || 'shortest'}
                </option>
              ))}
            </select>
          ) : (
            <NameField
              value={String(at(measure, input.path) ?? '')}
              label={input.label}
              names={lists[input.list ?? 'features']}
              onChange={(text) => setMeasure(put(measure, input.path, text))}
            />
          )}
        </Row>
      ))}
      <div className="wide">
        {hasPicture && (
          <button
            type="button"
            className="plain"
            aria-pressed={placing}
            onClick={() => useBench.setState({ placing: !placing })}
          >
            {placing ? 'click on the drawing…' : callout.place ? 'move the balloon' : 'place the balloon'}
          </button>
        )}
        {callout.place && (
          <button
            type="button"
            className="plain"
            onClick={() => void change(['place'], undefined, `${name}: balloon off`)}
          >
            balloon off
          </button>
        )}
        <button type="button" className="plain" onClick={remove}>
          take out
        </button>
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
      <input
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
