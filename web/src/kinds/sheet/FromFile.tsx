// An outline from a file, as work.
import { useRef, useState } from 'react';
import type { Operation, Piece, Schemas } from '../../api/client';
import { freshName, operations } from '../../bench/edit';
import { commit, selectOperation, useBench } from '../../bench/store';
import { OutlineFile } from '../../parts/OutlineFile';
import { Act } from '../../kit/Act';
import { FileInput } from '../../kit/FileInput';

/** An outline from a DXF or SVG file, as the base or cut into a panel. */
export function FromFile({ piece }: { piece: Piece }) {
  const panels = useBench((s) => s.answer?.names.panels) ?? [];
  const caret = useBench((s) => s.caret);
  const file = useRef<HTMLInputElement>(null);
  const [picked, setPicked] = useState<File | null>(null);
  const add = async (operation: Operation): Promise<string | null> => {
    const refused = await commit(
      (now) => {
        const list = operations(now);
        const place = caret ?? list.length;
        return { ...now, operations: [...list.slice(0, place), operation, ...list.slice(place)] };
      },
      `added ${operation.name} from a file`,
      { operation: operation.name },
    );
    if (!refused) selectOperation(operation.name);
    return refused;
  };
  const cut = (panel: string) => ({
    words: `Cut it into ${panel}`,
    run: (shape: Schemas['OutlineAnswer']['shape']) =>
      add({ name: freshName(piece, 'cutout'), do: { cut: { panel, outline: shape } } }),
  });
  const lay = {
    words: 'Lay it down as the base',
    run: (shape: Schemas['OutlineAnswer']['shape']) =>
      add({ name: freshName(piece, 'base'), do: { lay_down: { shape } } }),
  };
  return (
    <>
      <FileInput ref={file} accept=".dxf,.svg" label="Outline file" pick={(picked) => setPicked(picked ?? null)} />
      <Act className="soft" style={{ margin: '0 12px 10px', alignSelf: 'start' }} onClick={() => file.current?.click()}>
        an outline from a DXF or SVG file…
      </Act>
      {picked && (
        <OutlineFile
          file={picked}
          acts={panels.length > 0 ? panels.slice(0, 6).map(cut) : [lay]}
          leave={() => setPicked(null)}
        />
      )}
    </>
  );
}
