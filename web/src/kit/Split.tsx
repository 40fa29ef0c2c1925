// Panes side by side or one over the other with dividers that are dragged, or moved with the arrow keys; a double
// click gives back what was there at first. What was set is remembered in this browser.
import { Fragment, type ReactNode } from 'react';
import { Group, Panel, Separator, useDefaultLayout, type LayoutStorage } from 'react-resizable-panels';

export interface Pane {
  id: string;
  /** What it is called beside a divider. */
  called: string;
  /** How much it has at first: pixels (`264px`) or a share (`40%`). */
  size?: string;
  /** It is never less than this. */
  least: string;
  /** Whether it keeps its pixels when the window changes. */
  keeps?: boolean;
  body: ReactNode;
}

/** Where nothing can be kept, nothing is: the panes are as at first. */
const STORAGE: LayoutStorage = {
  getItem: (key) => {
    try {
      return localStorage.getItem(key);
    } catch {
      return null;
    }
  },
  setItem: (key, value) => {
    try {
      localStorage.setItem(key, value);
    } catch {
      // Full or forbidden.
    }
  },
};

export function Split({ id, way, panes }: { id: string; way: 'horizontal' | 'vertical'; panes: Pane[] }) {
  const kept = useDefaultLayout({
    id: `steelk-${id}`,
    panelIds: panes.map((one) => one.id),
    storage: STORAGE,
    onlySaveAfterUserInteractions: true,
  });
  return (
    <Group
      className="split"
      orientation={way}
      defaultLayout={kept.defaultLayout}
      onLayoutChanged={kept.onLayoutChanged}
      resizeTargetMinimumSize={{ coarse: 40, fine: 10 }}
    >
      {panes.map((one, at) => (
        <Fragment key={one.id}>
          {at > 0 && (
            <Separator
              className={`divider ${way}`}
              aria-label={`Divider between ${panes[at - 1]?.called} and ${one.called}`}
            />
          )}
          <Panel
            id={one.id}
            className="pane"
            defaultSize={one.size}
            minSize={one.least}
            groupResizeBehavior={one.keeps ? 'preserve-pixel-size' : 'preserve-relative-size'}
          >
            {one.body}
          </Panel>
        </Fragment>
      ))}
    </Group>
  );
}
