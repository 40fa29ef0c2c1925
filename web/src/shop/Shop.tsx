// The shop's cutters: what each cuts, how wide, how fast. Nothing is taken over until it is saved.
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { client, must, Refusal, words, type Schemas } from '../api/client';
import { Top } from '../parts/Top';
import { BendTables } from './BendTables';
import { FileNames } from './FileNames';
import { Frames } from './Frames';
import { RuleSettings } from './RuleSettings';
import { Act, ActFile } from '../kit/Act';
import { useTitle } from '../kit/useTitle';
import { List } from '../kit/List';
import { Select } from '../kit/Select';
import { Input } from '../kit/Input';

type Cutter = Schemas['Cutter'];
type Row = Schemas['CutterRow'];
type Table = Schemas['CutterTable'];

const FAMILIES = [
  ['mild_steel', 'mild steel'],
  ['galvanised', 'galvanised'],
  ['stainless', 'stainless'],
  ['aluminium', 'aluminium'],
] as const;
const PROCESSES = [
  ['laser', 'laser'],
  ['plasma', 'plasma'],
  ['waterjet', 'waterjet'],
  ['oxy_fuel', 'oxy-fuel'],
] as const;
const COLUMNS: [keyof Row & ('thickness' | 'kerf' | 'speed' | 'pierce' | 'least_hole'), string][] = [
  ['thickness', 'up to, mm'],
  ['kerf', 'kerf, mm'],
  ['speed', 'speed, mm/min'],
  ['pierce', 'pierce, s'],
  ['least_hole', 'least hole, mm'],
];
const FIGURES: [keyof Cutter & ('rapid' | 'acceleration' | 'mark_time' | 'cost'), string][] = [
  ['rapid', 'rapids, mm/min'],
  ['acceleration', 'acceleration, mm/s²'],
  ['mark_time', 'a centre mark, s'],
  ['cost', 'cost of an hour'],
];

export default function Shop() {
  useTitle('Shop');
  const [saved, setSaved] = useState<Table | null>(null);
  // Every state since the last save; the newest is last.
  const [states, setStates] = useState<Cutter[][]>([]);
  const [at, setAt] = useState(0);
  const [said, setSaid] = useState<{ text: string; bad: boolean } | null>(null);
  const load = async () => {
    try {
      const table = await must(client.GET('/api/cutters', {}));
      setSaved(table);
      setStates([table.cutters]);
    } catch (fault) {
      setSaid({ text: words(fault), bad: true });
    }
  };
  useEffect(() => void load(), []);
  const cutters = states[states.length - 1] ?? [];
  const cutter = cutters[Math.min(at, cutters.length - 1)];
  const place = Math.min(at, cutters.length - 1);
  const changed = states.length > 1;
  const next = (list: Cutter[]) => {
    setStates([...states, list]);
    setSaid(null);
  };
  const change = (part: Partial<Cutter>) =>
    cutter && next(cutters.map((one, index) => (index === place ? { ...one, ...part } : one)));
  const rows = (list: Row[]) => change({ rows: list });
  const save = async () => {
    if (!saved) return;
    try {
      const table = await must(client.PUT('/api/cutters', { body: { version: saved.version, cutters } }));
      setSaved(table);
      setStates([table.cutters]);
      setSaid({ text: "The shop's cutters are saved. Programs are planned with them from now on.", bad: false });
    } catch (fault) {
      const problem = fault instanceof Refusal ? fault.problem : undefined;
      setSaid({
        text:
          problem?.status === 409
            ? `${problem.detail}. Reload the page to see the other's, then make your change again.`
            : `${problem?.field ? `${problem.field}: ` : ''}${words(fault)}. Nothing was saved.`,
        bad: true,
      });
    }
  };
  return (
    <>
      <Top>
        <Link to="/">Rack</Link> &nbsp; <span>Shop</span>
      </Top>
      <main className="page">
        <h1>The shop's cutters</h1>
        {saved?.examples && (
          <p className="note">
            These are made-up examples that describe no real machine. Put your own figures in before you cut from them.
          </p>
        )}
        <div className="tools">
          <label>
            cutter{' '}
            <Select className="field" value={place} onChange={(event) => setAt(Number(event.target.value))}>
              {cutters.map((one, index) => (
                <option key={index} value={index}>
                  {one.title}
                </option>
              ))}
            </Select>
          </label>
          <Act
            kind="line"
            disabled={!cutter}
            onClick={() =>
              cutter &&
              (next([
                ...cutters,
                { ...cutter, name: fresh(cutters, cutter.name), title: `${cutter.title}, copy`, source: 'the shop' },
              ]),
              setAt(cutters.length))
            }
          >
            Copy it
          </Act>
          <Act
            kind="line"
            disabled={cutters.length < 2}
            onClick={() => next(cutters.filter((_, index) => index !== place))}
          >
            Take it out
          </Act>
          <Act kind="line" disabled={!changed} onClick={() => setStates(states.slice(0, -1))}>
            Undo
          </Act>
          <Act kind="main" disabled={!changed} onClick={() => void save()}>
            Save the cutters
          </Act>
          <ActFile kind="line" href="/api/cutters.toml">
            As a file, TOML
          </ActFile>
          <span className="soft">{changed ? 'not saved' : 'as saved'}</span>
        </div>
        {said && (
          <div className={`note${said.bad ? ' bad-note' : ''}`} role={said.bad ? 'alert' : 'status'}>
            {said.text}
          </div>
        )}
        {cutter && (
          <>
            <div className="cutterform">
              <Text label="name, as pieces cite it" value={cutter.name} set={(name) => change({ name })} />
              <Text label="title" value={cutter.title} set={(title) => change({ title })} wide />
              <label>
                <small>cuts by</small>
                <Select
                  className="field"
                  value={cutter.process}
                  onChange={(event) => change({ process: event.target.value as Cutter['process'] })}
                >
                  {PROCESSES.map(([key, title]) => (
                    <option key={key} value={key}>
                      {title}
                    </option>
                  ))}
                </Select>
              </label>
              {FIGURES.map(([key, label]) => (
                <Figure key={key} label={label} value={cutter[key]} set={(value) => change({ [key]: value })} />
              ))}
              <Text label="currency" value={cutter.currency} set={(currency) => change({ currency })} />
              {(['on', 'off', 'mark'] as const).map((key) => (
                <span key={key} className="macro">
                  <Text
                    label={{ on: 'start of a cut', off: 'end of a cut', mark: 'centre mark' }[key]}
                    value={cutter[key].name}
                    set={(name) => change({ [key]: { ...cutter[key], name } })}
                  />
                  <Text
                    label="code"
                    value={cutter[key].code}
                    set={(code) => change({ [key]: { ...cutter[key], code } })}
                  />
                </span>
              ))}
              <Text
                label="where the figures come from"
                value={cutter.source}
                set={(source) => change({ source })}
                wide
              />
            </div>
            <h2>Rows: each serves thicknesses up to its own</h2>
            <List className="list cutterrows">
              <thead>
                <tr>
                  <th>family</th>
                  {COLUMNS.map(([key, label]) => (
                    <th key={key} className="r">
                      {label}
                    </th>
                  ))}
                  <th>gas or abrasive</th>
                  <th>
                    <span className="visually">row</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {cutter.rows.map((row, index) => {
                  const set = (part: Partial<Row>) =>
                    rows(cutter.rows.map((one, other) => (other === index ? { ...one, ...part } : one)));
                  return (
                    <tr key={index}>
                      <td>
                        <Select
                          className="field"
                          aria-label={`Family of row ${index + 1}`}
                          value={row.family}
                          onChange={(event) => set({ family: event.target.value as Row['family'] })}
                        >
                          {FAMILIES.map(([key, title]) => (
                            <option key={key} value={key}>
                              {title}
                            </option>
                          ))}
                        </Select>
                      </td>
                      {COLUMNS.map(([key, label]) => (
                        <td key={key} className="r">
                          <Figure
                            bare
                            label={`${label} of row ${index + 1}`}
                            value={row[key]}
                            set={(value) => set({ [key]: value })}
                          />
                        </td>
                      ))}
                      <td>
                        <Text
                          bare
                          label={`Gas of row ${index + 1}`}
                          value={row.gas ?? ''}
                          set={(gas) => set({ gas })}
                        />
                      </td>
                      <td>
                        <Act
                          onClick={() =>
                            rows([
                              ...cutter.rows.slice(0, index + 1),
                              { ...row, thickness: Number((row.thickness + 1).toFixed(2)) },
                              ...cutter.rows.slice(index + 1),
                            ])
                          }
                        >
                          copy
                        </Act>
                        <Act
                          disabled={cutter.rows.length < 2}
                          onClick={() => rows(cutter.rows.filter((_, other) => other !== index))}
                        >
                          take out
                        </Act>
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </List>
          </>
        )}
        <RuleSettings />
        <BendTables />
        <Frames />
        <FileNames />
      </main>
    </>
  );
}

function fresh(cutters: Cutter[], name: string): string {
  let count = 2;
  while (cutters.some((one) => one.name === `${name}-${count}`)) count += 1;
  return `${name}-${count}`;
}

function Text({
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

function Figure({
  label,
  value,
  set,
  bare,
}: {
  label: string;
  value: number;
  set: (value: number) => void;
  bare?: boolean;
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
        aria-invalid={bad}
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
