// Flanges along edges.
import { plain } from '../../../bench/edit';
import { keyOf, puts, word, type Change, type Part, type Way } from '../../../bench/parts';
import { verb, type ActionOf } from '../../verb';
import { method, POSITION, relief, setIns, UP_DOWN } from '../common';

const CORNERS: Way[] = [
  ['open', 'open', puts(undefined)],
  ['closed', 'closed square', puts({ closed: { gap: '0.5 mm' } })],
  ['overlapped', 'overlapped, the first named over', puts({ overlapped: { gap: '0.3 mm' } })],
  ['mitred', 'mitred', puts({ mitred: { gap: '0.5 mm' } })],
];

export const BEND = verb<'bend'>({
  key: 'bend',
  phrases: [
    {
      verb: 'bend',
      words:
        'edge, leg (several edges for several flanges, up to … for a leg that reaches something), ' +
        'angle or included or parallel to or square to panel, closed or mitred or overlapped gap, up ' +
        'or down, in or out or beyond, inside, relief, radius …, set in … at side',
      example: 'bend base.back, 60 mm, 90 deg, up',
      read: (parts) => {
        if (parts.length < 2) return undefined;
        const [edge, ...also] = (parts[0] ?? '').split(/\s+(?:and\s+)?/);
        const bend: Record<string, unknown> = {
          edge,
          ...(also.length > 0 ? { also } : {}),
          leg: parts[1],
          angle: '90 deg',
        };
        const reach = /^up to\s+(\S+)(?:\s+less\s+(.+))?$/.exec(parts[1] ?? '');
        if (reach) {
          delete bend.leg;
          bend.up_to = { feature: reach[1], ...(reach[2] ? { gap: reach[2] } : {}) };
        }
        for (const part of parts.slice(2)) {
          const inset = /^set in\s+(.+?)\s+at\s+(\S+)$/.exec(part);
          const radius = /^radius\s+(.+)$/.exec(part);
          const corner = /^(closed|mitred|overlapped)\s+(.+)$/.exec(part);
          const stands = /^(parallel|square) to\s+(\S+)$/.exec(part);
          if (part === 'up' || part === 'down') bend.direction = part;
          else if (['inside', 'outside', 'mould', 'tangent'].includes(part)) bend.leg_to = part;
          else if (part === 'in') bend.position = 'material_inside';
          else if (part === 'out') bend.position = 'material_outside';
          else if (part === 'beyond') bend.position = 'bend_outside';
          else if (part === 'relief') bend.relief = { shape: 'rectangular' };
          else if (part === 'round relief') bend.relief = { shape: 'obround' };
          else if (inset) bend.set_in = { ...((bend.set_in as object) ?? {}), [inset[2] ?? '']: inset[1] };
          else if (radius) bend.radius = radius[1];
          else if (corner) bend.corners = { [corner[1] ?? 'closed']: { gap: corner[2] } };
          else if (part === 'included') bend.angle_is = 'included';
          else if (stands) {
            bend.stands = { [stands[1] ?? 'parallel']: stands[2] };
            delete bend.angle;
          } else bend.angle = part;
        }
        return { stem: 'flange', action: { bend } };
      },
    },
  ],
  sentence: (writer, { sides }) => {
    const { value, choice, whole, get } = writer;
    const also = (get(['also']) as string[] | undefined) ?? [];
    const stands = get(['stands']);
    const parts: Part[] = [word('Bend', true), choice('direction', ['direction'], 'up', UP_DOWN)];
    if (stands !== undefined) {
      const kind = keyOf(stands, 'parallel');
      parts.push(word(`until ${kind} to`), value(`${kind} to`, ['stands', kind as 'parallel'], { names: 'panels' }));
    } else {
      parts.push(value('angle', ['angle']));
      if (get(['angle_is']) === 'included') parts.push(word('included'));
    }
    parts.push(word('along'), value('edge', ['edge'], { names: 'edges' }));
    if (also.length > 0) {
      const kind = keyOf(get(['corners']), 'open');
      parts.push(
        word('and'),
        value('further edges', ['also'], { list: true, optional: true, ghost: 'no other' }),
        word(', corners'),
        whole('corners', ['corners'], 'open', CORNERS),
      );
      if (kind !== 'open') parts.push(word('with a gap of'), value('corner gap', ['corners', kind as 'closed', 'gap']));
      const given = get(['corners', kind as 'closed', 'relief']);
      parts.push(
        whole('corner relief', ['corners', kind as 'closed', 'relief'], 'none', [
          ['none', 'with no relief', puts(undefined)],
          ['round', 'with a round relief of', puts({ round: '2*T' })],
          ['square', 'with a square relief of', puts({ square: '2*T' })],
        ]),
      );
      for (const edge of Object.keys((get(['own']) as object | undefined) ?? {}))
        parts.push(
          word(`; ${edge} by`),
          value(`angle of ${edge}`, ['own', edge, 'angle'], { ghost: 'the same angle', optional: true }),
          word('leg'),
          value(`leg of ${edge}`, ['own', edge, 'leg'], { ghost: 'the same', optional: true }),
        );
      if (given !== undefined)
        parts.push(
          value('corner relief size', ['corners', kind as 'closed', 'relief', keyOf(given, 'round') as 'round']),
        );
    }
    if (get(['up_to']) !== undefined)
      parts.push(
        word(', as far as'),
        value('as far as', ['up_to', 'feature'], { names: 'features' }),
        word('less'),
        value('gap before it', ['up_to', 'gap'], { ghost: '0', optional: true }),
      );
    else
      parts.push(
        word(', leg'),
        value('leg', ['leg']),
        choice('leg measured to', ['leg_to'], 'outside', [
          ['outside', 'outside'],
          ['inside', 'inside'],
          ['mould', 'to the mould line'],
          ['tangent', 'to the tangent'],
        ]),
      );
    parts.push(
      word(','),
      choice('position', ['position'], 'material_inside', POSITION),
      word(', inside radius'),
      value('inside radius', ['radius'], { ghost: 'R', optional: true }),
      ...setIns(writer, sides),
      ...relief(writer),
      ...method(writer),
    );
    return [...parts, word('.')];
  },
  changes: ({ operation, get, edges }) => {
    const all: Change<ActionOf<'bend'>>[] = [];

    const also = (get(['also']) as string[] | undefined) ?? [];
    const own = plain(get(['edge']));
    const panel = own.slice(0, own.lastIndexOf('.'));
    const more = edges.filter(
      (one) => one !== own && !also.includes(one) && one.slice(0, one.lastIndexOf('.')) === panel,
    );
    const next = more[0];
    if (next) all.push({ words: `+ ${next}`, sets: [[['also'], [...also, next]]] });
    if (more.length > 1) all.push({ words: 'along every edge of the panel', sets: [[['also'], [...also, ...more]]] });
    if (also.length > 0)
      all.push({
        words: 'along its first edge alone',
        sets: [
          [['also'], undefined],
          [['corners'], undefined],
        ],
      });
    for (const edge of also.length > 0 ? [own, ...also] : []) {
      if (get(['own', edge]) === undefined)
        all.push({ words: `${edge} with numbers of its own`, sets: [[['own', edge], { leg: '30 mm' }]] });
      else all.push({ words: `${edge} as the others`, sets: [[['own', edge], undefined]] });
    }
    const number = get(['stands']) !== undefined;
    if (number)
      all.push({
        words: 'its angle a number',
        sets: [
          [['stands'], undefined],
          [['angle'], '90 deg'],
        ],
      });
    if (get(['angle_is']) === 'included')
      all.push({ words: 'its angle the bend angle', sets: [[['angle_is'], undefined]] });
    else if (!number) all.push({ words: 'its angle the included angle', sets: [[['angle_is'], 'included']] });
    all.push({
      words: 'parallel to a panel',
      sets: [
        [['angle'], undefined],
        [['angle_is'], undefined],
        [['stands'], { parallel: 'base' }],
      ],
    });
    all.push({
      words: 'square to a panel',
      sets: [
        [['angle'], undefined],
        [['angle_is'], undefined],
        [['stands'], { square: 'base' }],
      ],
    });
    if (get(['up_to']) === undefined)
      all.push({
        words: 'its leg as far as something',
        sets: [
          [['leg'], undefined],
          [
            ['up_to'],
            {
              feature: edges.find((one) => !one.startsWith(`${operation.name}.`) && one.endsWith('.end')) ?? 'base.top',
            },
          ],
        ],
      });
    else
      all.push({
        words: 'its leg a length',
        sets: [
          [['up_to'], undefined],
          [['leg'], '40 mm'],
        ],
      });

    return all;
  },
});
