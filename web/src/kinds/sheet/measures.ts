// What a call-out may measure on a plate or a sheet part.
import type { MeasureForm } from '../../bench/parts';

type Inputs = MeasureForm['inputs'];

const AXES = ['x', 'y', 'z'];
const LEGS = ['outside', 'inside', 'mould', 'tangent'];
const along = (key: string): Inputs => [{ path: [key, 'along'], label: 'along', options: AXES }];

export const SHEET_MEASURES: Record<string, MeasureForm> = {
  none: { words: 'nothing yet', start: undefined, inputs: [] },
  distance: {
    words: 'distance',
    start: { distance: { from: '', to: '' } },
    inputs: [
      { path: ['distance', 'from'], label: 'from', list: 'features' },
      { path: ['distance', 'to'], label: 'to', list: 'features' },
      { path: ['distance', 'along'], label: 'along', options: ['', ...AXES] },
    ],
  },
  size: { words: 'overall folded size', start: { size: { along: 'x' } }, inputs: along('size') },
  leg: {
    words: 'leg of a bend',
    start: { leg: { bend: '', to: 'outside' } },
    inputs: [
      { path: ['leg', 'bend'], label: 'bend', list: 'bends' },
      { path: ['leg', 'to'], label: 'measured to', options: LEGS },
    ],
  },
  angle: {
    words: 'angle between panels',
    start: { angle: { from: '', to: '' } },
    inputs: [
      { path: ['angle', 'from'], label: 'panel', list: 'panels' },
      { path: ['angle', 'to'], label: 'and panel', list: 'panels' },
    ],
  },
  bend_angle: {
    words: 'bend angle',
    start: { bend_angle: { bend: '' } },
    inputs: [{ path: ['bend_angle', 'bend'], label: 'bend', list: 'bends' }],
  },
  inside_radius: {
    words: 'inside radius',
    start: { inside_radius: { bend: '' } },
    inputs: [{ path: ['inside_radius', 'bend'], label: 'bend', list: 'bends' }],
  },
  diameter: {
    words: 'hole diameter',
    start: { diameter: { hole: '' } },
    inputs: [{ path: ['diameter', 'hole'], label: 'hole', list: 'holes' }],
  },
  edge_length: {
    words: 'length of an edge',
    start: { edge_length: { edge: '' } },
    inputs: [{ path: ['edge_length', 'edge'], label: 'edge', list: 'edges' }],
  },
  edge_radius: {
    words: 'radius of a round edge',
    start: { edge_radius: { edge: '' } },
    inputs: [{ path: ['edge_radius', 'edge'], label: 'edge', list: 'edges' }],
  },
  hole_size: {
    words: 'size of a hole',
    start: { hole_size: { hole: '', along: 'x' } },
    inputs: [
      { path: ['hole_size', 'hole'], label: 'hole', list: 'holes' },
      { path: ['hole_size', 'along'], label: 'along', options: ['x', 'y'] },
    ],
  },
  hole_count: {
    words: 'number of holes',
    start: { hole_count: { hole: '' } },
    inputs: [{ path: ['hole_count', 'hole'], label: 'operation', list: 'holes' }],
  },
  floor: {
    words: 'metal under a blind hole',
    start: { floor: { hole: '' } },
    inputs: [{ path: ['floor', 'hole'], label: 'hole', list: 'holes' }],
  },
  head_depth: {
    words: 'depth of a head',
    start: { head_depth: { hole: '' } },
    inputs: [{ path: ['head_depth', 'hole'], label: 'hole', list: 'holes' }],
  },
  form_height: {
    words: 'height of a form',
    start: { form_height: { form: '' } },
    inputs: [{ path: ['form_height', 'form'], label: 'form', list: 'forms' }],
  },
  rim: {
    words: 'least metal from a rim',
    start: { rim: { hole: '', to: '' } },
    inputs: [
      { path: ['rim', 'hole'], label: 'hole', list: 'holes' },
      { path: ['rim', 'to'], label: 'to', list: 'rims' },
    ],
  },
  hole_area: {
    words: 'area of a hole',
    start: { hole_area: { hole: '' } },
    inputs: [{ path: ['hole_area', 'hole'], label: 'hole', list: 'holes' }],
  },
  hole_cut_length: {
    words: 'length of the cut of a hole',
    start: { hole_cut_length: { hole: '' } },
    inputs: [{ path: ['hole_cut_length', 'hole'], label: 'hole', list: 'holes' }],
  },
  panel_area: {
    words: 'area of a panel',
    start: { panel_area: { panel: '' } },
    inputs: [{ path: ['panel_area', 'panel'], label: 'panel', list: 'panels' }],
  },
  panel_cut_length: {
    words: 'cut length of a panel',
    start: { panel_cut_length: { panel: '' } },
    inputs: [{ path: ['panel_cut_length', 'panel'], label: 'panel', list: 'panels' }],
  },
  edge_angle: {
    words: 'angle between edges, flat',
    start: { edge_angle: { from: '', to: '' } },
    inputs: [
      { path: ['edge_angle', 'from'], label: 'edge', list: 'edges' },
      { path: ['edge_angle', 'to'], label: 'and edge', list: 'edges' },
    ],
  },
  setback: {
    words: 'setback of a bend',
    start: { setback: { bend: '' } },
    inputs: [{ path: ['setback', 'bend'], label: 'bend', list: 'bends' }],
  },
  seam_length: {
    words: 'length of a seam',
    start: { seam_length: { seam: '' } },
    inputs: [{ path: ['seam_length', 'seam'], label: 'seam', list: 'operations' }],
  },
  weld_length: {
    words: 'length of the weld of a seam',
    start: { weld_length: { seam: '' } },
    inputs: [{ path: ['weld_length', 'seam'], label: 'seam', list: 'operations' }],
  },
  thickness: { words: 'thickness', start: 'thickness', inputs: [] },
  blank_size: {
    words: 'blank size',
    start: { blank_size: { along: 'x' } },
    inputs: [{ path: ['blank_size', 'along'], label: 'along', options: ['x', 'y'] }],
  },
  cut_length: { words: 'cut length', start: 'cut_length', inputs: [] },
  pierces: { words: 'pierces', start: 'pierces', inputs: [] },
  net_area: { words: 'net area', start: 'net_area', inputs: [] },
  mass: { words: 'mass', start: 'mass', inputs: [] },
  undrilled_mass: { words: 'mass before drilling', start: 'undrilled_mass', inputs: [] },
  centre_of_gravity: {
    words: 'centre of gravity',
    start: { centre_of_gravity: { along: 'x' } },
    inputs: along('centre_of_gravity'),
  },
  folded_volume: { words: 'folded volume', start: 'folded_volume', inputs: [] },
};
