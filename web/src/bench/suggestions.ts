// The names that a value of a sentence may be one of.
import { useSections } from './sections';
import { useShopFrames } from '../shop/useShopFrames';
import { useShopScrews } from '../shop/useShopScrews';
import { useStock } from './stock';
import { useBench } from './store';
import type { Part } from './parts';

type Value = Extract<Part, { kind: 'value' }>;

/** Names typed one after another; none takes the field out. */
export function namesIn(text: string | undefined): string[] | undefined {
  const list = (text ?? '').split(/[,\s]+/).filter(Boolean);
  return list.length > 0 ? list : undefined;
}

/** What is suggested for a value of an operation: names that there are at its step. */
export function useSuggestions(operation: string | undefined): (part: Value) => string[] | undefined {
  const names = useBench((s) => s.answer?.names);
  const list = useBench((s) => s.document?.operations);
  const isFrame = useBench((s) => s.document?.kind === 'frame');
  const sections = useSections(isFrame).data ?? [];
  const shops = useShopFrames(isFrame).data?.settings.sections ?? [];
  const screws = useShopScrews(!isFrame).data?.screws ?? [];
  const stock = useStock().data;
  const heads = (head: 'flat' | 'socket') =>
    [...screws, ...(stock?.screws ?? [])].filter((one) => one.head === head).map((one) => one.size);
  const own = (list ?? []).findIndex((one) => one.name === operation);
  const done = (list ?? []).slice(0, own < 0 ? undefined : own).map((one) => one.name);
  return (part) => {
    if (!names) return undefined;
    switch (part.names) {
      case 'edges':
        return names.edges;
      case 'panels':
        return names.panels;
      case 'bends':
        return names.bends;
      case 'holes':
        return names.holes;
      case 'operations':
        return done;
      case 'nodes':
        return names.nodes;
      case 'lines3':
        return names.lines;
      case 'members':
        return names.members;
      case 'sections':
        return [...shops, ...sections].map((one) => one.name);
      case 'flat heads':
        return heads('flat');
      case 'socket heads':
        return heads('socket');
      case 'materials':
        return stock?.materials.map((one) => one.name);
      case 'features':
        return [...names.edges, ...names.panels.flatMap((one) => [`${one}.top`, `${one}.bottom`])];
      case 'lines':
        return [
          ...names.edges,
          ...names.bends.flatMap((one) => [`${one}.mould-outside`, `${one}.mould-inside`, `${one}.tangent`]),
        ];
      default:
        return undefined;
    }
  };
}
