// Variants of a piece: what each rests and changes, its hand, and how it comes out: its own mark, blank, mass and
// proof.
import { useQuery } from '@tanstack/react-query';
import { client, must, type Piece, type Schemas } from '../api/client';
import { useSettings } from '../settings';
import { brokenIn } from './breaches';
import { Chip } from './Chip';
import { callouts, named, operations, put } from './edit';
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
