// Operations typed in one line, read by the piece's kind: "bend base.back, A, 90 deg, up".
import type { Operation, Piece } from '../api/client';
import { kindOfPiece } from '../kinds';
import { freshName } from './edit';
import { withOwn } from './ownValues';

export type Read = { operation: Operation } | { fault: string };

/** Reads a typed line into an operation. */
export function readPhrase(text: string, piece: Piece): Read {
  const phrases = kindOfPiece(piece).verbs.flatMap((one) => one.phrases);
  const line = text.trim().replace(/^\//, '').trim();
  const phrase = phrases.find((one) => line.toLowerCase().startsWith(one.verb));
  if (!phrase) return { fault: `Start with one of: ${phrases.map((one) => one.verb).join(', ')}.` };
  const parts = line
    .slice(phrase.verb.length)
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean);
  const made = phrase.read(parts, piece);
  if (made === undefined) {
    const own = withOwn(phrase.example, parts.join(', '));
    return { fault: `${phrase.verb} needs ${phrase.words}. Example: ${own}` };
  }
  if (typeof made === 'string') return { fault: made };
  return { operation: { name: freshName(piece, made.stem), do: made.action as Operation['do'] } };
}
