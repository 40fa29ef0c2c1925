// The mark of an example that nobody has replaced, on the row that it is about.
import { Act } from '../kit/Act';

/** Pressed when the figures are the shop's own: the mark goes, and where they come from is said. */
export function MadeUp({ made, of, ours }: { made: boolean | undefined; of: string; ours: () => void }) {
  if (!made) return null;
  return (
    <Act className="made" aria-label={`${of} is a made-up example; press when its figures are your own`} onClick={ours}>
      made up
    </Act>
  );
}

/** What stands as the source of figures that a shop made its own. */
export const ours = (): string => `the shop, ${new Date().toISOString().slice(0, 10)}`;
