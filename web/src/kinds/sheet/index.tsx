// Bent sheet.
import { lazy } from 'react';
import { FigureText } from '../../bench/FigureText';
import { at } from '../../bench/edit';
import { kindOf } from '../../bench/parts';
import { useBench } from '../../bench/store';
import type { KindOfPiece } from '../kind';
import { Blank } from './Blank';
import { BlankTables } from './BlankTables';
import { blankMarks, ToCutting, Template } from './Files';
import { FoldBar } from './FoldBar';
import { FromFile } from './FromFile';
import { SHEET_MEASURES } from './measures';
import { drawnPath } from './outline';
import { withShopScrews } from './shopScrews';
import { SheetLies, SheetStock } from './Stock';
import { SHEET_VERBS } from './verbs';

const OutlineStage = lazy(() => import('./OutlineStage'));
const BlankSize = () => {
  const several = useBench((s) => (s.answer?.blank?.sheets.length ?? 0) > 0);
  return <FigureText keys={[several ? 'sheets' : 'blank']} />;
};
const CutLength = () => <FigureText keys={['cut_length', 'pierces']} />;

export const SHEET: KindOfPiece = {
  key: 'sheet',
  verbs: SHEET_VERBS,
  measures: SHEET_MEASURES,
  measureOf: kindOf,
  complete: withShopScrews,
  words: {
    verbs: '/ — lay down, profile, roll, bend, hem, drill, cut…',
    example: 'bend base.back, 60 mm, 90 deg',
    empty: 'A piece is built step by step: lay down a base, bend flanges along its edges, drill and cut.',
    first: 'lay down 120 mm, 80 mm',
  },
  FromFile,
  Stock: SheetStock,
  Lies: SheetLies,
  heading: (answer) => [answer.heading.thickness, answer.heading.method],
  cuts: true,
  stage: {
    title: 'Folded',
    label: 'Folded part; its panels are named on it and listed under Blank below',
    nothing: 'Nothing to fold yet: lay down a base.',
    Bar: FoldBar,
    panels: true,
    // A panel or a bend with both its faces; a wall by itself.
    pick: (_, face) => face.replace(/(\.bend)?\.(top|bottom)$/, ''),
    Below: Blank,
    own: {
      takes: (piece, index) => at(piece, drawnPath(piece.operations?.[index]?.name ?? '')) !== undefined,
      Stage: OutlineStage,
    },
  },
  strip: [
    {
      panel: 'blank',
      label: 'blank',
      Body: BlankSize,
      labelOf: (answer) => (answer?.blank?.sheets.length ? 'sheets' : 'blank'),
    },
    { panel: 'blank', label: 'cut length · pierces', Body: CutLength },
  ],
  panels: [{ panel: 'blank', title: 'Blank: edges, holes, bends', Body: BlankTables }],
  files: { marks: blankMarks, forms: { 'template.pdf': Template }, More: ToCutting },
};
