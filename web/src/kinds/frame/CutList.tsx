// Cut list and welds as tables: a row lights its members, every length and mass has its working.
import { useState } from 'react';
import type { Why } from '../../api/client';
import { WhyBox } from '../../bench/WhyBox';
import { select, useBench } from '../../bench/store';
import { PiecePicture } from './Pieces';
import { WELD_WORDS, weldSymbol } from './welds';
import { Act } from '../../kit/Act';
import { List } from '../../kit/List';
import { Select } from '../../kit/Select';
import { Input } from '../../kit/Input';
import { Check } from '../../kit/Check';

type Order = 'mark' | 'section' | 'length' | 'mass';

export function CutListPanel() {
  const frame = useBench((s) => s.answer?.frame);
  const [find, setFind] = useState('');
  const [order, setOrder] = useState<Order>('mark');
  const [exact, setExact] = useState(false);
  if (!frame || frame.cut_list.length === 0)
    return <p>The list is empty: put a section on lines, and each piece is listed here.</p>;
  const columns = [...new Set(frame.cut_list.flatMap((one) => Object.keys(one.line.columns)))];
  const shown = frame.cut_list.filter((one) =>
    [one.line.mark, one.line.section, one.line.material, one.line.kind, one.line.weldment, ...one.line.members]
      .join(' ')
      .toLowerCase()
      .includes(find.toLowerCase()),
  );
  if (order === 'section')
    shown.sort((a, b) => a.line.section.localeCompare(b.line.section) || b.line.length - a.line.length);
  if (order === 'length') shown.sort((a, b) => b.line.length - a.line.length);
  if (order === 'mass') shown.sort((a, b) => b.line.mass_total - a.line.mass_total);
  const copy = () => {
    const rows = shown.map(({ line, length_text, short_text }) =>
      [
        line.mark,
        line.quantity,
        line.section,
        line.material,
        length_text,
        short_text,
        line.ends[0]?.text ?? '',
        line.ends[1]?.text ?? '',
        line.between,
        line.work,
        line.mass_each.toFixed(3),
        line.mass_total.toFixed(3),
      ].join('\t'),
    );
    void navigator.clipboard
      .writeText(
        [
          'mark\toff\tsection\tmaterial\tlength\tshort point\tstart\tfinish\tcuts\twork\tmass each kg\tmass of all kg',
          ...rows,
        ].join('\n'),
      )
      .then(() => useBench.setState({ message: 'The list is copied.' }));
  };
  return (
    <>
      <div className="tools">
        <Input
          className="field"
          aria-label="Find in the list"
          placeholder="find"
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <label>
          order{' '}
          <Select
            className="field"
            aria-label="Order of the list"
            value={order}
            onChange={(event) => setOrder(event.target.value as Order)}
          >
            <option value="mark">as built</option>
            <option value="section">by section</option>
            <option value="length">longest first</option>
            <option value="mass">heaviest first</option>
          </Select>
        </label>
        <label>
          <Check checked={exact} change={setExact} /> exact angles
        </label>
        <Act onClick={copy}>copy as text</Act>
      </div>
      <List className="list framelist" aria-label="Cut list">
        <thead>
          <tr>
            <th>mark</th>
            <th>piece</th>
            <th className="r">off</th>
            <th>section</th>
            <th>material</th>
            <th className="r">length</th>
            <th className="r">short point</th>
            <th className="r">centroid</th>
            <th>start</th>
            <th>finish</th>
            <th>cuts</th>
            <th>work</th>
            <th className="r">mass each</th>
            <th className="r">of all</th>
            {columns.map((name) => (
              <th key={name}>{name}</th>
            ))}
            <th>note</th>
            <th>working</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((one) => (
            <tr
              key={one.line.mark}
              onMouseEnter={() => useBench.setState({ lit: one.line.members })}
              onMouseLeave={() => useBench.setState({ lit: [] })}
            >
              <td>
                <Act
                  className="num"
                  onClick={() => select({ features: one.line.members })}
                  title={one.line.members.join(', ')}
                >
                  {one.line.mark}
                </Act>
              </td>
              <td>
                <PiecePicture one={one} height={20} />
              </td>
              <td className="r num">{one.line.quantity}</td>
              <td>{one.line.section}</td>
              <td>{one.line.material}</td>
              <td className="r num">{one.length_text}</td>
              <td className="r num">{one.short_text}</td>
              <td className="r num">{one.line.kind === 'member' ? one.centroid_text : '—'}</td>
              <td>{exact ? one.line.ends[0]?.exact : one.line.ends[0]?.text}</td>
              <td>{exact ? one.line.ends[1]?.exact : one.line.ends[1]?.text}</td>
              <td>
                {one.line.between}
                {one.line.opposite_of && <div>opposite hand of {one.line.opposite_of}</div>}
              </td>
              <td>{one.line.work}</td>
              <td className="r num">{one.line.mass_each.toFixed(3)} kg</td>
              <td className="r num">{one.line.mass_total.toFixed(3)} kg</td>
              {columns.map((name) => (
                <td key={name}>{one.line.columns[name]}</td>
              ))}
              <td className="todo">{one.line.note}</td>
              <td>
                <WhyBoth whys={[one.why_length, one.why_mass].filter((why) => why != null)} />
              </td>
            </tr>
          ))}
        </tbody>
      </List>
      {frame.sums.map((one) => (
        <p key={one.weldment} className="small">
          <b>{one.weldment || 'Whole frame'}</b>: {one.text}
        </p>
      ))}
      {frame.lugs.length > 0 && (
        <>
          <h3>Lifting lugs: for review by a licensed engineer under the local code</h3>
          {frame.lugs.map((why, index) => (
            <div key={index}>
              {why.title}: <span className="num">{why.working}</span>
              <WhyBox why={why} />
            </div>
          ))}
        </>
      )}
    </>
  );
}

/** Several workings under one word. */
function WhyBoth({ whys }: { whys: Why[] }) {
  if (whys.length === 0) return null;
  return (
    <details>
      <summary>why?</summary>
      {whys.map((why) => (
        <dl className="why" key={why.title}>
          <dt>{why.title}</dt>
          <dd>{why.formula}</dd>
          <dt>with its numbers</dt>
          <dd>{why.working}</dd>
          <dt>source</dt>
          <dd>{why.source}</dd>
        </dl>
      ))}
    </details>
  );
}

export function WeldsPanel() {
  const frame = useBench((s) => s.answer?.frame);
  if (!frame || frame.welds.length === 0) return <p>No welds yet: they are found where members and plates meet.</p>;
  return (
    <>
      <p className="small">Checked and listed, never certified: follow local codes; a licensed engineer decides.</p>
      <List aria-label="Welds">
        <thead>
          <tr>
            <th>weld</th>
            <th>joint</th>
            <th>parts</th>
            <th className="r">length</th>
            <th className="r">leg</th>
            <th className="r">throat</th>
            <th>symbol</th>
            <th className="r">deposit</th>
            <th className="r">time</th>
            <th>working</th>
          </tr>
        </thead>
        <tbody>
          {frame.welds.slice(0, 500).map((one) => (
            <tr
              key={one.mark}
              onMouseEnter={() => useBench.setState({ lit: one.parts })}
              onMouseLeave={() => useBench.setState({ lit: [] })}
            >
              <td className="num">{one.mark}</td>
              <td>{WELD_WORDS[one.kind]}</td>
              <td>
                <Act onClick={() => select({ features: one.parts })}>{one.parts.join(' and ')}</Act>
              </td>
              <td className="r num">{one.length_text}</td>
              <td className="r num">{one.leg.toFixed(1)} mm</td>
              <td className="r num">{one.throat.toFixed(2)} mm</td>
              <td>
                <WeldSymbol weld={one} /> {one.symbol}
              </td>
              <td className="r num">{(one.mass * 1000).toFixed(1)} g</td>
              <td className="r num">{one.minutes.toFixed(1)} min</td>
              <td>
                <WhyBox why={one.why} />
              </td>
            </tr>
          ))}
        </tbody>
      </List>
    </>
  );
}

/** The symbol: an arrow, a reference line, the weld's triangle or its butt, and the ring for all round. */
function WeldSymbol({ weld }: { weld: Parameters<typeof weldSymbol>[0] }) {
  const { butt, allRound, both } = weldSymbol(weld);
  return (
    <svg className="weldsymbol" width="44" height="22" viewBox="0 0 44 22" aria-hidden="true">
      <path d="M2 20 L12 11 H42" />
      {allRound && <circle cx="12" cy="11" r="3" />}
      {butt ? <path d="M24 11 L24 4 M30 11 L30 4" /> : <path d="M22 11 L22 4 L30 11" />}
      {both && <path d="M22 11 L22 18 L30 11" />}
    </svg>
  );
}
