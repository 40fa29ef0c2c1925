// The line of fields for a job: number, what it is, due. Used to make one and to change one.
import { Act } from '../kit/Act';
import { Input } from '../kit/Input';
export interface JobFields {
  number: string;
  title: string;
  due: string;
}

interface Props {
  name: string;
  act: string;
  fields: JobFields;
  change: (fields: JobFields) => void;
  done: () => void;
  leave: () => void;
}

export function JobForm({ name, act, fields, change, done, leave }: Props) {
  return (
    <form
      className="note tools"
      aria-label={name}
      onSubmit={(event) => {
        event.preventDefault();
        done();
      }}
    >
      <Input
        className="field"
        autoFocus
        aria-label="Job number"
        placeholder="number, such as TS-108"
        value={fields.number}
        onChange={(event) => change({ ...fields, number: event.target.value })}
      />
      <Input
        className="field"
        aria-label="What it is"
        placeholder="what it is"
        value={fields.title}
        onChange={(event) => change({ ...fields, title: event.target.value })}
        style={{ width: 260 }}
      />
      <Input
        className="field mono"
        aria-label="Due"
        placeholder="2026-12-18"
        value={fields.due}
        onChange={(event) => change({ ...fields, due: event.target.value })}
        style={{ width: 120 }}
      />
      <Act kind="main" type="submit">
        {act}
      </Act>
      <Act onClick={leave}>leave it</Act>
    </form>
  );
}
