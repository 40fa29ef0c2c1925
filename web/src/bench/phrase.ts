// Operations typed in one line: "bend base.back, A, 90 deg, up". Only words are told apart here; values stay text.
import type { Operation, Piece } from '../api/client';
import { freshName } from './edit';

export interface Phrase {
  verb: string;
  words: string;
  example: string;
}

export const PHRASES: Phrase[] = [
  { verb: 'lay down', words: 'width, depth', example: 'lay down 120 mm, 80 mm' },
  { verb: 'bend', words: 'edge, leg, angle, up or down, in or out or beyond, inside, relief, radius …, set in … at side', example: 'bend base.back, 60 mm, 90 deg, up' },
  { verb: 'drill', words: 'panel, diameter, from edge distance, count off spacing', example: 'drill base, 9 mm, from base.front 20 mm, 2 off 40 mm' },
  { verb: 'cut', words: 'panel, width, height, radius …, from edge distance, count off spacing', example: 'cut base, 40 mm, 12 mm, radius 3 mm' },
];

export type Read = { operation: Operation } | { fault: string };

const holePlace = (parts: string[]): { place?: object; repeat?: object[]; corner?: string } | string => {
  const from: object[] = [];
  const repeat: object[] = [];
  let corner: string | undefined;
  for (const part of parts) {
    let found = /^from\s+(\S+)\s+(.+)$/.exec(part);
    if (found) {
      from.push({ edge: found[1], distance: found[2] });
      continue;
    }
    found = /^(.+?)\s+off\s+(.+?)(?:\s+along\s+(\S+))?$/.exec(part);
    if (found) {
      repeat.push({ count: found[1], spacing: found[2], ...(found[3] ? { along: found[3] } : {}) });
      continue;
    }
    found = /^radius\s+(.+)$/.exec(part);
    if (found) {
      corner = found[1];
      continue;
    }
    return `"${part}" is not understood; say "from EDGE DISTANCE" or "COUNT off SPACING"`;
  }
  return { ...(from.length ? { place: { from } } : {}), ...(repeat.length ? { repeat } : {}), ...(corner ? { corner } : {}) };
};

/** Reads a typed line into an operation. */
export function readPhrase(text: string, piece: Piece): Read {
  const line = text.trim().replace(/^\//, '').trim();
  const phrase = PHRASES.find((one) => line.toLowerCase().startsWith(one.verb));
  if (!phrase) return { fault: `Start with one of: ${PHRASES.map((one) => one.verb).join(', ')}.` };
  const parts = line
    .slice(phrase.verb.length)
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean);
  const lacking = (count: number) => parts.length < count;
  const missing = { fault: `${phrase.verb} needs ${phrase.words}. Example: ${phrase.example}` };
  const make = (stem: string, action: object): Read => ({ operation: { name: freshName(piece, stem), do: action as Operation['do'] } });
  switch (phrase.verb) {
    case 'lay down':
      if (lacking(2)) return missing;
      return make('base', { lay_down: { shape: { rectangle: { width: parts[0], depth: parts[1] } } } });
    case 'bend': {
      if (lacking(2)) return missing;
      const bend: Record<string, unknown> = { edge: parts[0], leg: parts[1], angle: '90 deg' };
      for (const part of parts.slice(2)) {
        const inset = /^set in\s+(.+?)\s+at\s+(\S+)$/.exec(part);
        const radius = /^radius\s+(.+)$/.exec(part);
        if (part === 'up' || part === 'down') bend.direction = part;
        else if (['inside', 'outside', 'mould', 'tangent'].includes(part)) bend.leg_to = part;
        else if (part === 'in') bend.position = 'material_inside';
        else if (part === 'out') bend.position = 'material_outside';
        else if (part === 'beyond') bend.position = 'bend_outside';
        else if (part === 'relief') bend.relief = { shape: 'rectangular' };
        else if (part === 'round relief') bend.relief = { shape: 'obround' };
        else if (inset) bend.set_in = { ...((bend.set_in as object) ?? {}), [inset[2] ?? '']: inset[1] };
        else if (radius) bend.radius = radius[1];
        else bend.angle = part;
      }
      return make('flange', { bend });
    }
    case 'drill': {
      if (lacking(2)) return missing;
      const rest = holePlace(parts.slice(2));
      return typeof rest === 'string' ? { fault: rest } : make('hole', { drill: { panel: parts[0], diameter: parts[1], ...rest } });
    }
    default: {
      if (lacking(3)) return missing;
      const rest = holePlace(parts.slice(3));
      return typeof rest === 'string' ? { fault: rest } : make('cut', { cut: { panel: parts[0], width: parts[1], height: parts[2], ...rest } });
    }
  }
}
