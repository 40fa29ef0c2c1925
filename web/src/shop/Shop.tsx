// The shop's cutters: what each cuts, how wide, how fast. Nothing is taken over until it is saved.
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { client, must, Refusal, words, type Schemas } from '../api/client';
import { Terms } from '../parts/Terms';
import { Top } from '../parts/Top';
import { BendTables } from './BendTables';
import { FileNames } from './FileNames';
import { Frames } from './Frames';
import { RuleSettings } from './RuleSettings';
import { Act, ActFile } from '../kit/Act';
import { useTitle } from '../kit/useTitle';
import { List } from '../kit/List';
import { Select } from '../kit/Select';
import { Before, takeUp } from './Before';
import { Figure, Text } from './inputs';
import { MadeUp, ours } from './MadeUp';
import { ReadFile } from './ReadFile';
import { Screws } from './Screws';
import { LeaveGuard, useUnsaved } from './unsaved';

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
  // What the server refused, and where.
  const [fault, setFault] = useState<{ path: string; text: string } | null>(null);
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
  useUnsaved('the cutters', changed);
  const next = (list: Cutter[]) => {
    setStates([...states, list]);
    setSaid(null);
    setFault(null);
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
      setFault(null);
      setSaid({ text: "The shop's cutters are saved. Programs are planned with them from now on.", bad: false });
    } catch (fault) {
      const problem = fault instanceof Refusal ? fault.problem : undefined;
      if (problem?.field) {
        setFault({ path: problem.field, text: words(fault) });
        const [, which] = /^cutter\[(\d+)\]/.exec(problem.field) ?? [];
        if (which !== undefined) setAt(Number(which));
      }
      setSaid({
        text:
          problem?.status === 409
            ? `${problem.detail}. Reload the page to see the other's, then make your change again.`
            : `${problem?.field ? `${placeOf(problem.field, cutters)}: ` : ''}${words(fault)}. Nothing was saved.`,
        bad: true,
      });
    }
  };
  const take = (text: string, from: string) =>
    takeUp(must(client.POST('/api/cutters/read', { body: { text } })), (found) => {
      next(found);
      setSaid({ text: `The cutters are ${from}: ${found.length} of them. Save to keep them.`, bad: false });
    });
  const madeUp = cutters.reduce((sum, one) => sum + one.rows.filter((row) => row.made_up).length, 0);
  const wrongAt = (field: string) => (fault?.path.endsWith(`[${place}]${field}`) ? fault.text : undefined);
  return (
    <>
      <LeaveGuard />
      <Top>
        <Link to="/">Rack</Link> &nbsp; <span>Shop</span>
      </Top>
      <main className="page">
        <h1>The shop's cutters</h1>
        {madeUp > 0 && (
          <p className="note">
            {madeUp}{' '}
            {madeUp === 1 ? 'row is a made-up example that describes' : 'rows are made-up examples that describe'} no
            real machine, and {madeUp === 1 ? 'is marked' : 'are marked'} so. Put your own figures in before you cut
            from one, then press its mark.
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
          <ReadFile
            label="Cutters as TOML"
            accept=".toml,application/toml,text/plain"
            read={(text, name) =>
              void take(text, `as ${name} has them`).then((bad) => bad && setSaid({ text: bad, bad: true }))
            }
            refused={(why) => setSaid({ text: why, bad: true })}
          >
            Read them from TOML
          </ReadFile>
          <Before table="cutters" called="the cutters" take={take} />
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
                <Figure
                  key={key}
                  label={label}
                  value={cutter[key]}
                  set={(value) => change({ [key]: value })}
                  wrong={wrongAt(`.${key}`)}
                />
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
            <div className="rows" role="group" aria-label="Rows" tabIndex={0}>
              <List className="list cutterrows">
                <thead>
                  <tr>
                    <th>family</th>
                    {COLUMNS.map(([key, label]) => (
                      <th key={key} className="r">
                        <Terms text={label} />
                      </th>
                    ))}
                    <th>gas or abrasive</th>
                    <th>quality</th>
                    <th>where from</th>
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
                              wrong={wrongAt(`.rows[${index}].${key}`)}
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
                          <Text
                            bare
                            label={`Quality of row ${index + 1}`}
                            value={row.quality ?? ''}
                            set={(quality) => set({ quality: quality.trim() || undefined })}
                          />
                        </td>
                        <td className="from">
                          <MadeUp
                            made={row.made_up}
                            of={`Row ${index + 1}`}
                            ours={() => set({ made_up: undefined, source: ours() })}
                          />
                          {!row.made_up && (
                            <Text
                              bare
                              label={`Where row ${index + 1} comes from`}
                              value={row.source ?? ''}
                              set={(source) => set({ source: source.trim() || undefined })}
                            />
                          )}
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
            </div>
          </>
        )}
        <RuleSettings />
        <BendTables />
        <Frames />
        <Screws />
        <FileNames />
      </main>
    </>
  );
}

/** A place in the table in the words of who typed it: `Laser, row 3, kerf`. */
function placeOf(path: string, cutters: Cutter[]): string {
  const [, which, rest] = /^cutter\[(\d+)\]\.?(.*)$/.exec(path) ?? [];
  const [, row, field] = /^rows\[(\d+)\]\.?(.*)$/.exec(rest ?? '') ?? [];
  const key = (row === undefined ? rest : field) ?? path;
  const label = [...COLUMNS, ...FIGURES].find(([own]) => own === key)?.[1].replace(/,.*/, '') ?? key;
  return [
    which === undefined ? '' : (cutters[Number(which)]?.title ?? ''),
    row === undefined ? '' : `row ${Number(row) + 1}`,
    label.replaceAll('_', ' '),
  ]
    .filter(Boolean)
    .join(', ');
}

function fresh(cutters: Cutter[], name: string): string {
  let count = 2;
  while (cutters.some((one) => one.name === `${name}-${count}`)) count += 1;
  return `${name}-${count}`;
}
