// The files of a frame.
import { useQuery } from '@tanstack/react-query';
import { client, must } from '../../api/client';
import { FileButton } from '../../bench/FileButton';
import { useBench } from '../../bench/store';

export function FrameFiles() {
  const id = useBench((s) => s.id);
  const variant = useBench((s) => s.variant);
  const list = useBench((s) => s.answer?.frame?.cut_list) ?? [];
  const query = variant ? `?variant=${variant}` : '';
  const files: [string, string][] = [
    ['frame/cutlist.pdf', 'Cut list, PDF'],
    ['frame/cutlist.xlsx', 'Cut list, bars, welds, XLSX'],
    ['frame/cutlist.csv', 'Cut list, CSV'],
    ['frame/bars.csv', 'Cutting plan, CSV'],
    ['frame/welds.csv', 'Welds, CSV'],
    ['frame/frame.step', 'Frame, STEP'],
    ['frame/frame.glb', 'Frame, GLB'],
    ['report.json', 'Proof report, JSON'],
    ['piece.json', 'Piece document'],
  ];
  return (
    <>
      <p>
        {files.map(([file, text]) => (
          <FileButton key={file} file={file} query={file === 'piece.json' ? '' : query} words={text} />
        ))}
      </p>
      <p className="soft">
        Machine files (NC1): <SawLine id={id} variant={variant} />{' '}
        {list
          .filter((one) => one.line.kind === 'member')
          .map((one) => (
            <FileButton
              key={one.line.mark}
              plain
              file={`frame/${one.line.mark}.nc1`}
              query={query}
              words={one.line.mark}
              label={`NC1 of ${one.line.mark}`}
            />
          ))}
      </p>
    </>
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
        {all.length - bad.length} of {all.length} machine files come off the simulated line as listed.
      </span>{' '}
      {[...bad, ...without].map((one) => (
        <span key={one.mark} className={one.has_file ? 'bad' : ''}>
          {one.mark}: {one.words}.{' '}
        </span>
      ))}
    </>
  );
}
