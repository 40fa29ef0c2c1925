// Files from the server, saved by the browser.
import { useBench } from './store';

interface Wish {
  /** Ends it. */
  signal?: AbortSignal;
  /** Where it says why there is no file; the bench's own message where left out. */
  say?: (words: string) => void;
}

/** Saves a file, or says why the server gives none; whether there was one. */
export async function download(url: string, { signal, say = tell }: Wish = {}): Promise<boolean> {
  try {
    const response = await fetch(url, { signal: signal ?? null });
    if (!response.ok) {
      const problem = (await response.json()) as { detail?: string };
      say(problem.detail ?? 'The file could not be made.');
      return false;
    }
    const name = /filename="([^"]+)"/.exec(response.headers.get('Content-Disposition') ?? '')?.[1] ?? 'steelk';
    const link = document.createElement('a');
    link.href = URL.createObjectURL(await response.blob());
    link.download = name;
    link.click();
    URL.revokeObjectURL(link.href);
    return true;
  } catch {
    say(signal?.aborted ? 'Stopped; no file was saved.' : 'The server does not answer; the file could not be fetched.');
    return false;
  }
}

const tell = (message: string) => useBench.setState({ message });
