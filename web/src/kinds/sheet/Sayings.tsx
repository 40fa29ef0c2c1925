// What the drawing says of an outline, each with what it does: it shapes it, it is implied, it disagrees.
import { client, must, words, type Piece } from '../../api/client';
import { Chip } from '../../bench/Chip';
import { at, put, type Path } from '../../bench/edit';
import { drawnPath, sayingWords, settled, type Drawn, type Kind, type Saying, type Standing } from './outline';
import { commit, useBench } from '../../bench/store';
import { Act } from '../../kit/Act';
import { Slide } from '../../kit/Slide';

const ROLES = { drives: 'shapes it', implied: 'follows, holds', disagrees: 'disagrees', unread: 'not read' } as const;

export function Sayings({
  piece,
  index,
  drawn,
  standing,
  width,
}: {
  piece: Piece;
  index: number;
  drawn: Drawn;
  standing: Standing;
  width: number;
}) {
  const findings = useBench((s) => s.answer?.findings) ?? [];
  const operation = piece.operations?.[index];
  const path: Path = [...drawnPath(operation?.name ?? ''), 'says'];
  const says = drawn.says ?? [];
  const faults = findings.filter((one) => one.operation === operation?.name && one.severity === 'error');
  const state =
    standing.disagree.length > 0
      ? 'These numbers disagree'
      : standing.missing > 0
        ? `${standing.missing} ${standing.missing === 1 ? 'number' : 'numbers'} still missing`
        : 'Defined';
  const takeOut = (place: number) =>
    void commit(
      (now) => {
        // What was clicked, wherever it stands by now: another may have been taken out in between.
        const [there, wanted] = [(at(now, path) ?? []) as typeof says, JSON.stringify(says[place])];
        const found = there.findIndex((one) => JSON.stringify(one) === wanted);
        return found < 0 ? now : put(now, [...path, found], undefined);
      },
      `${operation?.name}: took out ${sayingWords(says[place] ?? { what: 'level', of: [] })}`,
    ).then((fault) => fault && useBench.setState({ message: fault }));
  return (
    <aside className="says" style={{ width }} aria-label="What the drawing says of it">
      <p role="status" className={standing.disagree.length > 0 ? 'bad' : standing.missing > 0 ? 'todo' : 'good'}>
        {state}
      </p>
      {faults.map((one) => (
        <p key={one.message} className="bad small">
          {one.message}. {one.way_out}
        </p>
      ))}
      <ol>
        {says.map((saying, place) => {
          const stands = standing.sayings[place];
          const role = stands?.role ?? 'unread';
          return (
            <li key={place} className={role}>
              <span>{sayingWords(saying)}</span>{' '}
              {saying.value != null && (
                <Chip
                  text={saying.value}
                  label={`${sayingWords(saying)}, number`}
                  wrong={role === 'disagrees'}
                  edit={(now, text) => put(now, [...path, place, 'value'], text)}
                  comes={(answer) =>
                    answer.operations[index]?.values.find((one) => one.field.endsWith(`.says.${place}.value`))?.text
                  }
                  own={{ operation: operation?.name }}
                  note={`${operation?.name}: ${sayingWords(saying)}`}
                />
              )}
              <small>{ROLES[role]}</small>
              <Act aria-label={`Take out: ${sayingWords(saying)}`} onClick={() => takeOut(place)}>
                ×
              </Act>
            </li>
          );
        })}
      </ol>
      {says.length === 0 && <p className="small">Nothing said yet. Pick an edge and say its length.</p>}
      {drawn.underlay && <Picture index={index} drawn={drawn} standing={standing} operation={operation?.name ?? ''} />}
    </aside>
  );
}

const KINDS: Partial<Record<Kind, string>> = { length: 'long', radius: 'radius', diameter: 'diameter' };

/** The picture under the outline: its scale, how sure it is, and what is traced with no number on it yet. */
function Picture({
  index,
  drawn,
  standing,
  operation,
}: {
  index: number;
  drawn: Drawn;
  standing: Standing;
  operation: string;
}) {
  const under = drawn.underlay;
  if (!under) return null;
  const path = drawnPath(operation);
  const own = { operation };
  const set = (key: string, value: unknown, note: string) =>
    void commit((now) => put(now, [...path, 'underlay', key], value), `${operation}: ${note}`, own).then(
      (fault) => fault && useBench.setState({ message: fault }),
    );
  const add = (more: Saying[], note: string) =>
    void commit(
      (now) =>
        put(now, path, {
          ...settled(at(now, path) as Drawn, standing),
          says: [...((at(now, path) as Drawn).says ?? []), ...more],
        }),
      `${operation}: ${note}`,
      own,
    ).then((fault) => fault && useBench.setState({ message: fault }));
  const pull = async () => {
    const document = useBench.getState().document;
    if (!document) return;
    try {
      // From the shape as it is seen, as every other number is put on.
      const { says } = await must(
        client.POST('/api/pull', {
          body: { document: put(document, path, settled(at(document, path) as Drawn, standing)), operation },
        }),
      );
      if (says.length === 0)
        useBench.setState({ message: 'There is nothing left to pull: every size that is traced is held by a number.' });
      else add(says, 'pulled to round numbers');
    } catch (fault) {
      useBench.setState({ message: words(fault) });
    }
  };
  const length = (key: 'scale' | 'check', label: string) => (
    <Chip
      text={under[key]?.length ?? ''}
      label={label}
      edit={(now, text) => put(now, [...path, 'underlay', key, 'length'], text)}
      comes={(answer) =>
        answer.operations[index]?.values.find((one) => one.field.endsWith(`underlay.${key}.length`))?.text
      }
      own={own}
      note={`${operation}: ${label}`}
    />
  );
  const scale = standing.underlay;
  return (
    <div className="tracing">
      <p className="small">
        Scale by {length('scale', 'length of the scale')}: {scale ? scale.scale_text : 'not known'}
      </p>
      {under.check && (
        <p className={`small${scale?.check_off ? ' bad' : ''}`}>
          Checked by {length('check', 'length of the check')}: {scale?.check_text}{' '}
          <Act aria-label="Take the check out" onClick={() => set('check', undefined, 'took the check out')}>
            ×
          </Act>
        </p>
      )}
      <p className="small">
        Turned{' '}
        <Chip
          text={under.turn ?? ''}
          ghost="0 deg"
          optional
          label="turn of the picture"
          edit={(now, text) => put(now, [...path, 'underlay', 'turn'], text)}
          own={own}
          note={`${operation}: turn of the picture`}
        />{' '}
        <label>
          shows{' '}
          <Slide
            label="How much the picture shows"
            least={0}
            most={1}
            step={0.05}
            value={under.fade ?? 0.5}
            change={(value) => set('fade', value, 'faded the picture')}
          />
        </label>{' '}
        <Act
          aria-pressed={under.locked ?? false}
          onClick={() =>
            set('locked', under.locked ? undefined : true, under.locked ? 'unlocked the picture' : 'locked the picture')
          }
        >
          {under.locked ? 'locked' : 'lock'}
        </Act>
      </p>
      {standing.traced.length > 0 && (
        <>
          <p className="small">
            <b>Traced, no number yet</b> <Act onClick={() => void pull()}>pull all to round numbers</Act>
          </p>
          <ol>
            {standing.traced.map((one) => (
              <li key={one.of}>
                <span>
                  {one.of} {KINDS[one.what] ?? ''} <span className="num">{one.text}</span>
                </span>
                <Act
                  aria-label={`Say ${one.of} is ${one.round}`}
                  onClick={() => add([{ what: one.what, of: [one.of], value: one.round }], `${one.of} is ${one.round}`)}
                >
                  say {one.round}
                </Act>
              </li>
            ))}
          </ol>
        </>
      )}
    </div>
  );
}
