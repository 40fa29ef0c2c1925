// What opens from a strip along the bottom: a title, a way to close it, what is in it. It is docked under the work or
// beside it, as large as it was left, and never lies over the work.
import { useMediaQuery } from '@mui/material';
import type { ReactNode } from 'react';
import { Act } from '../kit/Act';
import { Glyph } from '../kit/Glyph';
import { Split } from '../kit/Split';
import { useSettings } from '../settings';

/** Narrower than this there is no room beside the work. */
const BESIDE = '(min-width: 1101px)';

interface Detail {
  title: string;
  close: () => void;
  body: ReactNode;
}

/** The work with what is open docked to it. */
export function Docked({ id, detail, children }: { id: string; detail: Detail | null; children: ReactNode }) {
  const dock = useSettings((s) => s.dock);
  const room = useMediaQuery(BESIDE, { noSsr: true });
  const way = room && dock === 'beside' ? 'horizontal' : 'vertical';
  const work = { id: 'work', called: 'the work', least: '30%', body: children };
  const open = detail && {
    id: 'detail',
    called: detail.title,
    size: way === 'horizontal' ? '30%' : '42%',
    least: way === 'horizontal' ? '280px' : '120px',
    body: <DetailPanel {...detail} way={way} room={room} />,
  };
  return (
    <main className="docked">
      <Split key={way} id={`${id}-${way}`} way={way} panes={open ? [work, open] : [work]} />
    </main>
  );
}

function DetailPanel({ title, close, body, way, room }: Detail & { way: string; room: boolean }) {
  const setDock = useSettings((s) => s.setDock);
  return (
    <section className={`detail ${way}`} aria-label={title}>
      <div style={{ display: 'flex', alignItems: 'center', gap: 6 }}>
        <h3 style={{ flex: 1 }}>{title}</h3>
        {room &&
          (way === 'horizontal' ? (
            <Glyph icon="below" words="Dock it below" press={() => setDock('below')} />
          ) : (
            <Glyph icon="beside" words="Dock it beside" press={() => setDock('beside')} />
          ))}
        <Act onClick={close}>close (Esc)</Act>
      </div>
      {body}
    </section>
  );
}
