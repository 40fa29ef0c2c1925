// The one list of kinds of piece on the bench.
import type { Piece } from '../api/client';
import { completing } from '../bench/store';
import { FRAME } from './frame';
import type { KindOfPiece } from './kind';
import { PLATE } from './plate';
import { SHEET } from './sheet';

export const KINDS: Record<Piece['kind'], KindOfPiece> = { sheet: SHEET, plate: PLATE, frame: FRAME };

/** What the kind of this piece is on the bench. */
export const kindOfPiece = (piece: Pick<Piece, 'kind'>): KindOfPiece => KINDS[piece.kind];

completing.by = (piece) => kindOfPiece(piece).complete?.(piece) ?? Promise.resolve(piece);
