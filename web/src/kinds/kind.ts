// What a kind of piece is on the bench: everything that differs from one kind to the next.
import type { ComponentType } from 'react';
import type { BuildAnswer, Operation, Piece } from '../api/client';
import type { components } from '../api/schema';
import type { MeasureForm } from '../bench/parts';
import type { OpenPanel } from '../bench/store';
import type { Tag } from '../bench/tags';
import type { VerbRow } from './verb';

/** A change of the piece with what to note of it and the field that it is of. */
export type ChangePiece = (next: (now: Piece) => Piece, note: string, field: string) => void;

/** What a file is one of. */
export type OutputOf = components['schemas']['Of'];

/** What is drawn over the metal: labels, and centre lines as pairs of places. */
export interface Over {
  tags: Tag[];
  wires: Float32Array;
}

export interface KindOfPiece {
  key: Piece['kind'];
  /** Its verbs, in the order that they are offered: lines that are typed, sentences, changes in one click. */
  verbs: VerbRow[];
  /** What a call-out may measure, by key, and the key of a measure. */
  measures: Record<string, MeasureForm>;
  measureOf: (value: unknown) => string;
  /** What a changed piece takes along of what the shop keeps. */
  complete?: (piece: Piece) => Promise<Piece>;
  /** The line to type in: the verbs in few words, an example; what to do where there is no work yet. */
  words: { verbs: string; example: string; empty: string; first: string };
  /** Work that a file brings in. */
  FromFile: ComponentType<{ piece: Piece }>;
  /** More of an operation's own row. */
  RowTools?: ComponentType<{ operation: Operation }>;
  /** In the first sentence: what it is made from after the material, and how it lies. */
  Stock: ComponentType<{ piece: Piece; change: ChangePiece; whole: boolean }>;
  Lies?: ComponentType<{ piece: Piece; change: ChangePiece; whole: boolean }>;
  /** What the heading says between material and quantity. */
  heading: (answer: BuildAnswer) => string[];
  /** Whether a cutter cuts it whole. */
  cuts: boolean;
  stage: {
    title: string;
    /** What the picture shows, for who does not see it. */
    label: string;
    /** What to do where nothing is built. */
    nothing: string;
    Bar?: ComponentType;
    /** Whether panels are named on it, and their faces told from walls by their colour. */
    panels: boolean;
    /** `lines` for centre lines shown, `panel` for what is open below. */
    over?: (answer: BuildAnswer, shown: { lines: boolean; panel: string | null }) => Over;
    /** What a click on a face takes: the face, or what it is of. */
    pick: (answer: BuildAnswer, face: string) => string;
    /** Under the picture. */
    Below: ComponentType;
    /** A stage of its own for an operation that is worked on. */
    own?: { takes: (piece: Piece, index: number) => boolean; Stage: ComponentType<{ piece: Piece; index: number }> };
  };
  /** Cells of the proof strip that are its own, in order. */
  strip: {
    panel: OpenPanel;
    label: string;
    /** What it is called of this answer, where that changes. */
    labelOf?: (answer: BuildAnswer | null) => string;
    Body: ComponentType;
  }[];
  /** Its own panels, opened from the strip. */
  panels: { panel: OpenPanel; title: string; Body: ComponentType }[];
  /**
   * Its files: which marks there is one for (none where there is one a piece), what is chosen before one is made,
   * and more.
   */
  files: {
    marks: (answer: BuildAnswer | null, of: OutputOf) => string[] | null;
    forms?: Record<string, ComponentType>;
    More?: ComponentType;
  };
}
