// The one list of verbs of frames on the bench, in the order that they are offered.
import type { VerbRow } from '../../verb';
import { READY_FRAME } from './ready';
import { PATH } from './path';
import { NODE } from './node';
import { LINES } from './lines';
import { DIVIDE } from './divide';
import { ROUND } from './round';
import { MEMBER } from './member';
import { JOINT } from './joint';
import { END } from './end';
import { END_NOTCH } from './end_notch';
import { BORE } from './bore';
import { PLATE } from './plate';
import { COPY } from './copy';

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
