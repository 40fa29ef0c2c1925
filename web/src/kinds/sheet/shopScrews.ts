// A screw of the shop's own that a hole asks for by its name is taken over by its numbers: what the piece says never
// changes with the shop's list.
import { client, must, type Piece, type Schemas } from '../../api/client';
import { remembered, sameName } from '../../shop/remembered';

type Screw = Schemas['Screw'];
type Head = Screw['head'];

/** The shop's own screws; none where they cannot be had: the piece then says that it does not know the name. */
const shops = remembered<Screw>(() => must(client.GET('/api/shop/screws')).then((found) => found.screws));

/** What a head says by its numbers; null where this screw has no such head. */
function numbers(key: 'countersink' | 'counterbore', one: Screw): object | null {
  if (key === 'countersink')
    return one.angle == null ? null : { diameter: `${one.diameter} mm`, angle: `${one.angle} deg` };
  const [diameter, depth] = one.counterbore ?? [];
  return diameter === undefined || depth === undefined ? null : { diameter: `${diameter} mm`, depth: `${depth} mm` };
}

const HEADS: ['countersink' | 'counterbore', Head][] = [
  ['countersink', 'flat'],
  ['counterbore', 'socket'],
];

const asked = (piece: Piece) =>
  (piece.operations ?? []).some(
    ({ do: action }) => 'drill' in action && HEADS.some(([key]) => action.drill[key]?.screw !== undefined),
  );

/** The piece with the shop's own screws that its holes ask for taken over by their numbers. */
export async function withShopScrews(piece: Piece): Promise<Piece> {
  if (!asked(piece)) return piece;
  const list = await shops();
  let taken = false;
  const operations = (piece.operations ?? []).map((operation) => {
    const action = operation.do;
    if (!('drill' in action)) return operation;
    let drill = action.drill;
    for (const [key, head] of HEADS) {
      const name = drill[key]?.screw;
      if (!name) continue;
      const own = list.find((one) => one.head === head && sameName(one.size, name));
      const said = own && numbers(key, own);
      if (said) {
        drill = { ...drill, [key]: said };
        taken = true;
      }
    }
    return drill === action.drill ? operation : { ...operation, do: { drill } };
  });
  return taken ? { ...piece, operations } : piece;
}
