// One job: its pieces with small blanks, cut list, log.
import { Button } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { AGAIN } from '../api/again';
import { client, must, words, type Piece, type Schemas } from '../api/client';
import { LongFile } from './LongFile';
import { JobBin } from './Bin';
import { JobLog } from './JobLog';
import { JobForm, type JobFields } from '../parts/JobForm';
import { Said, type Saying } from '../parts/Said';
import { OutlineFile } from '../parts/OutlineFile';
import { told, unitOf } from '../kit/amounts';
import { useSettings } from '../settings';
import { Top } from '../parts/Top';
import { BEGIN, beginOf } from '../kinds/begin';
import type { Begin } from '../kinds/beginning';
import { BEGIN_PLATE } from '../kinds/plate/begin';
import { FrameLists } from '../kinds/frame/JobLists';
import { BlankList } from '../kinds/sheet/JobList';
import { BEGIN_SHEET } from '../kinds/sheet/begin';
import { Act, ActFile } from '../kit/Act';
import { countWords } from '../parts/count';
import { useTitle } from '../kit/useTitle';
import { FileInput } from '../kit/FileInput';

export function JobPage() {
  const id = Number(useParams().id);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [said, setSaid] = useState<Saying | null>(null);
  const tell = (text: string) => setSaid({ text });
  const [form, setForm] = useState<JobFields | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const outline = useRef<HTMLInputElement>(null);
  const [reading, setReading] = useState<File | null>(null);
  const job = useQuery({
    queryKey: ['job', id],
    queryFn: () => must(client.GET('/api/jobs/{id}', { params: { path: { id } } })),
    refetchInterval: ({ state }) => (state.data?.pieces.some((one) => one.waiting) ? AGAIN : false),
  });
  useTitle(job.data ? `${job.data.job.number} ${job.data.job.title}` : undefined);
  const log = useQuery({
    queryKey: ['log', id, job.dataUpdatedAt],
    queryFn: () => must(client.GET('/api/jobs/{id}/log', { params: { path: { id } } })),
  });
  const fresh = async () => {
    await queries.invalidateQueries({ queryKey: ['job', id] });
    await queries.invalidateQueries({ queryKey: ['bin', id] });
  };
  const guard = async (work: () => Promise<void>) => {
    try {
      await work();
    } catch (fault) {
      setSaid({ text: words(fault) });
    }
  };
  const freshMark = () => {
    const taken = new Set(job.data?.pieces.map((one) => one.mark));
    let count = (job.data?.pieces.length ?? 0) + 1;
    while (taken.has(`P-${String(count).padStart(2, '0')}`)) count += 1;
    return `P-${String(count).padStart(2, '0')}`;
  };
  /** A new piece begins with the stock that the last of its kind has; whoever makes it confirms that. */
  const begin = ({ first, byShop }: Begin) =>
    guard(async () => {
      const alike = job.data?.pieces.filter((one) => one.kind === first.kind && !one.unreadable) ?? [];
      const last = alike[alike.length - 1];
      const before = last
        ? (await must(client.GET('/api/pieces/{id}', { params: { path: { id: last.id } } }))).document
        : null;
      const stock = { ...(before?.stock ?? first.stock), confirmed: false };
      await add({ ...first, ...(await byShop?.()), unit: before?.unit ?? first.unit, stock, mark: freshMark() });
    });
  const add = (document: Piece) =>
    guard(async () => {
      const made = await must(
        client.POST('/api/jobs/{job}/pieces', { params: { path: { job: id } }, body: { document } }),
      );
      await fresh();
      void navigate(`/pieces/${made.id}`);
    });
  const bringIn = (picked: File | undefined) =>
    guard(async () => {
      if (!picked) return;
      let document: Piece;
      try {
        document = JSON.parse(await picked.text()) as Piece;
      } catch {
        throw new Error(`${picked.name} is not a piece document: it is no JSON.`);
      }
      if (file.current) file.current.value = '';
      await add(document);
    });
  const outlineIn = async (picked: File, shape: Schemas['OutlineAnswer']['shape']): Promise<string | null> => {
    const document: Piece = {
      ...BEGIN_PLATE.first,
      mark: freshMark(),
      title: picked.name.replace(/\.(dxf|svg)$/i, '').slice(0, 80),
      operations: [{ name: 'base', do: { lay_down: { shape } } }],
    };
    try {
      const made = await must(
        client.POST('/api/jobs/{job}/pieces', { params: { path: { job: id } }, body: { document } }),
      );
      void navigate(`/pieces/${made.id}`);
      return null;
    } catch (fault) {
      return words(fault);
    }
  };
  const copy = (one: Schemas['PieceLine']) =>
    guard(async () => {
      const view = await must(client.GET('/api/pieces/{id}', { params: { path: { id: one.id } } }));
      // Marks of variants follow the copy's own: no two parts share one.
      const variants = view.document.variants?.map((variant) => ({ ...variant, mark: undefined }));
      await must(
        client.POST('/api/jobs/{job}/pieces', {
          params: { path: { job: id } },
          body: { document: { ...view.document, mark: freshMark(), ...(variants ? { variants } : {}) } },
        }),
      );
      await fresh();
    });
  const remove = (one: Schemas['PieceLine']) =>
    guard(async () => {
      await must(client.DELETE('/api/pieces/{id}', { params: { path: { id: one.id } } }));
      setSaid({
        text: `${one.mark} is deleted; it waits in the bin below.`,
        undo: () =>
          void guard(async () => {
            await must(client.POST('/api/pieces/{id}/put-back', { params: { path: { id: one.id } } }));
            setSaid(null);
            await fresh();
          }),
      });
      await fresh();
    });
  const save = () =>
    guard(async () => {
      if (!form || !job.data) return;
      await must(
        client.PUT('/api/jobs/{id}', {
          params: { path: { id } },
          body: { number: form.number, title: form.title, due: form.due || null, version: job.data.job.version },
        }),
      );
      setForm(null);
      await fresh();
    });
  const line = job.data?.job;
  const show = useSettings((s) => s.show);
  const unit = unitOf(
    show,
    (job.data?.pieces ?? []).map((one) => one.unit),
  );
  return (
    <>
      <Top>
        <Link to="/">Rack</Link>
      </Top>
      <main className="page">
        {job.isError && (
          <div className="note bad-note" role="alert">
            {words(job.error)} <Link to="/">Go to the rack</Link>
          </div>
        )}
        {line && (
          <>
            <h1>
              <span className="num">{line.number}</span> {line.title}
            </h1>
            <p className="soft" style={{ margin: 0 }}>
              due {line.due ?? 'not said'} · {line.pieces} pieces, qty {line.items} in all ·{' '}
              {told('mass', unit).text(line.mass, 2)} ·{' '}
              <b className={line.holds === line.callouts ? 'ok' : 'todo'}>
                {line.holds} of {line.callouts} call-outs hold
              </b>
              {line.broken > 0 && <b className="bad"> · {line.broken} broken</b>} · {line.stage}
              {line.waiting > 0 && <b className="todo"> · {line.waiting} being worked out</b>}
            </p>
            <div className="tools">
              {BEGIN.map((one, index) => (
                <Act key={one.words} kind={index === 0 ? 'main' : 'line'} onClick={() => void begin(one)}>
                  {one.words}
                </Act>
              ))}
              <FileInput
                ref={file}
                accept="application/json,.json"
                label="Piece file"
                pick={(picked) => void bringIn(picked)}
              />
              <Act kind="line" onClick={() => file.current?.click()}>
                Bring in a piece file
              </Act>
              <FileInput
                ref={outline}
                accept=".dxf,.svg"
                label="Outline file"
                pick={(picked) => setReading(picked ?? null)}
              />
              <Act kind="line" onClick={() => outline.current?.click()}>
                Plate from a DXF or SVG
              </Act>
              <ActFile kind="line" href={`/api/jobs/${id}/files/cutlist.csv`}>
                Cut list, CSV
              </ActFile>
              <LongFile url={`/api/jobs/${id}/all.zip`} words="Everything, ZIP" say={tell} />
              <LongFile url={`/api/jobs/${id}/pack.pdf`} words="Printed pack, PDF" say={tell} />
              <ActFile kind="line" href={`/api/jobs/${id}/job.json`}>
                Job file
              </ActFile>
              <Act onClick={() => setForm({ number: line.number, title: line.title, due: line.due ?? '' })}>
                change number, title, due
              </Act>
            </div>
            {form && (
              <JobForm
                name="Job"
                act="Save"
                fields={form}
                change={setForm}
                done={() => void save()}
                leave={() => setForm(null)}
              />
            )}
            {reading && (
              <OutlineFile
                file={reading}
                acts={[{ words: 'Lay it down as a new plate', run: (shape) => outlineIn(reading, shape) }]}
                leave={() => setReading(null)}
              />
            )}
            <Said said={said} />
            <h2>Pieces</h2>
            {job.data?.pieces.length === 0 ? (
              <div className="empty">
                <b>No pieces yet.</b>
                <p>
                  A piece is one fabricated thing: take its numbers from the drawing, lay down a base, bend its flanges.
                </p>
                <Act kind="main" onClick={() => void begin(BEGIN_SHEET)}>
                  Start a bracket
                </Act>
              </div>
            ) : (
              <div className="pieces">
                {job.data?.pieces.map((one) =>
                  one.unreadable ? (
                    <Unreadable key={one.id} piece={one} remove={() => void remove(one)} />
                  ) : (
                    <article key={one.id} className="piece" aria-label={`${one.mark} ${one.title}`}>
                      <Link to={`/pieces/${one.id}`} aria-label={`Open ${one.mark} ${one.title}`}>
                        <div className="plate">
                          <svg viewBox={one.view_box} preserveAspectRatio="xMidYMid meet" aria-hidden="true">
                            <path d={one.path} fillRule="evenodd" className={beginOf(one.kind).wires ? 'wires' : ''} />
                          </svg>
                        </div>
                      </Link>
                      <div className="words">
                        <b className="num">{one.mark}</b> {one.title}
                        <dl>
                          <dt>make</dt>
                          <dd>
                            {countWords(one)}
                            {one.variants.map((line) => ` + ${line.quantity} ${line.mark}`)}
                          </dd>
                          {one.kind && <Facts piece={one} />}
                        </dl>
                        {one.waiting && (
                          <p className="todo" role="status">
                            {one.kind ? 'Being worked out again; this is as it was.' : 'Being worked out…'}
                          </p>
                        )}
                        <span className="ok">{one.holds} hold</span>
                        {one.off > 0 && <span className="bad"> · {one.off} off</span>}
                        {one.unplaced > 0 && <span className="todo"> · {one.unplaced} unplaced</span>}
                        {one.broken > 0 && <span className="bad"> · {one.broken} rules broken</span>}
                        {one.errors > 0 && <span className="bad"> · {one.errors} errors</span>}
                      </div>
                      <div className="row">
                        <Act onClick={() => void copy(one)} aria-label={`Copy ${one.mark}`}>
                          copy
                        </Act>
                        <Act onClick={() => void remove(one)} aria-label={`Delete ${one.mark}`}>
                          delete
                        </Act>
                      </div>
                    </article>
                  ),
                )}
              </div>
            )}
            {(job.data?.pieces.length ?? 0) > 0 && <BlankList pieces={job.data?.pieces ?? []} say={tell} />}
            <FrameLists pieces={job.data?.pieces ?? []} say={tell} />
            <JobBin job={id} done={fresh} />
            <h2>Log</h2>
            <JobLog lines={log.data ?? []} pieces={job.data?.pieces ?? []} say={tell} />
          </>
        )}
      </main>
    </>
  );
}

/** What it is made from, its size and its mass. */
function Facts({ piece }: { piece: Schemas['PieceLine'] }) {
  const { stock, sizeOf, size, mass } = beginOf(piece.kind).facts(piece);
  return (
    <>
      <dt>{piece.material}</dt>
      <dd>{stock}</dd>
      <dt>{sizeOf}</dt>
      <dd>{size}</dd>
      <dt>mass each</dt>
      <dd>{mass}</dd>
    </>
  );
}

/** A piece that was saved and cannot be read: what it is, why, its file as it is, and a way to take it out. */
function Unreadable({ piece, remove }: { piece: Schemas['PieceLine']; remove: () => void }) {
  return (
    <article className="piece" aria-label={`${piece.mark}, which could not be read`}>
      <div className="words">
        <b className="num">{piece.mark}</b> {piece.title}
        <p className="bad">This piece could not be read: {piece.unreadable}</p>
        <p>It is in no list. Here is its file as it was saved; put it right and bring it in again.</p>
      </div>
      <div className="row">
        <ActFile href={`/api/pieces/${piece.id}/piece.json`} aria-label={`File of ${piece.mark}`}>
          its file
        </ActFile>
        <Button onClick={remove} aria-label={`Delete ${piece.mark}`}>
          delete
        </Button>
      </div>
    </article>
  );
}
