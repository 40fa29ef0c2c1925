// A profile or a roll seen from its end, as it will be: the metal's section with its legs' names.
import type { Schemas } from '../../api/client';

const WIDTH = 300;
const HEIGHT = 130;

export function SectionPicture({ section }: { section: Schemas['SectionView'] }) {
  const [x, y, width, height] = section.extents as [number, number, number, number];
  const scale = Math.min((WIDTH - 90) / Math.max(width, 1), (HEIGHT - 36) / Math.max(height, 1));
  const place = (at: { x: number; y: number }) => ({
    x: (at.x - x - width / 2) * scale + WIDTH / 2,
    y: HEIGHT / 2 - (at.y - y - height / 2) * scale,
  });
  const outline = section.outline.map((point, index) => {
    const to = place(point as { x: number; y: number });
    return `${index === 0 ? 'M' : 'L'}${to.x.toFixed(2)} ${to.y.toFixed(2)}`;
  });
  return (
    <svg
      className="section"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`Seen from its end: ${section.words}`}
    >
      <path d={`${outline.join(' ')} Z`} />
      {section.names.map((one) => {
        const to = place(one);
        return (
          <text key={one.name} x={to.x} y={to.y}>
            {one.name}
          </text>
        );
      })}
      <text x={WIDTH - 6} y={HEIGHT - 6} className="words">
        {section.words}
      </text>
    </svg>
  );
}
