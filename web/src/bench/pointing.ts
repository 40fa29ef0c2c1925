// What pointing and drafts keep on the bench.
import type { Operation } from '../api/client';
import type { Names } from './parts';

/** A place in the window, pixels. */
export interface Place {
  x: number;
  y: number;
}

/** Who takes the next pick: a value of the draft, or a call-out that is to be measured. */
export interface Want {
  /** What is asked for: "an edge". */
  words: string;
  /** The sort of name that is taken; any where left out. */
  names?: Names;
  take: (name: string) => void;
}

/** The one step that is not kept yet. */
export interface Draft {
  operation: Operation;
  /** Fields that wait for a place, the first first. */
  wants: string[];
  /** Fields that are typed, in the order of the drawing. */
  asks: string[];
  /** Why it cannot be made, in words; the picture is the last that could. */
  fault: string | null;
  /** Counts drafts, so that a new one begins with its first value. */
  turn: number;
}
