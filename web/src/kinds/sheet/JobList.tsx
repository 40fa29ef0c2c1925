// The cut list of a job's blanks.
import type { Schemas } from '../../api/client';
import { List } from '../../kit/List';

const trim = (value: number) => String(Number(value.toFixed(3)));

/** A line a blank. */
export function BlankList({ pieces }: { pieces: Schemas['PieceLine'][] }) {
  return (
    <>
      <h2>Cut list</h2>
      <List aria-label="Cut list">
        <thead>
          <tr>
            <th>mark</th>
            <th className="r">off</th>
            <th>material</th>
            <th className="r">thickness</th>
            <th className="r">blank</th>
            <th className="r">cut length</th>
            <th className="r">pierces</th>
            <th className="r">bends</th>
            <th className="r">mass each</th>
            <th className="r">mass of all</th>
          </tr>
        </thead>
        <tbody>
          {pieces
            .flatMap(({ cut_line, variants }) => [cut_line, ...variants])
            .map((line) =>
              line ? (
                <tr key={line.mark}>
                  <td className="num">{line.mark}</td>
                  <td className="r num">{line.quantity}</td>
                  <td>{line.material}</td>
                  <td className="r num">{trim(line.thickness)} mm</td>
                  <td className="r num">
                    {line.blank_width.toFixed(1)} × {line.blank_height.toFixed(1)} mm
                  </td>
                  <td className="r num">{line.cut_length.toFixed(0)} mm</td>
                  <td className="r num">{line.pierces}</td>
                  <td className="r num">{line.bends}</td>
                  <td className="r num">{line.mass_each.toFixed(3)} kg</td>
                  <td className="r num">{line.mass_total.toFixed(3)} kg</td>
                </tr>
              ) : null,
            )}
        </tbody>
      </List>
    </>
  );
}
