// Flat plate: sheet's work without bends.
import type { KindOfPiece } from '../kind';
import { SHEET } from '../sheet';

export const PLATE: KindOfPiece = {
  ...SHEET,
  key: 'plate',
  heading: (answer) => [answer.heading.thickness],
  stage: { ...SHEET.stage, title: 'Plate', Bar: undefined },
};
