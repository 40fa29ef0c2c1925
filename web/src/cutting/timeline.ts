// Where the simulated head is and when: unpacked from the answer, looked up by time.

/** s, x, y (down), state: 0 tool off, 1 on, 2 standing. */
export interface Timeline {
  values: Float32Array;
  count: number;
  seconds: number;
}

export interface Head {
  x: number;
  y: number;
  state: number;
  /** The last point that the head has reached. */
  at: number;
}

export function unpack(text: string): Timeline {
  const binary = atob(text);
  const bytes = new Uint8Array(binary.length);
  for (let at = 0; at < binary.length; at += 1) bytes[at] = binary.charCodeAt(at);
  const view = new DataView(bytes.buffer);
  const values = new Float32Array(bytes.length / 4);
  for (let at = 0; at < values.length; at += 1) values[at] = view.getFloat32(at * 4, true);
  const count = values.length / 4;
  return { values, count, seconds: count > 0 ? (values[(count - 1) * 4] ?? 0) : 0 };
}

/** Where the head is at a time; it starts from the zero. */
export function headAt({ values, count }: Timeline, time: number): Head {
  let [low, high] = [0, count];
  // The first point later than the time.
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((values[middle * 4] ?? 0) > time) high = middle;
    else low = middle + 1;
  }
  const of = (index: number) =>
    (index < 0
      ? [0, 0, 0, 0]
      : [
          values[index * 4] ?? 0,
          values[index * 4 + 1] ?? 0,
          values[index * 4 + 2] ?? 0,
          values[index * 4 + 3] ?? 0,
        ]) as [number, number, number, number];
  const [t0, x0, y0] = of(low - 1);
  if (low >= count) return { x: x0, y: y0, state: 0, at: count - 1 };
  const [t1, x1, y1, state] = of(low);
  const share = t1 > t0 ? (time - t0) / (t1 - t0) : 1;
  return { x: x0 + (x1 - x0) * share, y: y0 + (y1 - y0) * share, state, at: low - 1 };
}

/** Time in words: `1 h 02 min 03 s`. */
export function clock(seconds: number): string {
  if (seconds < 60) return `${seconds.toFixed(1)} s`;
  const whole = Math.round(seconds);
  const [hours, minutes, rest] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  const two = (value: number) => String(value).padStart(2, '0');
  return hours > 0 ? `${hours} h ${two(minutes)} min ${two(rest)} s` : `${minutes} min ${two(rest)} s`;
}
