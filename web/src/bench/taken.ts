// Files that were taken from a piece, with the revision that each was made from: what changed since has made them
// stale.
import { create } from 'zustand';

export interface Taken {
  /** Revision that the file was made from. */
  version: number;
  /** When, as an ISO text. */
  at: string;
}
type Pieces = Record<string, Record<string, Taken>>;

const KEY = 'steelk-taken';
/** The most pieces that are remembered; the longest untouched goes first. */
const MOST = 200;

function read(): Pieces {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(KEY) ?? '{}');
    return found && typeof found === 'object' && !Array.isArray(found) ? (found as Pieces) : {};
  } catch {
    return {};
  }
}

export const useTaken = create<{ pieces: Pieces }>()(() => ({ pieces: read() }));

/** Remembers that a file was taken. */
export function noteTaken(id: number, file: string, version: number, at: Date = new Date()): void {
  const { [String(id)]: own, ...others } = useTaken.getState().pieces;
  const kept = Object.entries(others).slice(-(MOST - 1));
  const pieces: Pieces = {
    ...Object.fromEntries(kept),
    [String(id)]: { ...own, [file]: { version, at: at.toISOString() } },
  };
  useTaken.setState({ pieces });
  try {
    localStorage.setItem(KEY, JSON.stringify(pieces));
  } catch {
    // Private windows may refuse: then it is remembered until the page is left.
  }
}

/** Whether a file was made from another state of the piece than the one on screen. */
export const isStale = (taken: Taken | undefined, version: number, saved: boolean): boolean =>
  taken !== undefined && (taken.version !== version || !saved);

/** How many of a piece's files are stale. */
export const countStale = (files: Record<string, Taken> | undefined, version: number, saved: boolean): number =>
  Object.values(files ?? {}).filter((one) => isStale(one, version, saved)).length;
