// Changes that the server has not got yet, kept by the browser: they go up when it is back, and survive a reload.
import type { Piece } from '../api/client';

export interface Waiting {
  document: Piece;
  note: string;
}

export interface Kept {
  /** What the changes were made from. */
  version: number;
  base: Piece;
  waiting: Waiting[];
}

const keyOf = (piece: number) => `steelk-kept-${piece}`;

/** Keeps them, or forgets them where there are none; whether the browser had room. */
export function keep(piece: number, kept: Kept): boolean {
  try {
    if (kept.waiting.length === 0) localStorage.removeItem(keyOf(piece));
    else localStorage.setItem(keyOf(piece), JSON.stringify({ ...kept, waiting: kept.waiting.slice(-1) }));
    return true;
  } catch {
    return false;
  }
}

export function keptOf(piece: number): Kept | null {
  try {
    const text = localStorage.getItem(keyOf(piece));
    return text ? (JSON.parse(text) as Kept) : null;
  } catch {
    return null;
  }
}
