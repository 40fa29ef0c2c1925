// What is told of the files of a frame.
import { useQuery } from '@tanstack/react-query';
import { type BuildAnswer, client, must } from '../../api/client';
import { useBench } from '../../bench/store';
import type { OutputOf } from '../kind';

/** The marks of the cut list that there is a file for. */
export function frameMarks(answer: BuildAnswer | null, of: OutputOf): string[] | null {
  if (of === 'piece') return null;
  const lines = answer?.frame?.cut_list ?? [];
  const member = (one: (typeof lines)[number]) => one.line.kind === 'member';
  const own = {
    blank: [],
    job: [],
    member: lines.filter(member),
    wrap: lines.filter((one) => one.wrap),
    plate: lines.filter((one) => !member(one)),
  }[of];
  return own.map((one) => one.line.mark);
}

/** What the simulated line makes of the machine files. */
export function MachineFiles() {
  const id = useBench((s) => s.id);
  const variant = useBench((s) => s.variant);
  return (
    <p className="soft">
      Machine files (NC1): <SawLine id={id} variant={variant} />
    </p>
  );
}

/** What the simulated saw and drill line makes of the machine files. */
function SawLine({ id, variant }: { id: number; variant: string | null }) {
  const version = useBench((s) => s.version);
  const sawn = useQuery({
    queryKey: ['saw', id, version, variant],
    retry: false,
    queryFn: () =>
      must(client.GET('/api/pieces/{id}/saw', { params: { path: { id }, query: variant ? { variant } : {} } })),
  });
  if (sawn.isLoading) return <span role="status">on the simulated line…</span>;
  if (sawn.isError) return <span className="todo">none yet.</span>;
  const all = (sawn.data ?? []).filter((one) => one.has_file);
  const bad = all.filter((one) => !one.good);
  const without = (sawn.data ?? []).filter((one) => !one.has_file);
  return (
    <>
      <span className={bad.length > 0 ? 'bad' : 'ok'}>
        {all.length - bad.length} of {all.length} machine files come out of the simulated line as listed.
      </span>{' '}
      {[...bad, ...without].map((one) => (
        <span key={one.mark} className={one.has_file ? 'bad' : ''}>
          {one.mark}: {one.words}.{' '}
        </span>
      ))}
    </>
  );
}
