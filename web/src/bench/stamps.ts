// Many copies of one small picture, put on a canvas by the processor. A canvas takes a tenth of a second for fifteen
// thousand of its own copies; as numbers in one array they take a few thousandths.

/** A copy may lie at so many places within a pixel, each way. */
const PHASES = 4;

/** A picture about its own place: from `x`, `y` to `x + width`, `y + height`, pixels. */
export interface Stamp {
  x: number;
  y: number;
  width: number;
  height: number;
  /** Draws it about the pen's own zero. */
  draw: (pen: CanvasRenderingContext2D) => void;
}

/** A stamp as pixels, each a number with how dense it is in the highest eight bits. */
export interface Made {
  data: Uint32Array;
  wide: number;
  high: number;
}

/** The picture with its place at (left, top) and parts `x`, `y` of a pixel. */
function drawn(stamp: Stamp, left: number, top: number, x: number, y: number): Made | null {
  const canvas = document.createElement('canvas');
  const [wide, high] = [left + Math.ceil(stamp.x + stamp.width) + 2, top + Math.ceil(stamp.y + stamp.height) + 2];
  canvas.width = wide;
  canvas.height = high;
  const pen = canvas.getContext('2d', { willReadFrequently: true });
  if (!pen) return null;
  pen.translate(left + x, top + y);
  stamp.draw(pen);
  return { data: new Uint32Array(pen.getImageData(0, 0, wide, high).data.buffer), wide, high };
}

/** Puts copies of a stamp on a picture: `places` are x, y, x, y in its pixels. Where two meet, the denser is seen. */
export function put(
  picture: Pick<ImageData, 'data' | 'width' | 'height'>,
  stamp: Stamp,
  places: Float32Array,
  make = drawn,
): void {
  const out = new Uint32Array(picture.data.buffer);
  const { width, height } = picture;
  const [left, top] = [Math.ceil(-stamp.x) + 1, Math.ceil(-stamp.y) + 1];
  const stamps = new Map<number, Made | null>();
  for (let one = 0; one < places.length; one += 2) {
    const [across, down] = [Math.round(places[one]! * PHASES), Math.round(places[one + 1]! * PHASES)];
    const [x, y] = [Math.floor(across / PHASES), Math.floor(down / PHASES)];
    const phase = (down - y * PHASES) * PHASES + (across - x * PHASES);
    let own = stamps.get(phase);
    if (own === undefined) {
      own = make(stamp, left, top, across / PHASES - x, down / PHASES - y);
      stamps.set(phase, own);
    }
    if (!own) return;
    const [fromX, fromY] = [x - left, y - top];
    const [x0, x1] = [Math.max(0, -fromX), Math.min(own.wide, width - fromX)];
    const [y0, y1] = [Math.max(0, -fromY), Math.min(own.high, height - fromY)];
    for (let row = y0; row < y1; row += 1) {
      let to = (fromY + row) * width + fromX + x0;
      let from = row * own.wide + x0;
      for (let column = x0; column < x1; column += 1, to += 1, from += 1) {
        const seen = own.data[from]!;
        if (seen >>> 24 > out[to]! >>> 24) out[to] = seen;
      }
    }
  }
}
