// The pieces of a job's frames, in one list.
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { endsText } from './ends';
import { List } from '../../kit/List';

/** The members and plates of the job's frames, in one list. */
export function FrameLists({ pieces }: { pieces: Schemas['PieceLine'][] }) {
  const frames = pieces.filter((one) => one.frame && one.frame.lines.length > 0);
  if (frames.length === 0) return null;
  return (
    <>
      <h2>Members and plates of frames</h2>
      <List aria-label="Members and plates of frames">
        <thead>
          <tr>
            <th>frame</th>
            <th>mark</th>
            <th className="r">off</th>
            <th>section</th>
            <th>material</th>
            <th className="r">length</th>
            <th>ends</th>
            <th className="r">mass each</th>
            <th className="r">mass of all</th>
          </tr>
        </thead>
        <tbody>
          {frames.flatMap((one) =>
            (one.frame?.lines ?? []).map((line) => (
              <tr key={one.mark + line.mark}>
                <td className="num">
                  <Link to={`/pieces/${one.id}`}>{one.mark}</Link>
                </td>
                <td className="num">{line.mark}</td>
                <td className="r num">{line.quantity * one.quantity}</td>
                <td>{line.section}</td>
                <td>{line.material}</td>
                <td className="r num">{line.length.toFixed(1)} mm</td>
                <td>{endsText(line) || line.kind}</td>
                <td className="r num">{line.mass_each.toFixed(3)} kg</td>
                <td className="r num">{(line.mass_total * one.quantity).toFixed(3)} kg</td>
              </tr>
            )),
          )}
        </tbody>
      </List>
    </>
  );
}
