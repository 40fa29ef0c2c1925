// Bars: each section's pieces nested into stock, with the proved bound; a picture of each bar; search for longer, or
// stop.
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { client, must, words, type Schemas } from '../../api/client';
import { shownVariant, useBench } from '../../bench/store';
import { Terms } from '../../parts/Terms';
import { useSettings } from '../../settings';
import { Act } from '../../kit/Act';
import { told } from '../../kit/amounts';

type View = Schemas['BarsView'];

function usePlan() {
  const document = useBench((s) => s.document);
  const show = useSettings((s) => s.show);
  // What the bars hang on: the list and the settings.
  const list = useBench((s) => s.answer?.frame?.cut_list);
  const key = JSON.stringify([
    list?.map((one) => [one.line.mark, one.line.length, one.line.quantity, one.line.section]),
    document?.frame,
    document?.quantity,
    document?.spares,
    show,
  ]);
  return useQuery({
    queryKey: ['bars', key],
    enabled: list !== undefined,
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }): Promise<View[]> => {
      const piece = useBench.getState().document;
      if (!piece) return [];
      return must(
        client.POST('/api/bars', {
          body: { document: piece, variant: shownVariant(piece), show, seconds: 1.5 },
          signal,
        }),
      );
    },
  });
}

export function BarsBrief() {
  const plan = usePlan();
  if (plan.isFetching) return <span className="soft">planning…</span>;
  if (plan.isError) return <b className="bad">not planned</b>;
  const fault = plan.data?.some((one) => one.fault);
  const bars = plan.data?.reduce((sum, one) => sum + (one.result?.bars_used ?? 0), 0) ?? 0;
  const proved = plan.data?.every((one) => one.result?.optimal) ?? false;
  if (fault) return <b className="bad">bars do not reach</b>;
  return (
    <span className="num">
      <b>{bars}</b> {proved ? 'proved' : 'best found'}
    </span>
  );
}

export function BarsPanel() {
  const plan = usePlan();
  const queries = useQueryClient();
  const show = useSettings((s) => s.show);
  const [busy, setBusy] = useState(false);
  const stop = useRef<AbortController | null>(null);
  const longer = async () => {
    const piece = useBench.getState().document;
    if (!piece) return;
    stop.current = new AbortController();
    setBusy(true);
    try {
      const found = await must(
        client.POST('/api/bars', {
          body: { document: piece, variant: shownVariant(piece), show, seconds: 20 },
          signal: stop.current.signal,
        }),
      );
      queries
        .getQueryCache()
        .findAll({ queryKey: ['bars'] })
        .filter((one) => one.isActive())
        .forEach((one) => queries.setQueryData(one.queryKey, found));
    } catch (fault) {
      if (!stop.current.signal.aborted) useBench.setState({ message: words(fault) });
    } finally {
      setBusy(false);
    }
  };
  if (plan.isLoading) return <p role="status">Planning the bars…</p>;
  if (plan.isError) return <p className="bad">{words(plan.error)}</p>;
  const open = plan.data?.some((one) => one.result && !one.result.optimal);
  return (
    <>
      {(open || busy) && (
        <p className="tools">
          {busy ? (
            <>
              <progress aria-label="Searching for a better plan" />{' '}
              {`searching for a better plan, up to 20 s a section `}
              <Act kind="line" onClick={() => stop.current?.abort()}>
                Stop
              </Act>
            </>
          ) : (
            <Act kind="line" onClick={() => void longer()}>
              Search longer for what is not proved
            </Act>
          )}
        </p>
      )}
      {plan.data?.map((one) => (
        <div key={one.section + one.material}>
          <h3>
            {one.section}, {one.material}
          </h3>
          <p className={one.fault ? 'bad' : ''}>{one.words}</p>
          <div className="bars">
            {one.result?.plan.slice(0, 60).map((bar, index) => (
              <Bar key={index} view={one} bar={bar} number={index + 1} />
            ))}
          </div>
          {(one.result?.plan.length ?? 0) > 60 && (
            <p className="soft">The first 60 bars are drawn; the CSV has them all.</p>
          )}
        </div>
      ))}
    </>
  );
}

function Bar({ view, bar, number }: { view: View; bar: Schemas['BarPlan']; number: number }) {
  const list = useBench((s) => s.answer?.frame?.cut_list) ?? [];
  const own = useBench((s) => s.document?.unit ?? 'mm');
  const length = told('length', useSettings((s) => s.show) ?? own);
  const members = (mark: string) => list.find((one) => one.line.mark === mark)?.line.members ?? [];
  let x = view.end_trim;
  return (
    <figure
      className="stockbar"
      aria-label={`Bar ${number}: ${bar.marks.join(', ')}, bar offcut ${length.text(bar.offcut, 0)}`}
    >
      <svg viewBox={`0 0 ${bar.stock} 100`} preserveAspectRatio="none" aria-hidden="true">
        <rect x="0" y="0" width={bar.stock} height="100" className="stock" />
        {bar.marks.map((mark, index) => {
          const long = view.lengths[mark] ?? 0;
          const slant = view.shared[mark] ?? 0;
          const at = x;
          const next = bar.marks[index + 1];
          // A turned neighbour begins on this one's slant.
          x += long + view.kerf - (slant > 0 && next !== undefined && view.shared[next] !== undefined ? slant : 0);
          const [low, high] = index % 2 === 0 ? [0, slant] : [slant, 0];
          return (
            <path
              key={index}
              d={`M${at + low} 100L${at + high} 0L${at + long - high} 0L${at + long - low} 100Z`}
              className="cut"
              onMouseEnter={() => useBench.setState({ lit: members(mark) })}
              onMouseLeave={() => useBench.setState({ lit: [] })}
            />
          );
        })}
      </svg>
      <figcaption className="num">
        {length.text(bar.stock, 0)}: {bar.marks.join(' · ')}{' '}
        <span className="soft">
          <Terms text="bar offcut" /> {length.text(bar.offcut, 0)}
        </span>
      </figcaption>
    </figure>
  );
}
