// Perforations of the blank: drawn as repeated tiles when far, as they are when near. Fifteen thousand holes as one
// path take a second to paint; as tiles a few thousandths.
import { useEffect, useMemo, useRef } from 'react';
import type { Schemas } from '../../api/client';
import { bytes } from '../../bench/mesh';
import { put } from '../../bench/stamps';

type Field = Schemas['FieldView'];

/** A hole larger than this on the screen is drawn as it is, pixels. */
const NEAR = 40;
/** What is put on it are numbers, not commands for a card. */
const BY_PROCESSOR: CanvasRenderingContext2DSettings = { willReadFrequently: true };

/** A perforation with its places as numbers and the box round them, mm. */
interface Placed {
  field: Field;
  places: Float32Array;
  /** One hole about its place. */
  ring: DOMRect;
  /** All of them. */
  box: { x: number; y: number; width: number; height: number };
}

const boxes = new Map<string, DOMRect>();
/** The most paths whose boxes are kept. */
const MOST_KEPT = 100;

/** The box of one hole about its place, as the browser measures it: that lays the page out, so it is kept. */
function ringBox(path: string): DOMRect {
  const known = boxes.get(path);
  if (known) return known;
  const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
  const own = document.createElementNS('http://www.w3.org/2000/svg', 'path');
  own.setAttribute('d', `M0 0${path}`);
  svg.append(own);
  svg.style.cssText = 'position:absolute;width:0;height:0;visibility:hidden';
  document.body.append(svg);
  // What cannot be measured (no layout) has no box.
  const box = own.getBBox();
  svg.remove();
  if (boxes.size >= MOST_KEPT) boxes.clear();
  boxes.set(path, box);
  return box;
}

/** Perforations with their places. */
export function usePlaced(fields: Field[] | undefined): Placed[] {
  return useMemo(
    () =>
      (fields ?? []).map((field) => {
        const places = new Float32Array(bytes(field.places));
        const ring = ringBox(field.path);
        let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
        for (let at = 0; at < places.length; at += 2) {
          x0 = Math.min(x0, places[at]!);
          x1 = Math.max(x1, places[at]!);
          y0 = Math.min(y0, places[at + 1]!);
          y1 = Math.max(y1, places[at + 1]!);
        }
        const box = {
          x: x0 + ring.x,
          y: y0 + ring.y,
          width: x1 - x0 + ring.width,
          height: y1 - y0 + ring.height,
        };
        return { field, places, ring, box };
      }),
    [fields],
  );
}

interface Look {
  fill: string;
  stroke: string;
  width: number;
}

/** Draws one perforation; how many of its holes were in sight. */
function draw(pen: CanvasRenderingContext2D, one: Placed, box: number[], scale: number, look: Look): number {
  const [left, top, wide, high] = box as [number, number, number, number];
  const { places, ring, field } = one;
  const inSight = (x: number, y: number) =>
    x + ring.x + ring.width > left &&
    x + ring.x < left + wide &&
    y + ring.y + ring.height > top &&
    y + ring.y < top + high;
  const path = new Path2D(`M0 0${field.path}`);
  const size = Math.max(ring.width, ring.height) * scale;
  const paint = (to: CanvasRenderingContext2D) => {
    to.fillStyle = look.fill;
    to.strokeStyle = look.stroke;
    to.lineWidth = look.width / scale;
    to.fill(path);
    to.stroke(path);
  };
  let count = 0;
  if (size > NEAR) {
    for (let at = 0; at < places.length; at += 2) {
      const [x, y] = [places[at]!, places[at + 1]!];
      if (!inSight(x, y)) continue;
      pen.setTransform(scale, 0, 0, scale, (x - left) * scale, (y - top) * scale);
      paint(pen);
      count += 1;
    }
  } else {
    const margin = look.width + 1;
    const seen: number[] = [];
    for (let at = 0; at < places.length; at += 2) {
      const [x, y] = [places[at]!, places[at + 1]!];
      if (!inSight(x, y)) continue;
      seen.push((x - left) * scale, (y - top) * scale);
      count += 1;
    }
    const stamp = {
      x: ring.x * scale - margin,
      y: ring.y * scale - margin,
      width: ring.width * scale + 2 * margin,
      height: ring.height * scale + 2 * margin,
      draw: (own: CanvasRenderingContext2D) => {
        own.scale(scale, scale);
        paint(own);
      },
    };
    const picture = pen.getImageData(0, 0, pen.canvas.width, pen.canvas.height);
    put(picture, stamp, new Float32Array(seen));
    pen.putImageData(picture, 0, 0);
  }
  pen.setTransform(1, 0, 0, 1, 0, 0);
  return count;
}

export function FieldTiles({
  placed,
  box,
  room,
  lit,
}: {
  placed: Placed[];
  /** What part of the blank is shown: left, top, width, height, mm. */
  box: number[];
  /** How large that is on the screen, pixels. */
  room: { width: number; height: number };
  lit: (operation: string) => string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const looks = placed.map((one) => lit(one.field.operation)).join(',');
  const [left, top, wide, high] = box;
  useEffect(() => {
    const own = canvas.current;
    const pen = own?.getContext('2d', BY_PROCESSOR);
    if (!own || !pen) return;
    const fine = window.devicePixelRatio || 1;
    own.width = Math.max(1, Math.round(room.width * fine));
    own.height = Math.max(1, Math.round(room.height * fine));
    const style = getComputedStyle(own);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    const scale = (room.width * fine) / (wide ?? 1);
    let count = 0;
    placed.forEach((one, at) => {
      const on = looks.split(',')[at] ?? '';
      count += draw(pen, one, [left, top, wide, high] as number[], scale, {
        fill: colour('--plate'),
        stroke: colour(on.includes('wrong') ? '--wrong' : on.includes('on') ? '--scribe' : '--chalk'),
        width: (on ? 1.6 : 0.8) * fine,
      });
    });
    own.dataset.drawn = String(count);
  }, [placed, looks, left, top, wide, high, room]);
  if (placed.length === 0) return null;
  return <canvas ref={canvas} className="fieldtiles" aria-hidden="true" />;
}
