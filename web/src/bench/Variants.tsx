// Variants of a piece: what each rests and changes, its hand, and how it comes out: its own mark, blank, mass and
// proof.
import { useQuery } from '@tanstack/react-query';
import { client, must, type Piece, type Schemas } from '../api/client';
import { useSettings } from '../settings';
import { brokenIn } from './breaches';
import { Chip } from './Chip';
import { callouts, named, operations, put, type Path } from './edit';
import { useStock } from './stock';
import { commit, setVariant, useBench } from './store';
import { Act } from '../kit/Act';
import { List } from '../kit/List';
import { Select } from '../kit/Select';
import { Check } from '../kit/Check';

type Variant = Schemas['Variant'];

const list = (piece: Piece): Variant[] => piece.variants ?? [];

/** "A = 150 mm, B = 20 mm" to call-outs and values. */
export function readSet(text: string | undefined): Record<string, string> | undefined {
  const pairs = (text ?? '')
    .split(/[,;]/)
    .map((one) => /^\s*([A-Za-z]\w*)\s*=\s*(.+?)\s*$/.exec(one))
    .filter((one) => one !== null);
  return pairs.length > 0 ? Object.fromEntries(pairs.map((one) => [one[1] ?? '', one[2] ?? ''])) : undefined;
}

const own = { field: 'variants' };
const change = (next: (now: Piece) => Piece, note: string) =>
  void commit(next, note, own).then((fault) => fault && useBench.setState({ message: fault }));

export function Variants() {
  const piece = useBench((s) => s.document);
  const shown = useBench((s) => s.variant);
  if (!piece) return null;
  const variants = list(piece);
  const names = variants.map((one) => one.name);
  const fresh = (stem: string) => (names.includes(stem) ? `${stem}-${names.length + 1}` : stem);
  const add = (variant: Variant) =>
    change((now) => ({ ...now, variants: [...list(now), variant] }), `variant ${variant.name}`);
  return (
    <>
      <p className="tools">
        <Act kind="line" onClick={() => add({ name: fresh('light'), quantity: 1 })}>
          Add a variant
        </Act>
        <Act
          kind="line"
          onClick={() => add({ name: fresh('opposite'), opposite_hand: true, quantity: piece.quantity })}
        >
          Add the opposite hand
        </Act>
        <Act
          kind="line"
          disabled={piece.kind === 'frame'}
          onClick={() =>
            add({
              name: fresh('card'),
              trial: true,
              scale: '1:4',
              stock: { material: 'Card', thickness: '0.5 mm' },
              bending: { radius: '0.5 mm' },
            })
          }
        >
          Add a trial in card
        </Act>
        <span className="soft">
          A variant is derived from this piece: it leaves steps out, changes call-outs, or is turned about. Nothing is
          drawn twice.
        </span>
      </p>
      {variants.length === 0 ? (
        <p>
          No variants yet. One example: a tray without its perforation, for the assembly, beside the one that is cut.
        </p>
      ) : (
        <List>
          <caption className="visually">Variants</caption>
          <thead>
            <tr>
              <th>variant</th>
              <th>mark</th>
              <th className="r">made</th>
              <th>leaves out</th>
              <th>changes</th>
              <th>hand</th>
              <th>made of</th>
              <th className="r">blank</th>
              <th className="r">mass</th>
              <th>stands</th>
              <th>
                <span className="visually">look, delete</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {variants.map((variant, index) => (
              <tr key={variant.name} className={shown === variant.name ? 'on' : ''}>
                <td>
                  <Chip
                    text={variant.name}
                    label={`name of variant ${index + 1}`}
                    edit={(now, text) => put(now, ['variants', named(variant.name), 'name'], text)}
                    own={own}
                    note="variant name"
                    done={(text) => shown === variant.name && setVariant(text)}
                  />
                </td>
                <td>
                  <Chip
                    text={variant.mark ?? ''}
                    ghost={`${piece.mark}-${variant.name}`}
                    optional
                    label={`mark of ${variant.name}`}
                    edit={(now, text) => put(now, ['variants', named(variant.name), 'mark'], text)}
                    own={own}
                    note="variant mark"
                  />
                </td>
                <td className="r">
                  <Chip
                    text={variant.quantity == null ? '' : String(variant.quantity)}
                    ghost="none"
                    optional
                    label={`quantity of ${variant.name}`}
                    edit={(now, text) =>
                      put(
                        now,
                        ['variants', named(variant.name), 'quantity'],
                        text === undefined ? undefined : /^\d{1,7}$/.test(text) ? Number(text) : text,
                      )
                    }
                    own={own}
                    note="variant quantity"
                  />
                </td>
                <td>
                  <Chip
                    text={(variant.rest ?? []).join(', ')}
                    ghost="nothing"
                    optional
                    label={`operations that ${variant.name} rests`}
                    suggestions={operations(piece).map((one) => one.name)}
                    edit={(now, text) =>
                      put(
                        now,
                        ['variants', named(variant.name), 'rest'],
                        text ? text.split(/[,\s]+/).filter(Boolean) : undefined,
                      )
                    }
                    own={own}
                    note="what the variant leaves out"
                  />
                  {operations(piece).some((one) => one.rested) && (
                    <>
                      <span className="soft"> and makes </span>
                      <Chip
                        text={(variant.wakes ?? []).join(', ')}
                        ghost="nothing that rests"
                        optional
                        label={`resting operations that ${variant.name} makes`}
                        suggestions={operations(piece).flatMap((one) => (one.rested ? [one.name] : []))}
                        edit={(now, text) =>
                          put(
                            now,
                            ['variants', named(variant.name), 'wakes'],
                            text ? text.split(/[,\s]+/).filter(Boolean) : undefined,
                          )
                        }
                        own={own}
                        note="what the variant makes"
                      />
                    </>
                  )}
                </td>
                <td>
                  <Chip
                    text={Object.entries(variant.set ?? {})
                      .map(([name, value]) => `${name} = ${value}`)
                      .join(', ')}
                    ghost={callouts(piece).length > 0 ? 'nothing' : 'no call-outs'}
                    optional
                    label={`call-outs that ${variant.name} changes`}
                    edit={(now, text) =>
                      put(
                        now,
                        ['variants', named(variant.name), 'set'],
                        text === undefined ? undefined : (readSet(text) ?? { [text]: '' }),
                      )
                    }
                    own={own}
                    note="variant call-outs"
                  />
                </td>
                <td>
                  <label>
                    <Check
                      checked={variant.opposite_hand === true}
                      change={(checked) =>
                        change(
                          (now) =>
                            put(now, ['variants', named(variant.name), 'opposite_hand'], checked ? true : undefined),
                          'variant hand',
                        )
                      }
                    />{' '}
                    opposite
                  </label>
                </td>
                <td>
                  <MadeOf piece={piece} variant={variant} />
                </td>
                <Comes piece={piece} name={variant.name} />
                <td>
                  <Act
                    aria-pressed={shown === variant.name}
                    onClick={() => setVariant(shown === variant.name ? null : variant.name)}
                  >
                    {shown === variant.name ? 'shown' : 'show'}
                  </Act>
                  <Act
                    onClick={() => (
                      shown === variant.name && setVariant(null),
                      change(
                        (now) => ({
                          ...now,
                          variants:
                            list(now).length > 1 ? list(now).filter((one) => one.name !== variant.name) : undefined,
                        }),
                        `deleted variant ${variant.name}`,
                      )
                    )}
                  >
                    delete
                  </Act>
                </td>
              </tr>
            ))}
          </tbody>
        </List>
      )}
    </>
  );
}

/** What a variant is made of where that is its own: stock, inside radius, scale; and whether it is a trial piece. */
function MadeOf({ piece, variant }: { piece: Piece; variant: Variant }) {
  const stock = useStock().data;
  const at = (...path: string[]): Path => ['variants', named(variant.name), ...path];
  const materials = stock?.materials.map((one) => one.name) ?? [];
  return (
    <div className="madeof">
      <Chip
        text={variant.stock?.material ?? ''}
        ghost={piece.stock.material}
        optional
        label={`material of ${variant.name}`}
        suggestions={materials}
        edit={(now, text) =>
          put(
            now,
            at('stock'),
            text === undefined
              ? undefined
              : { thickness: piece.stock.thickness, ...(variant.stock ?? {}), material: text },
          )
        }
        own={own}
        note="variant stock"
      />
      <Chip
        text={variant.stock?.thickness ?? ''}
        ghost={piece.stock.thickness ?? ''}
        optional
        label={`thickness of ${variant.name}`}
        edit={(now, text) =>
          put(
            now,
            at('stock'),
            text === undefined && variant.stock?.material === piece.stock.material
              ? undefined
              : {
                  material: piece.stock.material,
                  ...(variant.stock ?? {}),
                  thickness: text ?? piece.stock.thickness,
                },
          )
        }
        own={own}
        note="variant stock"
      />
      <span className="soft">R</span>
      <Chip
        text={variant.bending?.radius ?? ''}
        ghost={piece.bending?.radius ?? 'T'}
        optional
        label={`inside radius of ${variant.name}`}
        edit={(now, text) =>
          // On the piece's own stock its way to compute blanks stays; of another stock it says nothing.
          put(
            now,
            at('bending'),
            text === undefined
              ? undefined
              : { ...(variant.bending ?? (variant.stock ? {} : now.bending)), radius: text },
          )
        }
        own={own}
        note="variant inside radius"
      />
      <span className="soft">scale</span>
      <Chip
        text={variant.scale ?? ''}
        ghost="1:1"
        optional
        label={`scale of ${variant.name}`}
        edit={(now, text) => put(now, at('scale'), text)}
        own={own}
        note="variant scale"
      />
      <span className="soft">cutter</span>
      <Chip
        text={variant.cutting?.cutter ?? ''}
        ghost="as usual"
        optional
        label={`cutter of ${variant.name}`}
        edit={(now, text) =>
          put(now, at('cutting'), text === undefined ? undefined : { ...(variant.cutting ?? {}), cutter: text })
        }
        own={own}
        note="variant cutter"
      />
      <label>
        <Check
          checked={variant.trial === true}
          change={(checked) => change((now) => put(now, at('trial'), checked ? true : undefined), 'trial piece')}
        />{' '}
        trial, in no list
      </label>
    </div>
  );
}

/** How a variant comes out. */
function Comes({ piece, name }: { piece: Piece; name: string }) {
  const show = useSettings((s) => s.show);
  const answer = useQuery({
    queryKey: ['variant', piece, name, show],
    placeholderData: (before) => before,
    queryFn: () => must(client.POST('/api/build', { body: { document: piece, variant: name, show } })),
  }).data;
  const figure = (key: string) => answer?.figures.find((one) => one.key === key)?.text ?? '—';
  const bad =
    (answer?.callouts.filter((one) => one.verdict === 'off').length ?? 0) +
    (answer ? brokenIn(answer).length : 0) +
    (answer?.findings.filter((one) => one.severity === 'error').length ?? 0);
  return (
    <>
      <td className="r num">{figure('blank')}</td>
      <td className="r num">{figure('mass')}</td>
      <td>
        {answer === undefined ? (
          <span className="soft">…</span>
        ) : bad === 0 ? (
          <span className="ok">holds</span>
        ) : (
          <span className="bad">{bad} to look at</span>
        )}
      </td>
    </>
  );
}

/** The picker in the bar: the piece itself or one of its variants; on the bench the way to change them. */
export function VariantPicker({ edit }: { edit: boolean }) {
  const piece = useBench((s) => s.document);
  const shown = useBench((s) => s.variant);
  if (!piece || (!edit && list(piece).length === 0)) return null;
  return (
    <Select
      className="chip"
      aria-label="Variant shown"
      value={shown ?? ''}
      onChange={(event) =>
        event.target.value === '…' ? useBench.setState({ panel: 'variants' }) : setVariant(event.target.value || null)
      }
    >
      <option value="">the piece itself</option>
      {list(piece).map((one) => (
        <option key={one.name} value={one.name}>
          variant {one.name}
        </option>
      ))}
      {edit && <option value="…">variants…</option>}
    </Select>
  );
}
