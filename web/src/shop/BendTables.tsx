// The shop's measured bend tables: read from CSV, looked at, given out as CSV. Nothing is taken over until it is saved.
import { useEffect, useRef, useState } from 'react';
import { client, must, Refusal, words, type Schemas } from '../api/client';
import { Act, ActFile } from '../kit/Act';
import { FileInput } from '../kit/FileInput';
import { List } from '../kit/List';
import { Select } from '../kit/Select';
import { Figure, Text } from './inputs';
import { Before } from './Before';
import { MadeUp } from './MadeUp';
import { useUnsaved } from './unsaved';

type Table = Schemas['BendTable'];
type Kept = Schemas['BendTables'];

const GIVES = { deduction: 'deduction, mm', allowance: 'allowance, mm', k_factor: 'K' } as const;

type Row = Table['rows'][number];
type Field = 'thickness_mm' | 'die_mm' | 'radius_mm' | 'angle_deg' | 'value';

const COLUMNS: [Field, string][] = [
  ['thickness_mm', 'thickness, mm'],
  ['die_mm', 'die, mm (0: any)'],
  ['radius_mm', 'inside radius, mm'],
  ['angle_deg', 'bend angle, deg'],
];
const FAMILIES: Row['family'][] = ['mild_steel', 'galvanised', 'stainless', 'aluminium'];

/** Rows that are shown one by one. */
const MOST = 200;

/** The largest file that is read, bytes. */
const LARGEST = 1024 * 1024;

export function BendTables() {
  const [kept, setKept] = useState<Kept | null>(null);
  const [tables, setTables] = useState<Table[]>([]);
  const [at, setAt] = useState(0);
  const [changed, setChanged] = useState(false);
  const [said, setSaid] = useState<{ text: string; bad: boolean } | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const take = (answer: Kept) => {
    setKept(answer);
    setTables(answer.tables);
    setChanged(false);
  };
  useEffect(() => {
    must(client.GET('/api/bend-tables', {})).then(take, (fault) => setSaid({ text: words(fault), bad: true }));
  }, []);
  const table = tables[Math.min(at, tables.length - 1)];
  const next = (list: Table[]) => {
    setTables(list);
    setChanged(true);
    setSaid(null);
  };
  const change = (part: Partial<Table>) => next(tables.map((one) => (one === table ? { ...one, ...part } : one)));
  const copy = () => {
    if (!table) return;
    let name = `${table.name}, copy`;
    for (let count = 2; tables.some((one) => one.name === name); count += 1) name = `${table.name}, copy ${count}`;
    next([...tables, { ...table, name }]);
    setAt(tables.length);
  };
  useUnsaved('the bend tables', changed);
  const read = async (picked: File | undefined) => {
    if (!picked) return;
    try {
      if (picked.size > LARGEST)
        throw new Error(
          `${picked.name} has ${(picked.size / 1024 / 1024).toFixed(1)} MB; a bend table may have 1 MB. ` +
            `Split it by material.`,
        );
      const found = await must(
        client.POST('/api/bend-tables/read', {
          body: { name: picked.name.replace(/\.[^.]*$/, ''), text: await picked.text() },
        }),
      );
      const list = [...tables.filter((one) => one.name !== found.name), found];
      next(list);
      setAt(list.length - 1);
      setSaid({ text: `${found.name} is read: ${found.rows.length} rows. Save to keep it.`, bad: false });
    } catch (fault) {
      setSaid({ text: `${words(fault)} Nothing was taken over.`, bad: true });
    } finally {
      if (file.current) file.current.value = '';
    }
  };
  const save = async () => {
    if (!kept) return;
    try {
      take(await must(client.PUT('/api/bend-tables', { body: { version: kept.version, tables } })));
      setSaid({
        text:
          "The shop's bend tables are saved. A piece that uses one has its own copy: choose it again " +
          'there to bring a change in.',
        bad: false,
      });
    } catch (fault) {
      const problem = fault instanceof Refusal ? fault.problem : undefined;
      setSaid({
        text:
          problem?.status === 409
            ? `${problem.detail}. Reload the page to see the other's, then make your change again.`
            : `${words(fault)} Nothing was saved.`,
        bad: true,
      });
    }
  };
  return (
    <section aria-label="Bend tables">
      <h1>The shop's bend tables</h1>
      {table?.rows.some((row) => row.made_up) && (
        <p className="note">
          {table.rows.filter((row) => row.made_up).length} rows of {table.name} are made up to show the form, and marked
          so. Measure your own sheet in your own dies before you bend from a row, then press its mark.
        </p>
      )}
      <p className="soft">
        A measured table wins over any formula. Between its rows it is read in proportion, and the bend says so; past
        them it is refused.
      </p>
      <FileInput
        ref={file}
        accept=".csv,text/csv,text/plain"
        label="Bend table as CSV"
        pick={(picked) => void read(picked)}
      />
      <div className="tools">
        <label>
          table{' '}
          <Select
            className="field"
            value={Math.min(at, Math.max(0, tables.length - 1))}
            onChange={(event) => setAt(Number(event.target.value))}
          >
            {tables.map((one, index) => (
              <option key={one.name} value={index}>
                {one.name}
              </option>
            ))}
          </Select>
        </label>
        <Act kind="line" onClick={() => file.current?.click()}>
          Read one from CSV
        </Act>
        <Act kind="line" disabled={!table} onClick={copy}>
          Copy it
        </Act>
        <Act kind="line" disabled={!table} onClick={() => next(tables.filter((one) => one !== table))}>
          Take it out
        </Act>
        <Act kind="line" disabled={!changed} onClick={() => kept && take(kept)}>
          As saved
        </Act>
        <Act kind="main" disabled={!changed} onClick={() => void save()}>
          Save the bend tables
        </Act>
        {table && !changed && (
          <ActFile kind="line" href={`/api/bend-tables/${Math.min(at, tables.length - 1)}/table.csv`}>
            As a file, CSV
          </ActFile>
        )}
        <Before
          table="bend-tables"
          called="the bend tables"
          take={(text, from) => {
            next(JSON.parse(text) as Table[]);
            setAt(0);
            setSaid({ text: `The bend tables are ${from}. Save to keep them.`, bad: false });
            return Promise.resolve(null);
          }}
        />
        <span className="soft">{changed ? 'not saved' : 'as saved'}</span>
      </div>
      {said && (
        <div className={`note${said.bad ? ' bad-note' : ''}`} role={said.bad ? 'alert' : 'status'}>
          {said.text}
        </div>
      )}
      {table ? (
        <>
          <div className="cutterform">
            <Text label="name, as pieces cite it" value={table.name} set={(name) => change({ name })} wide />
            <Text label="where it was measured" value={table.source ?? ''} set={(source) => change({ source })} wide />
            <label>
              <small>what its figure is</small>
              <Select
                className="field"
                value={table.gives ?? 'deduction'}
                onChange={(event) => change({ gives: event.target.value as NonNullable<Table['gives']> })}
              >
                {(Object.keys(GIVES) as (keyof typeof GIVES)[]).map((key) => (
                  <option key={key} value={key}>
                    {GIVES[key]}
                  </option>
                ))}
              </Select>
            </label>
          </div>
          <div className="rows" role="group" aria-label="Rows" tabIndex={0}>
            <List className="list cutterrows">
              <caption className="visually">Rows of {table.name}</caption>
              <thead>
                <tr>
                  <th>family</th>
                  {COLUMNS.map(([key, label]) => (
                    <th key={key} className="r">
                      {label}
                    </th>
                  ))}
                  <th className="r">{GIVES[table.gives ?? 'deduction']}</th>
                  <th>where from</th>
                  <th>
                    <span className="visually">row</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {table.rows.slice(0, MOST).map((row, index) => {
                  const set = (part: Partial<Row>) =>
                    change({ rows: table.rows.map((one, other) => (other === index ? { ...one, ...part } : one)) });
                  const figure = (key: Field, label: string) => (
                    <td key={key} className="r">
                      <Figure
                        bare
                        label={`${label} of row ${index + 1}`}
                        value={row[key] ?? 0}
                        set={(value) => set({ [key]: key === 'die_mm' && value === 0 ? null : value })}
                      />
                    </td>
                  );
                  return (
                    <tr key={index}>
                      <td>
                        <Select
                          className="field"
                          aria-label={`Family of row ${index + 1}`}
                          value={row.family}
                          onChange={(event) => set({ family: event.target.value as Row['family'] })}
                        >
                          {FAMILIES.map((family) => (
                            <option key={family} value={family}>
                              {family.replace('_', ' ')}
                            </option>
                          ))}
                        </Select>
                      </td>
                      {COLUMNS.map(([key, label]) => figure(key, label))}
                      {figure('value', 'figure')}
                      <td>
                        {row.made_up ? (
                          <MadeUp made of={`Row ${index + 1}`} ours={() => set({ made_up: undefined })} />
                        ) : (
                          <span className="soft">as the table says</span>
                        )}
                      </td>
                      <td>
                        <Act
                          aria-label={`Copy row ${index + 1}`}
                          onClick={() =>
                            change({
                              rows: [
                                ...table.rows.slice(0, index + 1),
                                { ...row, angle_deg: Math.min(180, row.angle_deg + 15) },
                                ...table.rows.slice(index + 1),
                              ],
                            })
                          }
                        >
                          copy
                        </Act>
                        <Act
                          aria-label={`Take row ${index + 1} out`}
                          disabled={table.rows.length < 2}
                          onClick={() => change({ rows: table.rows.filter((_, other) => other !== index) })}
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
          {table.rows.length > MOST && (
            <p className="soft">and {table.rows.length - MOST} more; the CSV has them all.</p>
          )}
        </>
      ) : (
        <p>
          No bend tables. Read one from CSV: its first line names the columns family, thickness_mm, die_mm, radius_mm,
          angle_deg and deduction_mm.
        </p>
      )}
    </section>
  );
}
