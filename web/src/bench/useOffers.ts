// What the server offers for what is pointed at.
import { useEffect, useState } from 'react';
import { client, must, Refusal, type Schemas } from '../api/client';
import { useSettings } from '../settings';
import { shownVariant, useBench } from './store';

export type Offers = Schemas['Offers'];

/** Offers for these names of the piece as it is shown; none asked for where null. */
export function useOffers(at: string[] | null): { offers: Offers | null; fault: string | null } {
  const document = useBench((s) => s.document);
  const caret = useBench((s) => s.caret);
  const show = useSettings((s) => s.show);
  const [found, setFound] = useState<{ key: string; offers: Offers | null; fault: string | null } | null>(null);
  const key = at === null ? '' : at.join('\n');
  useEffect(() => {
    if (at === null || !document) return;
    const asking = new AbortController();
    const body = { document, upto: caret, variant: shownVariant(document), show, at };
    must(client.POST('/api/offers', { body, signal: asking.signal })).then(
      (offers) => !asking.signal.aborted && setFound({ key, offers, fault: null }),
      (fault: unknown) => {
        if (asking.signal.aborted) return;
        setFound({ key, offers: null, fault: fault instanceof Refusal ? fault.problem.detail : String(fault) });
      },
    );
    return () => asking.abort();
    // The names are told by the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, at === null, document, caret, show]);
  return at !== null && found?.key === key ? found : { offers: null, fault: null };
}
