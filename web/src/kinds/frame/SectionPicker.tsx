// The section picker: outlines at true scale to each other, with kg/m.
import { Dialog } from '@mui/material';
import { useRef, useState } from 'react';
import { useQueries } from '@tanstack/react-query';
import { client, must, type Operation, type Schemas } from '../../api/client';
import { useShopFrames } from '../../shop/useShopFrames';
import { OutlineFile } from '../../parts/OutlineFile';
import { at, named, plain, put, verb } from '../../bench/edit';
import { useSections } from '../../bench/sections';
import { commit, useBench } from '../../bench/store';
import { Act } from '../../kit/Act';
import { told } from '../../kit/amounts';
import { useSettings } from '../../settings';
import { Press } from '../../kit/Press';
import { FileInput } from '../../kit/FileInput';
import { Select } from '../../kit/Select';
import { Input } from '../../kit/Input';

/** The catalogue, on a member's own row. */
export function SectionTools({ operation }: { operation: Operation }) {
  return verb(operation) === 'member' ? <SectionPicker operation={operation} /> : null;
}

const NONE: Schemas['OwnSection'][] = [];

/** Sections that the piece keeps, drawn and weighed; one that cannot be drawn is told by the piece and not offered. */
function useKept(kept: Schemas['OwnSection'][]) {
  const drawn = useQueries({
    queries: kept.map((body) => ({
      queryKey: ['try-section', body],
      retry: false,
      staleTime: Infinity,
      queryFn: () => must(client.POST('/api/shop/frames/try', { body })),
    })),
  });
  return drawn.flatMap((one) => (one.data ? [one.data] : []));
}

function SectionPicker({ operation }: { operation: Operation }) {
  const drawnIn = useBench((s) => s.document?.unit ?? 'mm');
  const run = told('mass per run', useSettings((s) => s.show) ?? drawnIn);
  const [open, setOpen] = useState(false);
  const [form, setForm] = useState('');
  const [text, setText] = useState('');
  const shop = useShopFrames(open).data;
  const kept = useBench((s) => s.document?.frame?.sections) ?? NONE;
  const own = useKept(open ? kept : NONE);
  const all = [
    ...(useSections(open).data ?? []),
    ...own.map((one) => ({ ...one, form: 'kept in this piece' })),
    ...(shop?.shown ?? []).map((one) => ({ ...one, form: "the shop's own" })),
  ];
  const now = plain(at(operation, ['do', 'member', 'section']));
  const forms = [...new Set(all.map((one) => one.form))];
  const current = all.find((one) => one.name === now);
  const kind = form || current?.form || forms[0] || '';
  const shown = all.filter((one) => one.form === kind && one.name.toLowerCase().includes(text.toLowerCase()));
  // One scale for all that are shown: a small tube looks small beside a large one.
  const largest = Math.max(1, ...shown.map((one) => Math.max(one.width, one.height)));
  const scale = 74 / largest;
  const file = useRef<HTMLInputElement>(null);
  const [picked, setPicked] = useState<File | null>(null);
  /** An outline of your own: the group's section from now on. */
  const drawn = async (shape: Schemas['OutlineAnswer']['shape']): Promise<string | null> => {
    const name = (picked?.name ?? 'own').replace(/\.(dxf|svg)$/i, '').slice(0, 30) || 'own';
    const fault = await commit(
      (piece) =>
        put(
          put(piece, ['operations', named(operation.name), 'do', 'member', 'outline'], shape),
          ['operations', named(operation.name), 'do', 'member', 'section'],
          name,
        ),
      `${operation.name}: outline from a file`,
      { operation: operation.name },
    );
    if (!fault) setOpen(false);
    return fault;
  };
  const take = ({ name, form: of }: { name: string; form: string }) => {
    setOpen(false);
    // One of the shop's is copied into the piece, over one of its name that was taken before.
    const taken = of === "the shop's own" ? shop?.settings.sections.find((one) => one.name === name) : undefined;
    const sections = taken && [...kept.filter((one) => one.name !== name), taken];
    void commit(
      (piece) =>
        put(
          put(
            sections ? put(piece, ['frame', 'sections'], sections) : piece,
            ['operations', named(operation.name), 'do', 'member', 'outline'],
            undefined,
          ),
          ['operations', named(operation.name), 'do', 'member', 'section'],
          name,
        ),
      `${operation.name}: ${name}`,
      { operation: operation.name },
    ).then((fault) => fault && useBench.setState({ message: fault }));
  };
  return (
    <>
      <Act onClick={() => setOpen(true)}>pick a section…</Act>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        slotProps={{ paper: { 'aria-label': 'Sections' } }}
        maxWidth="md"
        fullWidth
        transitionDuration={0}
      >
        <div className="sections">
          <div className="tools">
            <label>
              kind{' '}
              <Select
                className="field"
                aria-label="Kind of section"
                value={kind}
                onChange={(event) => setForm(event.target.value)}
              >
                {forms.map((one) => (
                  <option key={one}>{one}</option>
                ))}
              </Select>
            </label>
            <label>
              find{' '}
              <Input
                className="field"
                aria-label="Find a section"
                placeholder="50x50"
                value={text}
                onChange={(event) => setText(event.target.value)}
              />
            </label>
            <span className="soft">at one scale; any size may be typed</span>
            <FileInput
              ref={file}
              accept=".dxf,.svg"
              label="Section outline file"
              pick={(picked) => setPicked(picked ?? null)}
            />
            <Act kind="line" onClick={() => file.current?.click()}>
              an outline of your own…
            </Act>
            <span style={{ flex: 1 }} />
            <Act onClick={() => setOpen(false)}>close (Esc)</Act>
          </div>
          <ul>
            {shown.map((one) => (
              <li key={one.form + one.name}>
                <Press
                  className={one.name === now ? 'on' : ''}
                  aria-label={`${one.name}, ${run.text(one.mass_per_metre, 2)}`}
                  onClick={() => take(one)}
                >
                  <svg
                    width="80"
                    height="80"
                    viewBox={`${-40 / scale} ${-40 / scale} ${80 / scale} ${80 / scale}`}
                    aria-hidden="true"
                  >
                    <path d={one.path} fillRule="evenodd" />
                  </svg>
                  <span className="num">{one.name}</span>
                  <small className="num">{run.text(one.mass_per_metre, 2)}</small>
                </Press>
              </li>
            ))}
          </ul>
          {shown.length === 0 && (
            <p>
              No section of this kind is called that. Type its name in the sentence: any size of a formula's kind can be
              had.
            </p>
          )}
        </div>
      </Dialog>
      {picked && (
        <OutlineFile
          file={picked}
          acts={[{ words: `Take it as the section of ${operation.name}`, run: drawn }]}
          leave={() => setPicked(null)}
        />
      )}
    </>
  );
}
