// Files from the server, saved by the browser.
import { useBench } from './store';

/** Saves a file, or says why the server gives none; whether there was one. */
export async function download(url: string): Promise<boolean> {
  try {
    const response = await fetch(url);
    if (!response.ok) {
      const problem = (await response.json()) as { detail?: string };
      useBench.setState({ message: problem.detail ?? 'The file could not be made.' });
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
    useBench.setState({ message: 'The server does not answer; the file could not be fetched.' });
    return false;
  }
}
