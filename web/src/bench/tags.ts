// Labels over the folded part or the frame.

export interface Tag {
  key: string;
  text: string;
  place: [number, number, number];
  pick?: string;
  /** Stands back where another label is already. */
  declutter?: boolean;
  /** What a broken rule is about. */
  wrong?: boolean;
  /** A node: a click goes on from it. */
  node?: string;
  line?: [number, number, number, number, number, number];
}
