// What is chosen for the files of a plate or a sheet part.
import { useState } from 'react';
import type { BuildAnswer } from '../../api/client';
import { download } from '../../bench/download';
import { useBench } from '../../bench/store';
import { Act, ActLink } from '../../kit/Act';
import { Select } from '../../kit/Select';
import { Input } from '../../kit/Input';
import type { OutputOf } from '../kind';

/** The marks of the blanks of a piece that comes to several; none of one of one blank. */
export function blankMarks(answer: BuildAnswer | null, of: OutputOf): string[] | null {
  const sheets = answer?.blank?.sheets ?? [];
  return of === 'blank' && sheets.length > 0 ? [...new Set(sheets.map((one) => one.mark))] : null;
}

/** The way to the cutting screen. */
export function ToCutting() {
  const id = useBench((s) => s.id);
  return (
    <p>
      <ActLink kind="main" to={`/pieces/${id}/cutting`}>
        Cutting: path, time, G-code
      </ActLink>
    </p>
  );
}

/** The 1:1 template: which paper, and what the check lines of the last print measured. */
export function Template() {
  const id = useBench((s) => s.id);
  const unit = useBench((s) => s.document?.unit);
  const [paper, setPaper] = useState('a4');
  const [across, setAcross] = useState('');
  const [up, setUp] = useState('');
  const line = unit === 'in' ? '4 in' : '100 mm';
  const variant = useBench((s) => s.variant);
  const query = new URLSearchParams({
    paper,
    ...(variant ? { variant } : {}),
    ...(across.trim() ? { across } : {}),
    ...(up.trim() ? { up } : {}),
  });
  return (
    <p className="tools">
      <b>1:1 template</b>
      <label>
        on{' '}
        <Select className="field" value={paper} onChange={(event) => setPaper(event.target.value)} aria-label="Paper">
          <option value="a4">A4</option>
          <option value="a3">A3</option>
          <option value="letter">Letter</option>
        </Select>
      </label>
      <label>
        check lines of {line} measured{' '}
        <Input
          className="field num"
          size={8}
          value={across}
          placeholder={line}
          aria-label="Check line across measured"
          onChange={(event) => setAcross(event.target.value)}
        />
      </label>
      <label>
        and{' '}
        <Input
          className="field num"
          size={8}
          value={up}
          placeholder={line}
          aria-label="Check line up measured"
          onChange={(event) => setUp(event.target.value)}
        />
      </label>
      <Act kind="line" onClick={() => void download(`/api/pieces/${id}/files/template.pdf?${query.toString()}`)}>
        {across.trim() || up.trim() ? 'Corrected template, PDF' : 'Template, PDF'}
      </Act>
    </p>
  );
}
