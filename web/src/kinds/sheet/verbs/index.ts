// The one list of verbs of sheet on the bench, in the order that they are offered.
import type { VerbRow } from '../../verb';
import { LAY_DOWN } from './lay_down';
import { PROFILE } from './profile';
import { ROLL } from './roll';
import { BEND } from './bend';
import { HEM } from './hem';
import { JOGGLE } from './joggle';
import { CREASE } from './crease';
import { NOTCH } from './notch';
import { TAB } from './tab';
import { SLOTS } from './slots';
import { AGAIN } from './again';
import { DRILL } from './drill';
import { CUT } from './cut';
import { CORNER } from './corner';

export const SHEET_VERBS: VerbRow[] = [
  LAY_DOWN,
  BEND,
  PROFILE,
  ROLL,
  HEM,
  JOGGLE,
  CREASE,
  NOTCH,
  TAB,
  SLOTS,
  AGAIN,
  DRILL,
  CUT,
  CORNER,
];
