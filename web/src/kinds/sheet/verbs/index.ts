// The one list of verbs of sheet on the bench, in the order that they are offered.
import type { VerbRow } from '../../verb';
import { AGAIN } from './again';
import { BEND } from './bend';
import { CORNER } from './corner';
import { CREASE } from './crease';
import { CUT } from './cut';
import { DRILL } from './drill';
import { FORM } from './form';
import { HEM } from './hem';
import { JOGGLE } from './joggle';
import { LAY_DOWN } from './lay_down';
import { NOTCH } from './notch';
import { PROFILE } from './profile';
import { RIB } from './rib';
import { ROLL } from './roll';
import { SEAM } from './seam';
import { SLOTS } from './slots';
import { SPLIT } from './split';
import { TAB } from './tab';
import { TRANSITION } from './transition';

export const SHEET_VERBS: VerbRow[] = [
  LAY_DOWN,
  BEND,
  PROFILE,
  ROLL,
  TRANSITION,
  HEM,
  JOGGLE,
  CREASE,
  NOTCH,
  TAB,
  SLOTS,
  AGAIN,
  DRILL,
  CUT,
  FORM,
  RIB,
  CORNER,
  SPLIT,
  SEAM,
];
