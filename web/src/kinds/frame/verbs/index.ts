// The one list of verbs of frames on the bench, in the order that they are offered.
import type { VerbRow } from '../../verb';
import { BORE } from './bore';
import { COPY } from './copy';
import { DIVIDE } from './divide';
import { END } from './end';
import { END_NOTCH } from './end_notch';
import { JOINT } from './joint';
import { LINES } from './lines';
import { MEMBER } from './member';
import { NODE } from './node';
import { PATH } from './path';
import { PLATE } from './plate';
import { READY_FRAME } from './ready';
import { ROUND } from './round';

export const FRAME_VERBS: VerbRow[] = [
  READY_FRAME,
  PATH,
  NODE,
  LINES,
  DIVIDE,
  ROUND,
  MEMBER,
  JOINT,
  END,
  END_NOTCH,
  BORE,
  PLATE,
  COPY,
];
