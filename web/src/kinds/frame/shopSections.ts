// A section of the shop's own that is asked for by its name is copied into the piece, by value, as the picker does.
import { client, must, type Piece, type Schemas } from '../../api/client';
import { put } from '../../bench/edit';
import { remembered, sameName } from '../../shop/remembered';

type Own = Schemas['OwnSection'];

/** The shop's own sections; none where they cannot be had: the piece then says that it does not know the name. */
const shops = remembered<Own>(() => must(client.GET('/api/shop/frames')).then((found) => found.settings.sections));

/** The piece with the sections of the shop's own that its members ask for and that it does not keep. */
export async function withShopSections(piece: Piece): Promise<Piece> {
  const kept = piece.frame?.sections ?? [];
  const asked = (piece.operations ?? []).flatMap(({ do: action }) =>
    'member' in action && !action.member.outline ? [action.member.section] : [],
  );
  const missing = asked.filter((name) => !kept.some((own) => sameName(own.name, name)));
  if (missing.length === 0) return piece;
  const taken = (await shops()).filter((own) => missing.some((name) => sameName(own.name, name)));
  if (taken.length === 0) return piece;
  return put(piece, ['frame', 'sections'], [...kept, ...taken]);
}
