// The rack: the jobs, a line each.
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { client, must, sendFile, words, type Schemas } from '../api/client';
import { JobForm, type JobFields } from '../parts/JobForm';
import { Said, type Saying } from '../parts/Said';
import { Top } from '../parts/Top';

type Key = 'number' | 'title' | 'due' | 'pieces' | 'mass' | 'stage';
const COLUMNS: [Key, string, boolean][] = [
  ['number', 'number', false],
  ['title', 'what it is', false],
  ['due', 'due', false],
  ['pieces', 'pieces', true],
  ['mass', 'mass', true],
];

export function Rack() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [search, setSearch] = useState('');
  const [sort, setSort] = useState<[Key, boolean]>(['number', true]);
  const [form, setForm] = useState<JobFields | null>(null);
  const [said, setSaid] = useState<Saying | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const jobs = useQuery({ queryKey: ['jobs'], queryFn: () => must(client.GET('/api/jobs')) });
  // First run: only the demo's two jobs on the rack and nobody has been here before. Open the first one's first
  // piece, once.
  const oldest = jobs.data && jobs.data.length <= 2 ? [...jobs.data].sort((one, two) => one.id - two.id)[0] : undefined;
  const first = oldest && localStorage.getItem('steelk-seen') === null ? oldest : undefined;
  useEffect(() => {
    if (jobs.data) localStorage.setItem('steelk-seen', 'yes');
    if (!first) return;
    void must(client.GET('/api/jobs/{id}', { params: { path: { id: first.id } } })).then(
      ({ pieces }) => pieces[0] && navigate(`/pieces/${pieces[0].id}`),
      () => undefined,
    );
  }, [jobs.data, first, navigate]);
  const fresh = () => queries.invalidateQueries({ queryKey: ['jobs'] });
  const add = useMutation({
    mutationFn: (body: Schemas['JobForm']) => must(client.POST('/api/jobs', { body })),
    onSuccess: (made) => navigate(`/jobs/${made.job.id}`),
    onError: (fault) => setSaid({ text: words(fault) }),
  });
  const copy = async (id: number) => {
    try {
      const made = await must(client.POST('/api/jobs/{id}/copy', { params: { path: { id } } }));
      setSaid({ text: `Copied as ${made.job.number}.` });
      await fresh();
    } catch (fault) {
      setSaid({ text: words(fault) });
    }
  };
  const remove = async (id: number, number: string) => {
    try {
      await must(client.DELETE('/api/jobs/{id}', { params: { path: { id } } }));
      setSaid({
        text: `${number} is off the rack.`,
        undo: () =>
          void must(client.POST('/api/jobs/{id}/put-back', { params: { path: { id } } })).then(() => {
            setSaid(null);
            return fresh();
          }),
      });
      await fresh();
    } catch (fault) {
      setSaid({ text: words(fault) });
    }
  };
  const bringIn = async (picked: File | undefined) => {
    if (!picked) return;
    try {
      const made = (await sendFile('POST', '/api/import', picked)) as Schemas['JobDetail'];
      setSaid({ text: `${made.job.number} is on the rack.` });
      await fresh();
    } catch (fault) {
      setSaid({ text: words(fault) });
    }
    if (file.current) file.current.value = '';
  };
  const list = [...(jobs.data ?? [])]
    .filter((one) => `${one.number} ${one.title} ${one.stage}`.toLowerCase().includes(search.toLowerCase()))
    .sort((a, b) => {
      const [key, up] = sort;
      const [x, y] = [a[key] ?? '', b[key] ?? ''];
      return (
        (typeof x === 'number' && typeof y === 'number'
          ? x - y
          : String(x).localeCompare(String(y), undefined, { numeric: true })) * (up ? 1 : -1)
      );
    });
  const copyText = () =>
    void navigator.clipboard
      .writeText(
        [
          'number\twhat\tdue\tpieces\tmass kg\tproved\tstage',
          ...list.map((one) =>
            [
              one.number,
              one.title,
              one.due ?? '',
              one.pieces,
              one.mass.toFixed(3),
              `${one.holds} of ${one.callouts}`,
              one.stage,
            ].join('\t'),
          ),
        ].join('\n'),
      )
      .then(() => setSaid({ text: 'The list is copied.' }));
  return (
    <>
      <Top>
        <span>Rack</span>
        &nbsp; <Link to="/shop">Shop</Link>
      </Top>
      <main className="page">
        <h1>Rack</h1>
        <div className="tools">
          <input
            className="field"
            type="search"
            placeholder="search"
            aria-label="Search jobs"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
            style={{ width: 240 }}
          />
          <button type="button" className="btn main" onClick={() => setForm({ number: '', title: '', due: '' })}>
            New job
          </button>
          <input
            ref={file}
            type="file"
            accept="application/json,.json"
            hidden
            aria-label="Job file"
            onChange={(event) => void bringIn(event.target.files?.[0])}
          />
          <button type="button" className="btn" onClick={() => file.current?.click()}>
            Bring in a job file
          </button>
          <button type="button" className="plain" onClick={copyText}>
            copy as text
          </button>
        </div>
        {form && (
          <JobForm
            name="New job"
            act="Make it"
            fields={form}
            change={setForm}
            done={() => add.mutate({ number: form.number, title: form.title, due: form.due || null })}
            leave={() => setForm(null)}
          />
        )}
        <Said said={said} />
        {jobs.isPending && <p role="status">Fetching the jobs…</p>}
        {jobs.isError && (
          <div className="note bad-note" role="alert">
            {words(jobs.error)}{' '}
            <button type="button" className="btn" onClick={() => void jobs.refetch()}>
              Try again
            </button>
          </div>
        )}
        {jobs.data?.length === 0 && (
          <div className="empty">
            <b>The rack is empty.</b>
            <p>A job holds the pieces of one order: each piece goes from its drawing to a proved blank.</p>
            <button
              type="button"
              className="btn main"
              onClick={() => setForm({ number: 'TS-108', title: 'First bracket', due: '' })}
            >
              Make a first job
            </button>
          </div>
        )}
        {(jobs.data?.length ?? 0) > 0 && (
          <table className="list" aria-label="Jobs">
            <thead>
              <tr>
                {COLUMNS.map(([key, label, right]) => (
                  <th
                    key={key}
                    className={right ? 'r' : ''}
                    aria-sort={sort[0] === key ? (sort[1] ? 'ascending' : 'descending') : 'none'}
                  >
                    <button
                      type="button"
                      className="plain"
                      onClick={() => setSort([key, sort[0] === key ? !sort[1] : true])}
                    >
                      {label}
                      {sort[0] === key ? (sort[1] ? ' ↑' : ' ↓') : ''}
                    </button>
                  </th>
                ))}
                <th>proved</th>
                <th>stage</th>
                <th>
                  <span className="visually">acts</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {list.map((one) => (
                <tr key={one.id}>
                  <td className="num">
                    <Link className="plain" to={`/jobs/${one.id}`}>
                      {one.number}
                    </Link>
                  </td>
                  <td>
                    <Link className="plain" to={`/jobs/${one.id}`}>
                      {one.title}
                    </Link>
                  </td>
                  <td className="num">{one.due ?? '—'}</td>
                  <td className="r num">
                    {one.pieces} <span className="soft">({one.items} off)</span>
                  </td>
                  <td className="r num">{one.mass.toFixed(2)} kg</td>
                  <td>
                    <span className={one.holds === one.callouts && one.callouts > 0 ? 'ok' : 'todo'}>
                      {one.holds} of {one.callouts}
                    </span>
                    {one.broken > 0 && <span className="bad"> · {one.broken} broken</span>}
                  </td>
                  <td>{one.stage}</td>
                  <td className="r">
                    <button
                      type="button"
                      className="plain"
                      onClick={() => void copy(one.id)}
                      aria-label={`Copy ${one.number}`}
                    >
                      copy
                    </button>
                    <a
                      className="plain"
                      href={`/api/jobs/${one.id}/job.json`}
                      download
                      aria-label={`Export ${one.number}`}
                    >
                      export
                    </a>
                    <button
                      type="button"
                      className="plain"
                      onClick={() => void remove(one.id, one.number)}
                      aria-label={`Take ${one.number} off`}
                    >
                      take off
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {jobs.data && jobs.data.length > 0 && list.length === 0 && <p>No job has "{search}" in it.</p>}
      </main>
    </>
  );
}
