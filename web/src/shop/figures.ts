// The figures that the shop's rules go by, by their paths in the settings.
import type { Schemas } from '../api/client';

type Settings = Schemas['ShopRules'];

/** A figure of the settings, with its unit. */
export interface Figure {
  path: string;
  label: string;
  unit: string;
}

export const FIGURES: Figure[] = [
  { path: 'asks.edge.laser', label: 'hole to edge, cut by laser', unit: 'T' },
  { path: 'asks.edge.plasma', label: 'hole to edge, cut by plasma', unit: 'T' },
  { path: 'asks.edge.waterjet', label: 'hole to edge, cut by waterjet', unit: 'T' },
  { path: 'asks.edge.oxy_fuel', label: 'hole to edge, cut by oxy-fuel', unit: 'T' },
  { path: 'asks.edge.punch', label: 'hole to edge, punched', unit: 'T' },
  { path: 'asks.punched_hole', label: 'least hole that is punched', unit: 'T' },
  { path: 'asks.bend', label: 'round hole to a bend', unit: 'T' },
  { path: 'asks.slot_bend', label: "cut-out's straight edge to a bend", unit: 'T' },
  { path: 'asks.leg_of_die', label: 'least leg at 90 deg', unit: 'V' },
  { path: 'asks.hem', label: 'least hem', unit: 'T' },
  { path: 'asks.trim_mm', label: 'trim all round on a sheet', unit: 'mm' },
  { path: 'brake.length_mm', label: "between the brake's frames", unit: 'mm' },
  { path: 'brake.force_kn', label: "the brake's force", unit: 'kN' },
  { path: 'brake.punch_mm', label: 'width of its straight punch', unit: 'mm' },
  { path: 'saw.angle_deg', label: 'the saw turns from square to', unit: 'deg' },
  { path: 'saw.hold_mm', label: 'least short point that its vice holds', unit: 'mm' },
];

/** The figure at a path. */
export function figureAt(settings: Settings, path: string): number {
  let at: unknown = settings;
  for (const key of path.split('.')) at = (at as Record<string, unknown>)[key];
  return at as number;
}

/** The settings with another figure at a path. */
export function withFigure(settings: Settings, path: string, value: number): Settings {
  const set = (part: unknown, keys: string[]): unknown => {
    const [key, ...rest] = keys;
    if (key === undefined) return value;
    const known = part as Record<string, unknown>;
    return { ...known, [key]: set(known[key], rest) };
  };
  return set(settings, path.split('.')) as Settings;
}

/** A figure as people type it, with its unit or without; lengths in inches too. `null` where it is none. */
export function readFigure(text: string, unit: string): number | null {
  const read = /^\s*(\d+(?:[.,]\d*)?|[.,]\d+)\s*([a-zA-Z"°]*)\s*$/.exec(text);
  if (!read?.[1]) return null;
  const value = Number(read[1].replace(',', '.'));
  if (!Number.isFinite(value)) return null;
  const own = (read[2] ?? '').toLowerCase();
  if (own === '' || own === unit.toLowerCase() || (unit === 'deg' && own === '°')) return value;
  if (unit === 'mm' && (own === 'in' || own === '"')) return Number((value * 25.4).toFixed(6));
  if (unit === 'mm' && own === 'm') return Number((value * 1000).toFixed(6));
  return null;
}
