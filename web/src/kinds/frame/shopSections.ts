// A section of the shop's own that is asked for by its name is copied into the piece, by value, as the picker does.
import { client, must, type Piece, type Schemas } from '../../api/client';
import { put } from '../../bench/edit';

type Own = Schemas['OwnSection'];

/** For so long the shop's list is taken to be as it was, milliseconds. */
const FRESH = 2_000;

let known: { at: number; list: Own[] } = { at: -FRESH, list: [] };

/** The shop's own sections; none where they cannot be had: the piece then says that it does not know the name. */
async function shops(): Promise<Own[]> {
  if (performance.now() - known.at > FRESH) {
    const list = await must(client.GET('/api/shop/frames')).then(
      (found) => found.settings.sections,
      (): Own[] => [],
    );
    known = { at: performance.now(), list };
  }
  return known.list;
}

const same = (one: string, two: string) => one.trim().toLowerCase() === two.trim().toLowerCase();

/** The piece with the sections of the shop's own that its members ask for and that it does not keep. */
export async function withShopSections(piece: Piece): Promise<Piece> {
  const kept = piece.frame?.sections ?? [];
  const asked = (piece.operations ?? []).flatMap(({ do: action }) =>
    'member' in action && !action.member.outline ? [action.member.section] : [],
  );
  const missing = asked.filter((name) => !kept.some((own) => same(own.name, name)));
  if (missing.length === 0) return piece;
  const taken = (await shops()).filter((own) => missing.some((name) => same(own.name, name)));
  if (taken.length === 0) return piece;
  return put(piece, ['frame', 'sections'], [...kept, ...taken]);
}
