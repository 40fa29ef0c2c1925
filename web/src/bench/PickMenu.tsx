// What can be done with what is pointed at, and what can be measured of it: a menu beside the pointer.
import {
  ClickAwayListener,
  Divider,
  ListItemText,
  ListSubheader,
  MenuItem,
  MenuList,
  Paper,
  Popper,
} from '@mui/material';
import { useEffect, useMemo, useRef } from 'react';
import { addMeasured, measureBy } from './measuring';
import { startDraft } from './draft';
import { lookAt } from './looking';
import { useBench } from './store';
import { useOffers } from './useOffers';
import { VerbPicture } from './VerbPicture';

/** The most words of what is chosen that stand on the menu. */
const MOST_SHOWN = 3;

export function PickMenu() {
  const menu = useBench((s) => s.menu);
  const picks = useBench((s) => s.picks);
  const measuring = useBench((s) => s.measuring);
  const { offers, fault } = useOffers(menu ? picks : null);
  const list = useRef<HTMLUListElement>(null);
  const anchor = useMemo(
    () => ({
      getBoundingClientRect: () => new DOMRect((menu?.x ?? 0) + 8, (menu?.y ?? 0) + 8, 0, 0),
    }),
    [menu],
  );
  useEffect(() => {
    if (offers && menu) list.current?.focus({ preventScroll: true });
  }, [offers, menu]);
  if (!menu || picks.length === 0) return null;
  const close = () => useBench.setState({ menu: null });
  const said = offers?.pointed.map((one) => one.words ?? `${one.name}, which is no longer there`) ?? picks;
  const title =
    said.length > MOST_SHOWN
      ? `${said.slice(0, MOST_SHOWN).join('; ')} and ${said.length - MOST_SHOWN} more`
      : said.join('; ');
  const shown = measuring ? [] : (offers?.offers ?? []);
  const readings = offers?.readings ?? [];
  return (
    <Popper
      open
      anchorEl={anchor}
      placement="bottom-start"
      style={{ zIndex: 20 }}
      // Fixed: until it is moved to its place it makes the page no longer, and the focus in it scrolls nothing.
      popperOptions={{ strategy: 'fixed' }}
      modifiers={[
        { name: 'flip', enabled: true },
        // A long menu that has no room on either side is moved until all of it is on the screen.
        { name: 'preventOverflow', enabled: true, options: { altAxis: true, padding: 8 } },
      ]}
    >
      <ClickAwayListener onClickAway={close} mouseEvent="onMouseDown" touchEvent="onTouchStart">
        <Paper className="pickmenu">
          <MenuList
            ref={list}
            dense
            autoFocusItem={offers !== null}
            aria-label={`What can be done with ${title}`}
            subheader={<ListSubheader component="div">{title}</ListSubheader>}
            onKeyDown={(event) => {
              if (event.key !== 'Escape' && event.key !== 'Tab') return;
              event.stopPropagation();
              event.preventDefault();
              close();
            }}
          >
            {shown.map((one, index) => (
              <MenuItem key={one.words + String(index)} onClick={() => startDraft(one)}>
                <VerbPicture of={one} />
                <ListItemText>{one.words}</ListItemText>
              </MenuItem>
            ))}
            {shown.length > 0 && readings.length > 0 && <Divider component="li" />}
            {readings.map((one) => (
              <MenuItem
                key={one.words}
                onFocus={() => useBench.setState({ reading: one })}
                onMouseEnter={() => useBench.setState({ reading: one })}
                onMouseLeave={() => useBench.setState({ reading: null })}
                onClick={() => void (measuring ? measureBy(measuring, one) : addMeasured(one))}
              >
                <ListItemText>{measuring ? `${measuring} is the ${one.words}` : `Call out: ${one.words}`}</ListItemText>
                <span className="num">{one.text}</span>
              </MenuItem>
            ))}
            {!measuring && picks.length === 1 && (
              <MenuItem onClick={() => lookAt(picks[0] ?? '')}>
                <ListItemText>Look square at this</ListItemText>
                <span className="soft num">S</span>
              </MenuItem>
            )}
            {!measuring && (
              <MenuItem
                onClick={() =>
                  useBench.setState({ menu: null, joining: true, message: 'Point at what is to be chosen with it.' })
                }
              >
                <ListItemText>Choose one more with this</ListItemText>
                <span className="soft num">Shift</span>
              </MenuItem>
            )}
            {!offers && !fault && <MenuItem disabled>looking…</MenuItem>}
            {fault && <MenuItem disabled>{fault}</MenuItem>}
            {offers && shown.length + readings.length === 0 && measuring && (
              <MenuItem disabled>Nothing of this can be measured alone: point at a second place.</MenuItem>
            )}
          </MenuList>
        </Paper>
      </ClickAwayListener>
    </Popper>
  );
}
