// What is drawn over a frame's metal: nodes, welds, centre lines.
import type { BuildAnswer } from '../../api/client';
import type { Tag } from '../../bench/tags';
import type { Over } from '../kind';
import { weldSymbol } from './welds';

/** Nodes and lines when they are shown or no member stands yet; welds while their list is open. */
export const frameOver = (answer: BuildAnswer, shown: { lines: boolean; panel: string | null }): Over => ({
  tags: [...nodeTags(answer, shown.lines), ...weldTags(answer, shown.panel === 'welds')],
  wires: wiresOf(answer, shown.lines),
});

/** Nodes by name: all of them when lines are shown or no member stands yet, else none. */
function nodeTags(answer: BuildAnswer, shown: boolean): Tag[] {
  const frame = answer.frame;
  if (!frame) return [];
  const bare = frame.cut_list.length === 0;
  if (!shown && !bare) return [];
  return frame.nodes.slice(0, 120).map((one) => ({
    key: `node-${one.name}`,
    text: one.name,
    pick: one.name,
    node: one.name,
    place: [one.place.x, one.place.y, one.place.z] as [number, number, number],
  }));
}

/** Welds with leg and symbol where they are, while their list is open. */
function weldTags(answer: BuildAnswer, shown: boolean): Tag[] {
  if (!shown) return [];
  return (answer.frame?.welds ?? []).slice(0, 120).map((one) => {
    const { butt, allRound } = weldSymbol(one);
    return {
      key: `weld-${one.mark}`,
      text: `${one.mark} ${butt ? '‖' : '◺'}${one.leg.toFixed(0)}${allRound ? ' ○' : ''}`,
      declutter: true,
      place: [one.place.x, one.place.y, one.place.z] as [number, number, number],
    };
  });
}

/** Centre lines as pairs of places. */
function wiresOf(answer: BuildAnswer, shown: boolean): Float32Array {
  const frame = answer.frame;
  const list: number[] = [];
  for (const line of frame?.lines ?? []) {
    if (!shown && line.has_section) continue;
    line.places.slice(1).forEach((to, index) => {
      const from = line.places[index];
      if (from) list.push(from.x, from.y, from.z, to.x, to.y, to.z);
    });
  }
  return new Float32Array(list);
}
