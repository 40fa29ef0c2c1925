// Kinds of piece as a job knows them: how each begins, and its facts in few words. Apart from the bench, which is
// loaded later.
import { BEGIN_FRAME } from './frame/begin';
import { BEGIN_PLATE } from './plate/begin';
import { BEGIN_SHEET } from './sheet/begin';
import type { Begin } from './beginning';

/** In the order of the buttons. */
export const BEGIN: Begin[] = [BEGIN_SHEET, BEGIN_PLATE, BEGIN_FRAME];

/** How a piece of this kind begins. */
export const beginOf = (kind: Begin['first']['kind'] | null | undefined): Begin =>
  BEGIN.find((one) => one.first.kind === kind) ?? BEGIN_SHEET;
