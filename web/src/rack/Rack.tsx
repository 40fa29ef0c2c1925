// The rack: the jobs, a line each, a page at a time.
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { client, must, sendFile, words, type LengthUnit, type Schemas } from '../api/client';
import type { operations } from '../api/schema';
import { AGAIN } from '../api/again';
import { JobForm, type JobFields } from '../parts/JobForm';
import { Said, type Saying } from '../parts/Said';
import { Top } from '../parts/Top';
import { Act, ActLink } from '../kit/Act';
import { FileInput } from '../kit/FileInput';
import { told } from '../kit/amounts';
import type { Column } from '../kit/columns';
import { Glyph, GlyphLink } from '../kit/Glyph';
import { useTitle } from '../kit/useTitle';
import { Grid } from '../kit/Grid';
import { Input } from '../kit/Input';
import { useSettings } from '../settings';
import { RackBin } from '../job/Bin';

/** Whether this is under a finger, where buttons are larger. */
const COARSE = typeof matchMedia === 'function' && matchMedia('(pointer: coarse)').matches;

type Asked = NonNullable<operations['list_jobs']['parameters']['query']>;
type Key = NonNullable<Asked['sort']>;
type Line = Schemas['JobLine'];
/** What the server sorts by. */
const SORTED: Key[] = ['number', 'title', 'due', 'pieces', 'mass'];
/** Jobs of a page, and those that are fetched at once for copying all of them. */
const PAGE = 50;
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

/** What a job's line shows, and what can be done with it. */
const columnsOf = (copy: (job: Line) => void, remove: (job: Line) => void, unit: LengthUnit): Column<Line>[] => [
  {
    key: 'number',
    head: 'number',
    value: (one) => one.number,
    show: (one) => (
      <ActLink className="num" to={`/jobs/${one.id}`}>
        {one.number}
      </ActLink>
    ),
    width: COARSE ? 146 : 110,
  },
  {
    key: 'title',
    head: 'what it is',
    value: (one) => one.title,
    show: (one) => (
      <>
        <ActLink to={`/jobs/${one.id}`}>{one.title}</ActLink>
        {one.found.map((piece) => (
          <div key={piece.id} className="soft">
            <ActLink to={`/pieces/${piece.id}`}>
              <span className="num">{piece.mark}</span> {piece.title}
            </ActLink>
          </div>
        ))}
      </>
    ),
    grow: 2,
    width: 200,
  },
  { key: 'due', head: 'due', value: (one) => one.due ?? null, width: 110 },
  { key: 'pieces', head: 'pieces', value: (one) => one.pieces, width: 80 },
  { key: 'items', head: 'items', value: (one) => one.items, width: 80 },
  {
    key: 'mass',
    head: 'mass',
    unit: told('mass', unit).unit,
    decimals: 2,
    value: (one) => told('mass', unit).figure(one.mass),
    width: 110,
  },
  {
    key: 'proved',
    head: 'proved',
    value: (one) => `${one.holds} of ${one.callouts}`,
    show: (one) => (
      <>
        <span className={one.holds === one.callouts && one.callouts > 0 ? 'ok' : 'todo'}>
          {one.holds} of {one.callouts}
        </span>
        {one.broken > 0 && <span className="bad"> · {one.broken} broken</span>}
        {one.waiting > 0 && <span className="todo"> · {one.waiting} being worked out</span>}
      </>
    ),
    grow: 1,
    width: 150,
  },
  { key: 'stage', head: 'stage', value: (one) => one.stage, width: 100 },
  {
    key: 'acts',
    head: 'acts',
    value: () => '',
    drawn: true,
    show: (one) => (
      <>
        <Glyph icon="copy" words={`Copy ${one.number}`} press={() => copy(one)} />
        <GlyphLink icon="file" words={`Export ${one.number}`} href={`/api/jobs/${one.id}/job.json`} />
        <Glyph icon="out" words={`Delete ${one.number}`} press={() => remove(one)} />
      </>
    ),
    width: 110,
  },
];

export function Rack() {
  useTitle('Rack');
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [search, setSearch] = useState('');
  const [sort, setSort] = useState<[Key, boolean]>(['number', true]);
  const [form, setForm] = useState<JobFields | null>(null);
  const [said, setSaid] = useState<Saying | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const [page, setPage] = useState(0);
  const [most, setMost] = useState(PAGE);
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
    sessionStorage.setItem('steelk-tour', 'yes');
    void must(client.GET('/api/jobs/{id}', { params: { path: { id: first.id } } })).then(
      ({ pieces }) => pieces[0] && navigate(`/pieces/${pieces[0].id}`),
      () => undefined,
    );
  }, [jobs.data, first, navigate]);
  const fresh = async () => {
    await queries.invalidateQueries({ queryKey: ['jobs'] });
    await queries.invalidateQueries({ queryKey: ['bin'] });
  };
  const unit = useSettings((s) => s.show) ?? 'mm';
  const add = useMutation({
    mutationFn: (body: Schemas['JobForm']) => must(client.POST('/api/jobs', { body })),
    onSuccess: (made) => navigate(`/jobs/${made.job.id}`),
    onError: (fault) => setSaid({ text: words(fault) }),
  });
  const copy = async ({ id }: Line) => {
    try {
      const made = await must(client.POST('/api/jobs/{id}/copy', { params: { path: { id } } }));
      setSaid({ text: `Copied as ${made.job.number}.` });
      await fresh();
    } catch (fault) {
      setSaid({ text: words(fault) });
    }
  };
  const remove = async ({ id, number }: Line) => {
    try {
      await must(client.DELETE('/api/jobs/{id}', { params: { path: { id } } }));
      setSaid({
        text: `${number} is deleted; it waits in the bin.`,
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
  const everyJob = async () => {
    const all: Line[] = [];
    for (let found = 1; all.length < found;) {
      const part = await fetchPage({ ...asked, from: all.length, most: MOST });
      if (part.jobs.length === 0) break;
      found = part.found;
      all.push(...part.jobs);
    }
    return all;
  };
  const columns = columnsOf(
    (job) => void copy(job),
    (job) => void remove(job),
    unit,
  );
  return (
    <>
      <Top>
        <span>Rack</span>
        &nbsp; <Link to="/shop">Shop</Link>
        &nbsp; <Link to="/words">Words</Link>
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
          <Grid
            label="Jobs"
            rows={list}
            columns={columns}
            idOf={(one) => one.id}
            unsearched
            say={(text) => setSaid({ text })}
            paged={{
              found: jobs.data?.found ?? 0,
              page,
              most,
              turn: (next, each) => {
                setPage(each === most ? next : 0);
                setMost(each);
              },
              sort,
              sortBy: (key, rising) => {
                setSort([key as Key, rising]);
                setPage(0);
              },
              sortable: SORTED,
              all: everyJob,
            }}
          />
        )}
        {jobs.data && jobs.data.all > 0 && jobs.data.found === 0 && (
          <p>No job and none of its pieces has all of "{searched}" in it.</p>
        )}
        <RackBin done={fresh} />
      </main>
    </>
  );
}
