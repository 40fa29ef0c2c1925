// The photo or scan that an outline is traced from: putting it in, and its size.
import { useEffect, useRef, useState } from 'react';
import { sendFile, words } from '../../api/client';
import { useBench } from '../../bench/store';
import { Act } from '../../kit/Act';
import { FileInput } from '../../kit/FileInput';

export interface TracedPicture {
  url: string;
  width: number;
  height: number;
}

/** The piece's photo with its size in pixels, once it is loaded. */
export function usePicture(): TracedPicture | null {
  const { id, hasPhoto, photoStamp } = useBench();
  const [picture, setPicture] = useState<TracedPicture | null>(null);
  useEffect(() => {
    setPicture(null);
    if (!hasPhoto) return;
    const url = `/api/pieces/${id}/photo?at=${photoStamp}`;
    const image = new Image();
    let stale = false;
    image.onload = () => !stale && setPicture({ url, width: image.naturalWidth, height: image.naturalHeight });
    image.onerror = () =>
      !stale && useBench.setState({ message: 'The photo cannot be shown: it is broken. Put it in again.' });
    image.src = url;
    return () => {
      stale = true;
    };
  }, [id, hasPhoto, photoStamp]);
  return picture;
}

export function TracePicture() {
  const { id, hasPhoto } = useBench();
  const file = useRef<HTMLInputElement>(null);
  const upload = async (picked: File | undefined) => {
    if (!picked) return;
    if (file.current) file.current.value = '';
    try {
      if (picked.size > 20 * 1024 * 1024)
        throw new Error(
          `${picked.name} has ${(picked.size / 1024 / 1024).toFixed(1)} MB; a picture may have 20 MB. ` +
            `Scan it coarser or crop it.`,
        );
      await sendFile('PUT', `/api/pieces/${id}/photo`, picked);
      useBench.setState({
        hasPhoto: true,
        photoStamp: Date.now(),
        message: 'The picture is in. Set its scale: two points and the length measured between them.',
      });
    } catch (fault) {
      useBench.setState({ message: words(fault) });
    }
  };
  return (
    <>
      <FileInput
        ref={file}
        accept="image/png,image/jpeg,image/webp"
        label="Picture file to trace"
        pick={(picked) => void upload(picked)}
      />
      <Act onClick={() => file.current?.click()}>{hasPhoto ? 'another picture' : 'trace a picture'}</Act>
    </>
  );
}
