// A file that takes the server a while: a button, then its progress and a way to stop it.
import { useRef, useState } from 'react';
import { LinearProgress } from '@mui/material';
import { download } from '../bench/download';
import { Act } from '../kit/Act';

export function LongFile({ url, words, say }: { url: string; words: string; say: (words: string) => void }) {
  const [busy, setBusy] = useState(false);
  const stop = useRef<AbortController | null>(null);
  const take = async () => {
    stop.current = new AbortController();
    setBusy(true);
    if (await download(url, { signal: stop.current.signal, say })) say(`${words}: saved.`);
    setBusy(false);
  };
  if (!busy)
    return (
      <Act kind="line" onClick={() => void take()}>
        {words}
      </Act>
    );
  return (
    <span role="status" style={{ display: 'inline-flex', alignItems: 'center', gap: 8 }}>
      {words} is being made
      <LinearProgress aria-label={`${words} is being made`} sx={{ width: 80 }} />
      <Act kind="line" onClick={() => stop.current?.abort()}>
        Stop
      </Act>
    </span>
  );
}
