// How members meet.
import { keyOf, puts, word, type Part } from '../../../bench/parts';
import { verb } from '../../verb';
import { names, tagged } from '../common';

export const JOINT = verb<'joint'>({
  key: 'joint',
  phrases: [
    {
      verb: 'joint',
      words: 'corners, tees, all or nodes, mitre (between …) or butt (through …) or trim or cope or pass, gap …',
      example: 'joint all, mitre',
      read: (parts) => {
        const [one] = parts;
        const where = (one ?? '').toLowerCase();
        const at = ['corners', 'tees', 'all'].includes(where) ? where : where ? { nodes: names(one) } : undefined;
        const kind = parts
          .slice(1)
          .map((part) => /^(mitre|butt|trim|cope|pass)\b/.exec(part)?.[1])
          .find(Boolean);
        if (!at || !kind) return undefined;
        const strange = parts
          .slice(1)
          .find(
            (part) =>
              !/^(?:(?:mitre|butt|trim|cope|pass)(?:\s+(?:through|between)\s+.+)?|(?:through|between|gap)\s+.+)$/.test(
                part,
              ),
          );
        if (strange)
          return (
            `"${strange}" is not understood; say mitre, butt, trim, cope or pass, then "through ..." of a ` +
            `butt, "between ..." of a mitre, "gap ..."`
          );
        const between = names(parts.map((part) => /between\s+(.+)$/.exec(part)?.[1]).find(Boolean));
        const through = names(parts.map((part) => /through\s+(.+)$/.exec(part)?.[1]).find(Boolean));
        const gap = tagged(parts, 'gap');
        return {
          stem: 'joint',
          action: {
            joint: {
              at,
              how: {
                [kind]: {
                  ...(kind === 'butt' && through.length > 0 ? { through } : {}),
                  ...(kind === 'mitre' && between.length > 0 ? { between } : {}),
                  ...(gap ? { gap } : {}),
                },
              },
            },
          },
        };
      },
    },
  ],
  sentence: (writer) => {
    const { value, whole, yes, get } = writer;
    const [where, how] = [keyOf(get(['at'])), keyOf(get(['how']))];
    const parts: Part[] = [
      word('Joint', true),
      word('at'),
      whole('where the joint is', ['at'], 'corners', [
        ['corners', 'every corner'],
        ['tees', 'every tee'],
        ['all', 'every corner and tee'],
        ['nodes', 'these nodes', puts({ nodes: [] })],
      ]),
    ];
    if (where === 'nodes') parts.push(value('nodes', ['at', 'nodes'], { names: 'nodes', list: true }));
    parts.push(
      word(':'),
      whole('how they meet', ['how'], 'mitre', [
        ['mitre', 'mitred', puts({ mitre: {} })],
        ['butt', 'butted', puts({ butt: {} })],
        ['trim', 'trimmed to what runs on', puts({ trim: {} })],
        ['cope', 'fitted into the outline of what runs on', puts({ cope: {} })],
        ['pass', 'the thinner round one through a bore of the other', puts({ pass: {} })],
      ]),
    );
    if (how === 'mitre')
      parts.push(
        word(', between'),
        value('what is mitred', ['how', 'mitre', 'between'], {
          ghost: 'those alike',
          optional: true,
          names: 'members',
          list: true,
        }),
      );
    if (how === 'butt')
      parts.push(
        word(', running through first'),
        value('what runs through', ['how', 'butt', 'through'], {
          ghost: 'the order of the work',
          optional: true,
          names: 'members',
          list: true,
        }),
        word(','),
        yes('where the through one ends', ['how', 'butt', 'to_node'], 'flush with the other', 'at the node'),
      );
    return [
      ...parts,
      word(', gap'),
      value('gap', ['how', how as 'mitre', 'gap'], { ghost: '0', optional: true }),
      word('.'),
    ];
  },
});
