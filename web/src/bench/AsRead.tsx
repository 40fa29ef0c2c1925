// What the checks before a file came to: the blank as the cutter reads it, and figures that two ways find
// differently. Asked for
// once the answer to the last change stands; "not read yet" until then.
import { Alert } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { client, must, type Piece, type Schemas } from '../api/client';
import { useSettings } from '../settings';
import { shownVariant, useBench } from './store';

/** A change is followed by others: the files are read back once it is still for so long, ms. */
const STILL = 700;

export type Audit = Schemas['AuditAnswer'];

/** The audit of the piece as it is shown: the light one with the answer, then the full one. */
export function useAudit(): { audit: Audit | null; read: boolean } {
  const answer = useBench((s) => s.answer);
  const document = useBench((s) => s.document);
  const variant = useBench((s) => s.variant);
  const show = useSettings((s) => s.show);
  const [still, setStill] = useState<typeof answer>(null);
  useEffect(() => {
    const timer = setTimeout(() => setStill(answer), STILL);
    return () => clearTimeout(timer);
  }, [answer]);
  const full = useQuery({
    queryKey: ['audit', document, variant, show],
    enabled: document !== null && answer !== null && still === answer,
    retry: false,
    queryFn: ({ signal }) =>
      must(
        client.POST('/api/audit', {
          body: { document: document as Piece, variant: shownVariant(document as Piece), show },
          signal,
        }),
      ),
  });
  if (full.data && still === answer) return { audit: full.data, read: true };
  return { audit: answer?.audit ?? null, read: false };
}

/** Figures that differ, each with both ways. Nothing where all agree. */
export function AuditFaults({ audit }: { audit: Audit | null }) {
  if (!audit || audit.faults.length === 0) return null;
  return (
    <Alert severity="error" variant="outlined" icon={false} sx={{ borderRadius: 0, my: 1 }}>
      <b>Nothing is given out: two figures differ.</b>
      <ul>
        {audit.faults.map((fault) => (
          <li key={fault}>{fault}</li>
        ))}
      </ul>
      {audit.ask}
    </Alert>
  );
}

/** The blank as the cutter reads it from its file. */
export function AsRead() {
  const { audit, read } = useAudit();
  const sheets = useBench((s) => s.answer?.blank?.sheets.length ?? 0);
  const seen = audit?.as_read;
  return (
    <section aria-label="As the cutter reads it" className="asread">
      <h3>As the cutter reads it</h3>
      {!read && <p className="soft">not read yet</p>}
      {read && !seen && (
        <p className="soft">
          {sheets > 1
            ? `All ${sheets} blanks are read back, each from its own file, and held against their figures.`
            : 'There is no blank to read.'}
        </p>
      )}
      {read && seen && (
        <dl>
          <div>
            <dt>size</dt>
            <dd className="num">
              {seen.width} × {seen.height}
            </dd>
          </div>
          <div>
            <dt>thickness</dt>
            <dd className="num">{seen.thickness}</dd>
          </div>
          <div>
            <dt>material</dt>
            <dd>{seen.material}</dd>
          </div>
          <div>
            <dt>contours within</dt>
            <dd className="num">{seen.holes}</dd>
          </div>
          <div>
            <dt>bends</dt>
            <dd className="num">
              {seen.bends.length === 0 ? 'none' : seen.bends.map((bend) => <div key={bend}>{bend}</div>)}
            </dd>
          </div>
          <div>
            <dt>unit</dt>
            <dd>{seen.unit}</dd>
          </div>
          <div>
            <dt>found twice</dt>
            <dd>
              {audit.faults.length === 0 ? (
                <span className="ok">{audit.agreed} figures agree</span>
              ) : (
                <span className="bad">{audit.faults.length} differ</span>
              )}
              {audit.left_out.map((left) => (
                <div key={left} className="soft">
                  not checked: {left}
                </div>
              ))}
            </dd>
          </div>
        </dl>
      )}
    </section>
  );
}
