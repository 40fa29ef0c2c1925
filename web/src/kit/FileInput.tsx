// Where a file is picked; a button of ours opens it, and the same file can be picked again.
import type { Ref } from 'react';

interface Props {
  ref: Ref<HTMLInputElement>;
  accept: string;
  label: string;
  pick: (file: File | undefined) => void;
}

export function FileInput({ ref, accept, label, pick }: Props) {
  return (
    <input
      ref={ref}
      type="file"
      accept={accept}
      hidden
      aria-label={label}
      onChange={(event) => {
        pick(event.target.files?.[0]);
        event.target.value = '';
      }}
    />
  );
}
