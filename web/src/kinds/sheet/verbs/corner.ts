// Corners rounded, clipped or notched.
import { plain } from '../../../bench/edit';
import { keyOf, puts, word, type Change, type Part } from '../../../bench/parts';
import { verb, type ActionOf } from '../../verb';

/** Reads a typed corner: "corner base, front/right, round 10 mm". */
export function readCorner(parts: string[]): Record<string, unknown> | string {
  const [panel, ...rest] = parts;
  const action: Record<string, unknown> = { panel };
  const where: string[] = [];
  for (const part of rest) {
    let found: RegExpExecArray | null;
    if ((found = /^round\s+(.+)$/.exec(part))) action.shape = { round: found[1] };
    else if ((found = /^chamfer\s+(.+?)(?:\s+(by|at)\s+(.+))?$/.exec(part)))
      action.shape = {
        chamfer: { leg: found[1], ...(found[3] ? { [found[2] === 'by' ? 'other' : 'angle']: found[3] } : {}) },
      };
    else if ((found = /^notch\s+(.+?)\s+by\s+(.+?)(?:\s+corner\s+(.+))?$/.exec(part)))
      action.shape = { notch: { width: found[1], depth: found[2], ...(found[3] ? { corner: found[3] } : {}) } };
    else if (part === 'full round') action.shape = 'full_round';
    else if (/^[\w.-]+(\/[\w.-]+)?$/.test(part)) where.push(part);
    else
      return (
        `"${part}" is not understood; say "round 10 mm", "chamfer 12 mm", "notch 15 mm by 8 mm" or a ` +
        `corner such as front/right`
      );
  }
  if (!action.shape) return 'Say what is done: "round 10 mm", "chamfer 12 mm", "notch 15 mm by 8 mm" or "full round".';
  return where.length > 0 ? { ...action, at: where } : action;
}

export const CORNER = verb<'corner'>({
  key: 'corner',
  phrases: [
    {
      verb: 'corner',
      words:
        'panel, corners such as front/right (all where none), round radius or chamfer leg or ' +
        'notch width by depth (corner radius)',
      example: 'corner base, round 10 mm',
      read: (parts) => {
        if (parts.length < 2) return undefined;
        const corner = readCorner(parts);
        return typeof corner === 'string' ? corner : { stem: 'corner', action: { corner } };
      },
    },
  ],
  sentence: (writer) => {
    const { value, whole, get } = writer;
    const kind = keyOf(get(['shape']), 'round');
    const where = (get(['at']) as string[] | undefined) ?? [];
    const parts: Part[] = [
      whole('corner shape', ['shape'], 'round', [
        ['round', 'Round', puts({ round: '10 mm' })],
        ['chamfer', 'Chamfer', puts({ chamfer: { leg: '10 mm' } })],
        ['notch', 'Notch', puts({ notch: { width: '10 mm', depth: '10 mm' } })],
        ['full_round', 'Round fully'],
      ]),
      word(
        where.length === 0
          ? 'every corner of'
          : kind === 'full_round'
            ? 'the end'
            : where.length === 1
              ? 'the corner'
              : 'the corners',
      ),
    ];
    where.forEach((_, index) =>
      parts.push(...(index > 0 ? [word('and')] : []), value(`corner ${index + 1}`, ['at', index])),
    );
    if (where.length > 0) parts.push(word('of'));
    parts.push(value('panel', ['panel'], { names: 'panels' }));
    if (kind === 'round') parts.push(word(', radius'), value('radius', ['shape', 'round']));
    if (kind === 'chamfer') {
      parts.push(word(','), value('leg', ['shape', 'chamfer', 'leg']));
      if (get(['shape', 'chamfer', 'angle']) !== undefined)
        parts.push(word('at'), value('angle', ['shape', 'chamfer', 'angle']));
      else
        parts.push(
          word('by'),
          value('other leg', ['shape', 'chamfer', 'other'], { ghost: 'the same', optional: true }),
        );
    }
    if (kind === 'notch')
      parts.push(
        word(','),
        value('notch width', ['shape', 'notch', 'width']),
        word('by'),
        value('notch depth', ['shape', 'notch', 'depth']),
        word(', inner corner'),
        value('radius of its corner', ['shape', 'notch', 'corner'], { ghost: 'sharp', optional: true }),
      );
    return [...parts, word('.')];
  },
  changes: ({ get, edges }) => {
    const panel = plain(get(['panel']) ?? 'base');
    const all: Change<ActionOf<'corner'>>[] = [];
    const toggle = (path: ['shape', 'chamfer', 'angle'], value: unknown, add: string, without: string) =>
      all.push(
        get(path) === undefined ? { words: add, sets: [[path, value]] } : { words: without, sets: [[path, undefined]] },
      );

    const where = (get(['at']) as string[] | undefined) ?? [];
    const own = edges.filter((edge) => edge.startsWith(`${panel}.`)).map((edge) => edge.slice(panel.length + 1));
    all.push({
      words: where.length === 0 ? 'only one corner' : 'another corner',
      sets: [[['at'], [...where, `${own[0] ?? 'front'}/${own[1] ?? 'right'}`]]],
    });
    if (where.length > 1) all.push({ words: 'one corner fewer', sets: [[['at'], where.slice(0, -1)]] });
    if (where.length > 0) all.push({ words: 'every corner', sets: [[['at'], undefined]] });
    if (get(['shape', 'chamfer']) !== undefined)
      toggle(['shape', 'chamfer', 'angle'], '45 deg', 'by its angle', 'by its legs');
    return all;
  },
});
