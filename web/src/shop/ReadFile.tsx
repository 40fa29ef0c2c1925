// A table of the shop read from a file: a change that is not saved until it is.
import { useRef } from 'react';
import { Act } from '../kit/Act';
import { FileInput } from '../kit/FileInput';

/** The largest file that is read, bytes. */
const LARGEST = 1024 * 1024;

export function ReadFile({
  label,
  accept,
  children,
  read,
  refused,
}: {
  /** What the file is, for who hears it: `Cutters as TOML`. */
  label: string;
  accept: string;
  children: string;
  read: (text: string, name: string) => void;
  refused: (why: string) => void;
}) {
  const file = useRef<HTMLInputElement>(null);
  const pick = async (picked: File | undefined) => {
    if (!picked) return;
    if (picked.size > LARGEST)
      refused(`${picked.name} has ${(picked.size / LARGEST).toFixed(1)} MB; a table of the shop may have 1 MB.`);
    else read(await picked.text(), picked.name);
  };
  return (
    <>
      <FileInput ref={file} accept={accept} label={label} pick={(picked) => void pick(picked)} />
      <Act kind="line" onClick={() => file.current?.click()}>
        {children}
      </Act>
    </>
  );
}
