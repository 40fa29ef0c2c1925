// A transition's edges from above and from the side. An edge between two panels is pointed at to make it a bend, a seam
// or a rip.
import { Menu, MenuItem } from '@mui/material';
import { useState } from 'react';
import type { BuildAnswer } from '../../api/client';
import { commit, useBench } from '../../bench/store';
import { JOINTS, joined, ownerOf } from './verbs/transition';

type Surface = BuildAnswer['surfaces'][number];

const WIDTH = 190;
const HEIGHT = 140;
const CLEAR = 14;

interface Chosen {
  between: string;
  anchor: Element;
}

export function SurfacePicture({ surface }: { surface: Surface }) {
  const [chosen, choose] = useState<Chosen | null>(null);
  const [under, point] = useState<string | null>(null);
  const piece = useBench((s) => s.document);
  const owner = chosen ? ownerOf(piece, surface.operation, chosen.between) : undefined;
  const told = surface.edges.find((one) => one.between === (chosen?.between ?? under));
  return (
    <div className="surface">
      {surface.views.map((view) => {
        const [x, y, width, height] = view.frame as [number, number, number, number];
        const scale = Math.min(
          (WIDTH - 2 * CLEAR) / Math.max(width, 1),
          (HEIGHT - 2 * CLEAR - 12) / Math.max(height, 1),
        );
        const middle = `translate(${-x - width / 2} ${-y - height / 2})`;
        const shift = `translate(${WIDTH / 2} ${HEIGHT / 2 - 6}) scale(${scale}) ${middle}`;
        return (
          <svg
            key={view.seen}
            viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
            role="group"
            aria-label={`${surface.operation} ${view.seen}: its edges between panels`}
          >
            <g transform={shift}>
              <path className="rim" d={view.rims} />
              {surface.edges.map((edge, index) => (
                <g
                  key={edge.between}
                  className={`edge ${edge.joint}${told === edge ? ' on' : ''}`}
                  role="button"
                  tabIndex={0}
                  aria-label={`${edge.between}: ${edge.joint}, ${edge.length}; change it`}
                  aria-haspopup="menu"
                  onPointerEnter={() => point(edge.between)}
                  onPointerLeave={() => point(null)}
                  onFocus={() => point(edge.between)}
                  onBlur={() => point(null)}
                  onClick={(event) => choose({ between: edge.between, anchor: event.currentTarget })}
                  onKeyDown={(event) => {
                    if (event.key !== 'Enter' && event.key !== ' ') return;
                    event.preventDefault();
                    choose({ between: edge.between, anchor: event.currentTarget });
                  }}
                >
                  <path className="near" d={view.edges[index]} />
                  <path d={view.edges[index]} />
                </g>
              ))}
            </g>
            <text x={WIDTH / 2} y={HEIGHT - 4}>
              {view.seen}
            </text>
          </svg>
        );
      })}
      <p className="small soft">
        {told
          ? `${told.between}: ${told.joint}, ${told.length} long, ${told.dihedral} between the panels`
          : 'Point at an edge to make it a bend, a seam or a rip.'}
      </p>
      <Menu
        open={chosen !== null}
        anchorEl={chosen?.anchor}
        onClose={() => choose(null)}
        transitionDuration={0}
        slotProps={{ list: { 'aria-label': `The edge ${chosen?.between ?? ''}`, dense: true } }}
      >
        {JOINTS.map(([joint, words]) => (
          <MenuItem
            key={joint}
            selected={told?.joint === joint}
            onClick={() => {
              if (chosen)
                void commit(
                  (piece) => joined(piece, surface.operation, chosen.between, joint),
                  `${chosen.between}: ${words}`,
                );
              choose(null);
            }}
          >
            {words}
          </MenuItem>
        ))}
        {told !== undefined &&
          told.joint !== 'bend' &&
          told.between.split('/').map((panel) => (
            <MenuItem
              key={panel}
              selected={owner === panel}
              onClick={() => {
                // Said again it is taken back.
                const next = owner === panel ? undefined : panel;
                void commit(
                  (now) => joined(now, surface.operation, told.between, told.joint, next),
                  `${told.between}: ${next === undefined ? 'edge to edge' : `${panel} goes through`}`,
                );
                choose(null);
              }}
            >
              {panel} goes through
            </MenuItem>
          ))}
      </Menu>
    </div>
  );
}
