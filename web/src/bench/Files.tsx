// The files of the piece: every row of the server's one list that its kind has, told apart by who reads it.
import { useQuery } from '@tanstack/react-query';
import type { components } from '../api/schema';
import { client, must } from '../api/client';
import { kindOfPiece } from '../kinds';
import { FileButton } from './FileButton';
import { useBench } from './store';

type Output = components['schemas']['OutputLine'];

const READERS: [Output['reader'], string][] = [
  ['cutter', 'For the cutter'],
  ['brake', 'For the brake'],
  ['saw', 'For saw and drill'],
  ['welder', 'For the welder'],
  ['office', 'For the office'],
];

export function Files() {
  const answer = useBench((s) => s.answer);
  const document = useBench((s) => s.document);
  const variant = useBench((s) => s.variant);
  const outputs = useQuery({
    queryKey: ['outputs'],
    staleTime: Infinity,
    queryFn: () => must(client.GET('/api/outputs')),
  });
  if (!document) return null;
  const kind = kindOfPiece(document);
  const query = variant ? `?variant=${encodeURIComponent(variant)}` : '';
  const own = (outputs.data ?? []).filter((one) => one.kinds.includes(document.kind));
  const forms = Object.entries(kind.files.forms ?? {});
  return (
    <div className="filelist">
      <div role="group" aria-label="Everything at once">
        <b>Everything</b>
        <span>
          <FileButton file="all.zip" query={query} words="All files, ZIP" />
          <span className="soft">every file of the piece in one archive; what could not be made is told in it</span>
        </span>
      </div>
      {outputs.isLoading && <p role="status">The list of files is fetched…</p>}
      {outputs.isError && <p className="bad">The list of files could not be fetched; reload the page.</p>}
      {READERS.map(([reader, words]) => {
        // A row without a mark to make it of has nothing to show.
        const rows = own
          .filter((one) => one.reader === reader && !kind.files.forms?.[one.file])
          .map((one) => ({ output: one, marks: kind.files.marks(answer, one.of) }))
          .filter(({ marks }) => marks === null || marks.length > 0)
          .sort((one, other) => Number(other.output.first) - Number(one.output.first));
        return (
          (rows.length > 0 || reader === 'office') && (
            <div key={reader} role="group" aria-label={words}>
              <b>{words}</b>
              <span>
                {rows.map(({ output, marks }) => (
                  <Row key={output.file} output={output} marks={marks} query={query} />
                ))}
                {reader === 'office' && <FileButton file="piece.json" words="Piece document" />}
              </span>
            </div>
          )
        );
      })}
      {forms.map(([file, Form]) => own.some((one) => one.file === file) && <Form key={file} />)}
      {kind.files.More && <kind.files.More />}
    </div>
  );
}

/** The file of a mark: where it stands in the name, or before it for a blank of several. */
const fileOf = ({ file, of }: Output, mark: string) =>
  of === 'blank' ? `${mark}.${file}` : file.replace('{mark}', mark);

/** One row of the list: a button, or a button for each mark. */
function Row({ output, marks, query }: { output: Output; marks: string[] | null; query: string }) {
  if (!marks)
    return <FileButton file={`files/${output.file}`} query={query} words={output.words} first={output.first} />;
  return (
    <span className="marks">
      {output.first && <small className="first">first</small>} {output.words}:{' '}
      {marks.map((mark) => (
        <FileButton
          key={mark}
          plain
          file={`files/${encodeURIComponent(fileOf(output, mark))}`}
          query={query}
          words={mark}
          label={`${output.words} of ${mark}`}
        />
      ))}
    </span>
  );
}
