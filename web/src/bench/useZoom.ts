// Nearer to a drawing and along it: the wheel goes in about the pointer, a drag moves it, a double click shows it
// whole.
import { useEffect, useRef, useState, type RefObject } from 'react';

interface Window {
  /** How much nearer than whole, 1 or more. */
  near: number;
  /** Where its middle is, as shares of the whole. */
  x: number;
  y: number;
}

const WHOLE: Window = { near: 1, x: 0.5, y: 0.5 };
const NEAREST = 60;
/** Further than this it is a drag and no click, pixels. */
const DRAG = 4;

export interface Zoom {
  /** The part of a box that is shown: left, top, width, height. */
  of: (box: [number, number, number, number]) => [number, number, number, number];
  near: number;
  whole: () => void;
  /** Whether the last press was a drag: the click that ends it picks nothing. */
  dragged: () => boolean;
}

/** Keeps the middle so that nothing beyond the whole is shown. */
const held = (now: Window): Window => {
  const half = 0.5 / now.near;
  const keep = (value: number) => Math.min(1 - half, Math.max(half, value));
  return now.near <= 1 ? WHOLE : { near: now.near, x: keep(now.x), y: keep(now.y) };
};

export function useZoom(drawing: RefObject<HTMLElement | SVGElement | null>): Zoom {
  const [shown, setShown] = useState(WHOLE);
  const drag = useRef<{ x: number; y: number; far: boolean } | null>(null);
  const far = useRef(false);
  useEffect(() => {
    const own = drawing.current;
    if (!own) return;
    const share = (event: MouseEvent) => {
      const box = own.getBoundingClientRect();
      return { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height };
    };
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const at = share(event);
      const by = Math.exp(-event.deltaY * 0.0015);
      setShown((old) => {
        const near = Math.min(NEAREST, Math.max(1, old.near * by));
        // What is under the pointer stays there.
        const under = { x: old.x + (at.x - 0.5) / old.near, y: old.y + (at.y - 0.5) / old.near };
        return held({ near, x: under.x - (at.x - 0.5) / near, y: under.y - (at.y - 0.5) / near });
      });
    };
    const onDown = (event: PointerEvent) => {
      drag.current = event.button === 0 ? { x: event.clientX, y: event.clientY, far: false } : null;
      far.current = false;
    };
    const onMove = (event: PointerEvent) => {
      const from = drag.current;
      if (!from || (event.buttons & 1) === 0) return;
      const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
      if (!from.far && Math.hypot(dx, dy) < DRAG) return;
      far.current = true;
      drag.current = { x: event.clientX, y: event.clientY, far: true };
      const box = own.getBoundingClientRect();
      setShown((old) =>
        held({ near: old.near, x: old.x - dx / box.width / old.near, y: old.y - dy / box.height / old.near }),
      );
    };
    const onUp = () => {
      drag.current = null;
    };
    const onDouble = () => setShown(WHOLE);
    const target = own as HTMLElement;
    target.addEventListener('wheel', onWheel, { passive: false });
    target.addEventListener('pointerdown', onDown);
    target.addEventListener('dblclick', onDouble);
    window.addEventListener('pointermove', onMove);
    window.addEventListener('pointerup', onUp);
    return () => {
      target.removeEventListener('wheel', onWheel);
      target.removeEventListener('pointerdown', onDown);
      target.removeEventListener('dblclick', onDouble);
      window.removeEventListener('pointermove', onMove);
      window.removeEventListener('pointerup', onUp);
    };
  }, [drawing]);
  return {
    of: ([left, top, width, height]) => [
      left + width * (shown.x - 0.5 / shown.near),
      top + height * (shown.y - 0.5 / shown.near),
      width / shown.near,
      height / shown.near,
    ],
    near: shown.near,
    whole: () => setShown(WHOLE),
    dragged: () => far.current,
  };
}
