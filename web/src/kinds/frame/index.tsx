// Welded frame: centre lines with sections on them.
import type { BuildAnswer } from '../../api/client';
import { FigureText } from '../../bench/FigureText';
import type { KindOfPiece } from '../kind';
import { BarsBrief, BarsPanel } from './Bars';
import { CentreLines } from './CentreLines';
import { CutListPanel, WeldsPanel } from './CutList';
import { frameMarks, MachineFiles } from './Files';
import { FrameStock } from './FrameSentence';
import { LinesBar } from './LinesBar';
import { FRAME_MEASURES, frameMeasureOf } from './measures';
import { frameOver } from './over';
import { Pieces } from './Pieces';
import { SectionTools } from './SectionPicker';
import { withShopSections } from './shopSections';
import { FRAME_VERBS } from './verbs';

/**
 * The piece that a face is of: a face alone of a slender tube would hardly be seen lit. Holes are taken by
 * themselves.
 */
function pieceOf({ names }: BuildAnswer, face: string): string {
  if (names.made_by[face]) return face;
  const own = names.pieces.filter((piece) => face === piece || face.startsWith(`${piece}.`));
  return own.sort((one, two) => two.length - one.length)[0] ?? face;
}

const Size = () => <FigureText keys={['size']} />;
const Members = () => <FigureText keys={['members']} />;
const Welds = () => <FigureText keys={['welds']} />;

export const FRAME: KindOfPiece = {
  key: 'frame',
  verbs: FRAME_VERBS,
  measures: FRAME_MEASURES,
  measureOf: frameMeasureOf,
  complete: withShopSections,
  words: {
    verbs: '/ — frame, line, put, joint, end, bore, gusset, base…',
    example: 'put SHS 50x50x3, on table',
    empty: 'A frame is laid out by its centre lines first; then sections go on them, and joints settle the corners.',
    first: 'frame table, 1200 mm, 700 mm, 850 mm',
  },
  FromFile: CentreLines,
  RowTools: SectionTools,
  Stock: FrameStock,
  heading: () => [],
  cuts: false,
  stage: {
    title: 'Frame',
    label: 'The frame; its members are listed as pieces below',
    nothing: 'No lines yet: lay a ready frame, or lines from node to node.',
    Bar: LinesBar,
    panels: false,
    pick: pieceOf,
    over: frameOver,
    Below: Pieces,
  },
  strip: [
    { panel: 'cutlist', label: 'overall size', Body: Size },
    { panel: 'cutlist', label: 'members · lines', Body: Members },
    { panel: 'bars', label: 'bars', Body: BarsBrief },
    { panel: 'welds', label: 'welds', Body: Welds },
  ],
  panels: [
    { panel: 'cutlist', title: 'Cut list', Body: CutListPanel },
    { panel: 'bars', title: 'Bars', Body: BarsPanel },
    { panel: 'welds', title: 'Welds', Body: WeldsPanel },
  ],
  files: { marks: frameMarks, More: MachineFiles },
};
