// What was deleted and waits to be put back: pieces of a job and pictures of them, or whole jobs.
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { client, must, words, type Schemas } from '../api/client';
import type { Column } from '../kit/columns';
import { Act } from '../kit/Act';
import { Grid } from '../kit/Grid';

interface Gone {
  key: string;
  what: string;
  mark: string;
  title: string;
  at: string;
  /** Puts it back. */
  back: () => Promise<unknown>;
}

const COLUMNS = (back: (one: Gone) => void): Column<Gone>[] => [
  { key: 'what', head: 'what', value: (one) => one.what, width: 110 },
  { key: 'mark', head: 'mark', value: (one) => one.mark, width: 120 },
  { key: 'title', head: 'what it is', value: (one) => one.title, grow: 1, width: 200 },
  { key: 'at', head: 'deleted', value: (one) => one.at, width: 150 },
  {
    key: 'back',
    head: 'back',
    value: () => '',
    drawn: true,
    show: (one) => (
      <Act kind="line" onClick={() => back(one)} aria-label={`Put ${one.mark} back`}>
        put back
      </Act>
    ),
    width: 100,
  },
];

const when = (at: string | null | undefined) => (at ?? '').replace('T', ' ').slice(0, 16);

function Bin({ gone, empty, done }: { gone: Gone[]; empty: string; done: () => Promise<void> }) {
  const [open, setOpen] = useState(false);
  const [said, setSaid] = useState('');
  const back = async (one: Gone) => {
    try {
      await one.back();
      await done();
      setSaid(`${one.mark} is put back.`);
    } catch (fault) {
      setSaid(`${one.mark} stays in the bin: ${words(fault)}`);
    }
  };
  return (
    <section aria-label="Bin">
      <h2>
        Bin{' '}
        <Act kind="line" aria-expanded={open} onClick={() => setOpen(!open)}>
          {gone.length === 0 ? 'empty' : open ? 'close' : `show ${gone.length} deleted`}
        </Act>
      </h2>
      {open && gone.length === 0 && <p className="soft">{empty}</p>}
      {open && gone.length > 0 && (
        <Grid
          label="Bin"
          rows={gone}
          columns={COLUMNS((one) => void back(one))}
          idOf={(one) => one.key}
          say={setSaid}
        />
      )}
      <p role="status" className="soft">
        {said}
      </p>
    </section>
  );
}

const PUT_BACK = '/api/pieces/{id}/put-back';

/** The bin of a job. */
export function JobBin({ job, done }: { job: number; done: () => Promise<void> }) {
  const queries = useQueryClient();
  const path = { id: job };
  const found = useQuery({
    queryKey: ['bin', job],
    queryFn: () => must(client.GET('/api/jobs/{id}/bin', { params: { path } })),
  });
  const pictures = (found.data?.pictures ?? []).map((one): Gone => ({
    key: `${one.piece} ${one.slot} ${one.number}`,
    what: one.slot === 'photo' ? 'photo to trace' : 'drawing',
    mark: one.mark,
    title: `picture ${one.number} of ${one.mark}, ${Math.max(1, Math.round(one.size / 1024))} kB`,
    at: when(one.at),
    back: () => putBackPicture(one),
  }));
  const pieces = (found.data?.pieces ?? []).map((one): Gone => ({
    key: `piece ${one.id}`,
    what: 'piece',
    mark: one.mark,
    title: one.title,
    at: when(one.at),
    back: () => must(client.POST(PUT_BACK, { params: { path: { id: one.id } } })),
  }));
  return (
    <Bin
      gone={[...pieces, ...pictures]}
      empty="What is deleted from this job waits here and can be put back: pieces, and pictures of them."
      done={async () => {
        await done();
        await queries.invalidateQueries({ queryKey: ['bin', job] });
      }}
    />
  );
}

const putBackPicture = ({ piece, slot, number }: Schemas['DeletedPictureLine']) =>
  must(
    client.POST('/api/pieces/{id}/{slot}/before/{number}/restore', {
      params: { path: { id: piece, slot: slot === 'photo' ? 'photo' : 'drawing', number } },
    }),
  );

/** The bin of the rack. */
export function RackBin({ done }: { done: () => Promise<void> }) {
  const queries = useQueryClient();
  const found = useQuery({ queryKey: ['bin'], queryFn: () => must(client.GET('/api/bin')) });
  const gone = (found.data ?? []).map((one): Gone => ({
    key: `job ${one.id}`,
    what: 'job',
    mark: one.number,
    title: `${one.title}, ${one.pieces} ${one.pieces === 1 ? 'piece' : 'pieces'}`,
    at: when(one.at),
    back: () => must(client.POST('/api/jobs/{id}/put-back', { params: { path: { id: one.id } } })),
  }));
  return (
    <Bin
      gone={gone}
      empty="Jobs that are deleted wait here with their pieces and can be put back."
      done={async () => {
        await done();
        await queries.invalidateQueries({ queryKey: ['bin'] });
      }}
    />
  );
}
