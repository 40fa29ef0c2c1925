// Centre lines brought in from a DXF or CSV file.
import { useRef } from 'react';
import { client, must, words, type Operation, type Piece } from '../../api/client';
import { freshName, operations } from '../../bench/edit';
import { commit, selectOperation, useBench } from '../../bench/store';
import { Act } from '../../kit/Act';
import { FileInput } from '../../kit/FileInput';

export function CentreLines({ piece }: { piece: Piece }) {
  const caret = useBench((s) => s.caret);
  const file = useRef<HTMLInputElement>(null);
  const bring = async (picked: File | undefined) => {
    if (!picked) return;
    try {
      if (picked.size > 2 * 1024 * 1024) throw new Error(`${picked.name} has more than 2 MiB; split it.`);
      const lines = await must(
        client.POST('/api/centre-lines', { body: { name: picked.name, text: await picked.text(), unit: piece.unit } }),
      );
      const operation: Operation = { name: freshName(piece, 'lines'), do: { lines } };
      const refused = await commit(
        (now) => {
          const list = operations(now);
          const place = caret ?? list.length;
          return { ...now, operations: [...list.slice(0, place), operation, ...list.slice(place)] };
        },
        `brought in ${picked.name}`,
        { operation: operation.name },
      );
      if (refused) useBench.setState({ message: refused });
      else selectOperation(operation.name);
    } catch (fault) {
      useBench.setState({ message: words(fault) });
    }
  };
  return (
    <>
      <FileInput ref={file} accept=".dxf,.csv" label="Centre line file" pick={(picked) => void bring(picked)} />
      <Act className="soft" style={{ margin: '0 12px 10px', alignSelf: 'start' }} onClick={() => file.current?.click()}>
        centre lines from a DXF or CSV file…
      </Act>
    </>
  );
}
