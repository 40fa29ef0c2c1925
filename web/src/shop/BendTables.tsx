// The shop's measured bend tables: read from CSV, looked at, given out as CSV. Nothing is taken over until it is saved.
import { useEffect, useRef, useState } from 'react';
import { client, must, Refusal, words, type Schemas } from '../api/client';
import { Act, ActFile } from '../kit/Act';
import { FileInput } from '../kit/FileInput';
import { List } from '../kit/List';
import { Select } from '../kit/Select';

type Table = Schemas['BendTable'];
type Kept = Schemas['BendTables'];

const GIVES = { deduction: 'deduction, mm', allowance: 'allowance, mm', k_factor: 'K' } as const;

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
      {kept?.examples && (
        <p className="note">
          This table is made up to show the form. Measure your own sheet in your own dies before you bend from a table.
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
        <span className="soft">{changed ? 'not saved' : 'as saved'}</span>
      </div>
      {said && (
        <div className={`note${said.bad ? ' bad-note' : ''}`} role={said.bad ? 'alert' : 'status'}>
          {said.text}
        </div>
      )}
      {table ? (
        <>
          <p className="soft">{table.source || 'No source is given.'}</p>
          <List>
            <caption className="visually">Rows of {table.name}</caption>
            <thead>
              <tr>
                <th>family</th>
                <th className="r">thickness, mm</th>
                <th className="r">die, mm</th>
                <th className="r">inside radius, mm</th>
                <th className="r">bend angle, deg</th>
                <th className="r">{GIVES[table.gives ?? 'deduction']}</th>
              </tr>
            </thead>
            <tbody>
              {table.rows.slice(0, 400).map((row, index) => (
                <tr key={index}>
                  <td>{row.family.replace('_', ' ')}</td>
                  <td className="r num">{row.thickness_mm}</td>
                  <td className="r num">{row.die_mm ?? '—'}</td>
                  <td className="r num">{row.radius_mm}</td>
                  <td className="r num">{row.angle_deg}</td>
                  <td className="r num">{row.value}</td>
                </tr>
              ))}
            </tbody>
          </List>
          {table.rows.length > 400 && <p className="soft">and {table.rows.length - 400} more; the CSV has them all.</p>}
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
