// The files of a plate or a sheet part.
import { useState } from 'react';
import { Link } from 'react-router';
import { download } from '../../bench/download';
import { FileButton } from '../../bench/FileButton';
import { useBench } from '../../bench/store';

export function SheetFiles() {
  const id = useBench((s) => s.id);
  const variant = useBench((s) => s.variant);
  return (
    <>
      <p>
        <Link className="btn main" style={{ marginRight: 8 }} to={`/pieces/${id}/cutting`}>
          Cutting: path, time, G-code
        </Link>
        {(
          [
            ['blank.dxf', 'Blank, DXF'],
            ['blank.pdf', 'Flat sheet, PDF'],
            ['bends.csv', 'Bend table, CSV'],
            ['part.step', 'Folded part, STEP'],
            ['part.glb', 'Folded part, GLB'],
            ['blank.svg', 'Blank, SVG at true size'],
            ['profile.dxf', 'Cut profile, DXF'],
            ['profile.svg', 'Cut profile, SVG'],
            ['holes.csv', 'Hole table, CSV'],
            ['edges.csv', 'Edge table, CSV'],
            ['cutlist.csv', 'Cut list, CSV'],
            ['report.json', 'Proof report, JSON'],
            ['piece.json', 'Piece document'],
          ] satisfies [string, string][]
        ).map(([file, words]) => (
          <FileButton
            key={file}
            file={file}
            query={variant && file !== 'piece.json' ? `?variant=${variant}` : ''}
            words={words}
          />
        ))}
      </p>
      <Template />
    </>
  );
}

/** The 1:1 template: which paper, and what the check lines of the last print measured. */
function Template() {
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
        <select className="field" value={paper} onChange={(event) => setPaper(event.target.value)} aria-label="Paper">
          <option value="a4">A4</option>
          <option value="a3">A3</option>
          <option value="letter">Letter</option>
        </select>
      </label>
      <label>
        check lines of {line} measured{' '}
        <input
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
        <input
          className="field num"
          size={8}
          value={up}
          placeholder={line}
          aria-label="Check line up measured"
          onChange={(event) => setUp(event.target.value)}
        />
      </label>
      <button
        type="button"
        className="btn"
        onClick={() => void download(`/api/pieces/${id}/template.pdf?${query.toString()}`)}
      >
        {across.trim() || up.trim() ? 'Corrected template, PDF' : 'Template, PDF'}
      </button>
    </p>
  );
}
