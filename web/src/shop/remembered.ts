// A list of the shop's that is asked for at each change of a piece: taken to be as it was for a moment.

/** For so long, milliseconds. */
const FRESH = 2_000;

/** The list, asked for anew when it is no longer fresh; none where it cannot be had. */
export function remembered<T>(ask: () => Promise<T[]>): () => Promise<T[]> {
  let known: { at: number; list: T[] } = { at: -FRESH, list: [] };
  return async () => {
    if (performance.now() - known.at > FRESH) {
      const list = await ask().catch((): T[] => []);
      known = { at: performance.now(), list };
    }
    return known.list;
  };
}

/** Whether two names are one, however they are written. */
export const sameName = (one: string, two: string): boolean => one.trim().toLowerCase() === two.trim().toLowerCase();
