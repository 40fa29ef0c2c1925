// A small picture of a step, drawn as a shop would sketch it: metal as a line, what the step makes in copper.
import type { Schemas } from '../api/client';

type Offer = Pick<Schemas['Offer'], 'action'>;

/** What is there, and what the step makes of it; 24 by 24. */
const PICTURES: Record<string, [metal: string, made: string]> = {
  lay_down: ['', 'M3 17L9 9H21L15 17Z'],
  'lay_down.circle': ['', 'M12 7C17 7 21 9.2 21 12S17 17 12 17S3 14.8 3 12S7 7 12 7Z'],
  'lay_down.obround': ['', 'M7 8H17A4 4 0 0 1 17 16H7A4 4 0 0 1 7 8Z'],
  profile: ['', 'M4 6V18H20V6'],
  roll: ['', 'M4 18A9 9 0 0 1 20 18'],
  'roll.tube': ['', 'M13 4.1A8 8 0 1 1 11 4.1'],
  transition: ['M3 20H21M8 5H16', 'M3 20L8 5M21 20L16 5'],
  bend: ['M3 19H17', 'M17 19Q20 19 20 16V5'],
  hem: ['M3 17H17', 'M17 17Q20.5 17 20.5 14.5Q20.5 12 17 12H11'],
  joggle: ['M3 18H10', 'M10 18L14 11H21'],
  crease: ['M3 19H11', 'M11 19L19 8'],
  notch: ['M3 8H8M16 8H21V20H3V8', 'M8 8V14H16V8'],
  tab: ['M3 12H8M16 12H21V20H3V12', 'M8 12V6H16V12'],
  slots: ['M3 6H21V19H3Z', 'M7 11H11V13.5H7ZM14 11H18V13.5H14Z'],
  drill: ['M3 6H21V19H3Z', 'M12 9A3.5 3.5 0 1 0 12.01 9Z'],
  cut: ['M3 6H21V19H3Z', 'M9 10H15A2.5 2.5 0 0 1 15 15H9A2.5 2.5 0 0 1 9 10Z'],
  form: ['M3 17H8M16 17H21', 'M8 17L10 10H14L16 17'],
  rib: ['M5 4V19H20', 'M5 8L16 19'],
  'form.louvre': ['M3 17H7M18 17H21', 'M7 17L18 8'],
  'form.bead': ['M3 17H7M17 17H21', 'M7 17L9.5 11H14.5L17 17'],
  'form.dimple': ['M3 17H7M17 17H21', 'M7 17C8 11 16 11 17 17'],
  'form.extruded': ['M3 17H8M16 17H21', 'M8 17V8M16 17V8'],
  'form.knock_out': ['M3 17H7V14M17 14V17H21', 'M7 11H17V14H7Z'],
  corner: ['M3 19V5H12M20 13V19H3', 'M12 5A8 8 0 0 1 20 13'],
  again: ['M4 7H9V17H4ZM12 4V20', 'M15 7H20V17H15Z'],
  split: ['M3 7H10V17H3ZM14 7H21V17H14Z', 'M12 3V21'],
  seam: ['M3 7H11V17H3M21 7H13V17H21', 'M9 9L15 11M9 12L15 14M9 15L15 17'],
  node: ['M3 12H21', 'M12 9.5A2.5 2.5 0 1 0 12.01 9.5Z'],
  path: ['', 'M4 19L9 7L20 10'],
  divide: ['M3 12H21', 'M9 8V16M15 8V16'],
  round: ['M4 20V12M12 4H20', 'M4 12A8 8 0 0 1 12 4'],
  lines: ['', 'M4 18L12 6L20 18M8 12H16'],
  ready: ['', 'M4 8H20M6 8V20M18 8V20M6 16H18'],
  copy: ['M4 6V18', 'M12 6V18M20 6V18'],
  member: ['M3 12H21', 'M3 8H21V16H3Z'],
  joint: ['M4 20V9L9 4H20', 'M4 9H9V4M4 4L9 9'],
  end: ['M3 8H14M3 16H18M3 8V16', 'M14 6L19 18'],
  bore: ['M3 8H21V16H3Z', 'M12 10A2 2 0 1 0 12.01 10Z'],
  end_notch: ['M3 7H15V12H21V17H3Z', 'M15 7V12H21'],
  plate: ['M5 4V20M5 20H20', 'M5 9V20H16Z'],
};

/** The verb of an action, its one key; and its shape where one picture would not do for all. */
function keysOf(action: object): [verb: string, shape: string] {
  const [verb, fields] = (Object.entries(action) as [string, object][])[0] ?? ['', {}];
  const { shape, span } = fields as { shape?: object; span?: object };
  return [verb, `${verb}.${Object.keys(shape ?? span ?? {})[0] ?? ''}`];
}

export function VerbPicture({ of, size = 24 }: { of: Offer; size?: number }) {
  const [verb, shape] = keysOf(of.action);
  const [metal, made] = PICTURES[shape] ?? PICTURES[verb] ?? ['', ''];
  return (
    <svg className="verbpicture" viewBox="0 0 24 24" width={size} height={size} aria-hidden="true">
      <path d={metal} />
      <path className="made" d={made} />
    </svg>
  );
}
