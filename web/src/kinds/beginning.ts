// How a kind of piece begins, and what a job says of one.
import type { Piece, Schemas } from '../api/client';

export interface Begin {
  /** What is begun with. */
  first: Omit<Piece, 'mark'>;
  /** What the shop has of its own for one that is new. */
  byShop?: () => Promise<Partial<Piece>>;
  /** On the button. */
  words: string;
  /** Whether its small picture is lines and not metal. */
  wires: boolean;
  /** What the job says of one: of its stock, what its size is of, its size, its mass. */
  facts: (line: Schemas['PieceLine']) => { stock: string; sizeOf: string; size: string; mass: string };
}
