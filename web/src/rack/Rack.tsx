// The rack: the jobs, a line each, a page at a time.
import { TablePagination } from '@mui/material';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { client, must, sendFile, words, type Schemas } from '../api/client';
import type { operations } from '../api/schema';
import { AGAIN } from '../api/again';
import { JobForm, type JobFields } from '../parts/JobForm';
import { Said, type Saying } from '../parts/Said';
import { Top } from '../parts/Top';
import { Act } from '../kit/Act';
import { FileInput } from '../kit/FileInput';
import { List } from '../kit/List';
import { Input } from '../kit/Input';

type Asked = NonNullable<operations['list_jobs']['parameters']['query']>;
type Key = NonNullable<Asked['sort']>;
type Line = Schemas['JobLine'];
/** What it is sorted by, its words, whether it is a number. */
const COLUMNS: [Key, string, boolean][] = [
  ['number', 'number', false],
  ['title', 'what it is', false],
  ['due', 'due', false],
  ['pieces', 'pieces', true],
  ['mass', 'mass', true],
];
/** Jobs of a page, and those that are fetched at once for copying all of them. */
const PAGES = [50, 100, 250];
const MOST = 500;
/** How long after the last letter is searched, ms. */
const PAUSE = 150;

const fetchPage = (query: Asked) => must(client.GET('/api/jobs', { params: { query } }));

/** The text as it was when nothing had been typed for a moment. */
function useSettled(text: string): string {
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), PAUSE);
    return () => clearTimeout(timer);
  }, [text]);
  return settled;
}

/** The list as a spreadsheet takes it. */
function asText(list: Line[]): string {
  const rows = list.map((one) => [
    one.number,
    one.title,
    one.due ?? '',
    one.pieces,
    one.mass.toFixed(3),
    `${one.holds} of ${one.callouts}`,
    one.stage,
  ]);
  return [['number', 'what', 'due', 'pieces', 'mass kg', 'proved', 'stage'], ...rows]
    .map((row) => row.join('\t'))
    .join('\n');
}

export function Rack() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [search, setSearch] = useState('');
  const [sort, setSort] = useState<[Key, boolean]>(['number', true]);
  const [form, setForm] = useState<JobFields | null>(null);
  const [said, setSaid] = useState<Saying | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const [page, setPage] = useState(0);
  const [most, setMost] = useState(PAGES[0]!);
  const searched = useSettled(search);
  const asked: Asked = { search: searched, sort: sort[0], down: !sort[1] };
  const jobs = useQuery({
    queryKey: ['jobs', asked, page, most],
    queryFn: () => fetchPage({ ...asked, from: page * most, most }),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data?.jobs.some((one) => one.waiting > 0) ? AGAIN : false),
  });
  const list = jobs.data?.jobs ?? [];
  // First run: only the demo's two jobs on the rack and nobody has been here before. Open the first one's first
  // piece, once.
  const oldest = jobs.data && jobs.data.all <= 2 ? [...list].sort((one, two) => one.id - two.id)[0] : undefined;
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
  const copyText = async () => {
    try {
      const all: Line[] = [];
      for (let found = 1; all.length < found;) {
        const part = await fetchPage({ ...asked, from: all.length, most: MOST });
        if (part.jobs.length === 0) break;
        found = part.found;
        all.push(...part.jobs);
      }
      await navigator.clipboard.writeText(asText(all));
      setSaid({ text: `The list of ${all.length} is copied.` });
    } catch (fault) {
      setSaid({ text: words(fault) });
    }
  };
  const sortBy = (key: Key) => {
    setSort([key, sort[0] === key ? !sort[1] : true]);
    setPage(0);
  };
  return (
    <>
      <Top>
        <span>Rack</span>
        &nbsp; <Link to="/shop">Shop</Link>
      </Top>
      <main className="page">
        <h1>Rack</h1>
        <div className="tools">
          <Input
            className="field"
            type="search"
            placeholder="search jobs and their pieces"
            aria-label="Search jobs"
            maxLength={200}
            value={search}
            onChange={(event) => {
              setSearch(event.target.value);
              setPage(0);
            }}
            style={{ width: 240 }}
          />
          <Act kind="main" onClick={() => setForm({ number: '', title: '', due: '' })}>
            New job
          </Act>
          <FileInput
            ref={file}
            accept="application/json,.json"
            label="Job file"
            pick={(picked) => void bringIn(picked)}
          />
          <Act kind="line" onClick={() => file.current?.click()}>
            Bring in a job file
          </Act>
          <Act onClick={() => void copyText()}>copy as text</Act>
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
            <Act kind="line" onClick={() => void jobs.refetch()}>
              Try again
            </Act>
          </div>
        )}
        {jobs.data?.all === 0 && (
          <div className="empty">
            <b>The rack is empty.</b>
            <p>A job holds the pieces of one order: each piece goes from its drawing to a proved blank.</p>
            <Act kind="main" onClick={() => setForm({ number: 'TS-108', title: 'First bracket', due: '' })}>
              Make a first job
            </Act>
          </div>
        )}
        {list.length > 0 && (
          <List aria-label="Jobs">
            <thead>
              <tr>
                {COLUMNS.map(([key, label, right]) => (
                  <th
                    key={key}
                    className={right ? 'r' : ''}
                    aria-sort={sort[0] === key ? (sort[1] ? 'ascending' : 'descending') : 'none'}
                  >
                    <Act onClick={() => sortBy(key)}>
                      {label}
                      {sort[0] === key ? (sort[1] ? ' ↑' : ' ↓') : ''}
                    </Act>
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
                    {one.found.map((piece) => (
                      <div key={piece.id} className="soft">
                        <Link className="plain" to={`/pieces/${piece.id}`}>
                          <span className="num">{piece.mark}</span> {piece.title}
                        </Link>
                      </div>
                    ))}
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
                    {one.waiting > 0 && <span className="todo"> · {one.waiting} being worked out</span>}
                  </td>
                  <td>{one.stage}</td>
                  <td className="r">
                    <Act onClick={() => void copy(one.id)} aria-label={`Copy ${one.number}`}>
                      copy
                    </Act>
                    <a
                      className="plain"
                      href={`/api/jobs/${one.id}/job.json`}
                      download
                      aria-label={`Export ${one.number}`}
                    >
                      export
                    </a>
                    <Act onClick={() => void remove(one.id, one.number)} aria-label={`Take ${one.number} off`}>
                      take off
                    </Act>
                  </td>
                </tr>
              ))}
            </tbody>
          </List>
        )}
        {jobs.data && jobs.data.found > PAGES[0]! && (
          <TablePagination
            component="div"
            count={jobs.data.found}
            page={page}
            rowsPerPage={most}
            rowsPerPageOptions={PAGES}
            labelRowsPerPage="jobs on a page"
            onPageChange={(_, next) => setPage(next)}
            onRowsPerPageChange={(event) => {
              setMost(Number(event.target.value));
              setPage(0);
            }}
          />
        )}
        {jobs.data && jobs.data.all > 0 && jobs.data.found === 0 && (
          <p>No job and none of its pieces has all of "{searched}" in it.</p>
        )}
      </main>
    </>
  );
}
