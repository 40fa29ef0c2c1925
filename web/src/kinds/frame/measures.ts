// What a call-out may measure on a frame.
import { kindOf, type MeasureForm } from '../../bench/parts';

type Inputs = MeasureForm['inputs'];

const AXES = ['x', 'y', 'z'];
const of = (key: string): Inputs => [{ path: ['frame', key, 'member'], label: 'member', list: 'members' }];
const two = (key: string): Inputs => [
  { path: ['frame', key, 'from'], label: 'member', list: 'members' },
  { path: ['frame', key, 'to'], label: 'and member', list: 'members' },
];

export const FRAME_MEASURES: Record<string, MeasureForm> = {
  none: { words: 'nothing yet', start: undefined, inputs: [] },
  overall: {
    words: 'overall size',
    start: { frame: { overall: { along: 'x' } } },
    inputs: [{ path: ['frame', 'overall', 'along'], label: 'along', options: AXES }],
  },
  nodes: {
    words: 'distance of nodes',
    start: { frame: { nodes: { from: '', to: '' } } },
    inputs: [
      { path: ['frame', 'nodes', 'from'], label: 'from', list: 'nodes' },
      { path: ['frame', 'nodes', 'to'], label: 'to', list: 'nodes' },
      { path: ['frame', 'nodes', 'along'], label: 'along', options: ['', ...AXES] },
    ],
  },
  diagonals: {
    words: 'difference of diagonals',
    start: { frame: { diagonals: { one: ['', ''], two: ['', ''] } } },
    inputs: [
      { path: ['frame', 'diagonals', 'one', 0], label: 'first from', list: 'nodes' },
      { path: ['frame', 'diagonals', 'one', 1], label: 'first to', list: 'nodes' },
      { path: ['frame', 'diagonals', 'two', 0], label: 'second from', list: 'nodes' },
      { path: ['frame', 'diagonals', 'two', 1], label: 'second to', list: 'nodes' },
    ],
  },
  opening: { words: 'clear opening', start: { frame: { opening: { from: '', to: '' } } }, inputs: two('opening') },
  faces: {
    words: 'distance of faces',
    start: { frame: { faces: { from: '', to: '' } } },
    inputs: [
      { path: ['frame', 'faces', 'from'], label: 'face', list: 'faces' },
      { path: ['frame', 'faces', 'to'], label: 'and face', list: 'faces' },
    ],
  },
  clearance: {
    words: 'clearance of two pieces',
    start: { frame: { clearance: { from: '', to: '' } } },
    inputs: [
      { path: ['frame', 'clearance', 'from'], label: 'piece', list: 'pieces' },
      { path: ['frame', 'clearance', 'to'], label: 'and piece', list: 'pieces' },
    ],
  },
  between: {
    words: 'angle between members',
    start: { frame: { between: { from: '', to: '' } } },
    inputs: two('between'),
  },
  member_length: {
    words: 'length of a member',
    start: { frame: { member_length: { member: '' } } },
    inputs: of('member_length'),
  },
  short_length: {
    words: 'its length, short points',
    start: { frame: { short_length: { member: '' } } },
    inputs: of('short_length'),
  },
  end_angle: {
    words: "angle of a member's end",
    start: { frame: { end_angle: { member: '' } } },
    inputs: of('end_angle'),
  },
  frame_mass: { words: 'mass', start: { frame: { frame_mass: {} } }, inputs: [] },
  frame_centre: {
    words: 'centre of gravity',
    start: { frame: { frame_centre: { along: 'x' } } },
    inputs: [{ path: ['frame', 'frame_centre', 'along'], label: 'along', options: AXES }],
  },
  member_count: {
    words: 'number of members',
    start: { frame: { member_count: { member: '' } } },
    inputs: of('member_count'),
  },
};

/** The key of a measure: the one inside of a frame's. */
export const frameMeasureOf = (value: unknown): string =>
  kindOf(value !== null && typeof value === 'object' && 'frame' in value ? value.frame : value);
