// A button that is a picture: its words are its label and come up beside it.
import ContentCopy from '@mui/icons-material/ContentCopyOutlined';
import TableChart from '@mui/icons-material/TableViewOutlined';
import ArrowUp from '@mui/icons-material/ArrowUpward';
import ArrowDown from '@mui/icons-material/ArrowDownward';
import Close from '@mui/icons-material/Close';
import Pause from '@mui/icons-material/PauseCircleOutlined';
import Play from '@mui/icons-material/PlayCircleOutlined';
import Edit from '@mui/icons-material/EditOutlined';
import Download from '@mui/icons-material/FileDownloadOutlined';
import Undo from '@mui/icons-material/Undo';
import Redo from '@mui/icons-material/Redo';
import Swap from '@mui/icons-material/SwapHoriz';
import Fit from '@mui/icons-material/FitScreenOutlined';
import Beside from '@mui/icons-material/VerticalSplitOutlined';
import Below from '@mui/icons-material/HorizontalSplitOutlined';
import { IconButton, Tooltip } from '@mui/material';

const ICONS = {
  copy: ContentCopy,
  table: TableChart,
  up: ArrowUp,
  down: ArrowDown,
  out: Close,
  rest: Pause,
  work: Play,
  edit: Edit,
  file: Download,
  undo: Undo,
  redo: Redo,
  fit: Fit,
  swap: Swap,
  beside: Beside,
  below: Below,
};

/** No smaller than a target may be; larger under touch. */
const SQUARE = { width: 28, height: 28, color: 'inherit', '@media (pointer: coarse)': { width: 40, height: 40 } };

export type GlyphName = keyof typeof ICONS;

export function Glyph({
  icon,
  words,
  press,
  disabled = false,
  keys,
}: {
  icon: GlyphName;
  /** What it does. */
  words: string;
  press: () => void;
  disabled?: boolean;
  /** The key that does the same, as it is written. */
  keys?: string;
}) {
  const Icon = ICONS[icon];
  return (
    <Tooltip title={keys ? `${words} (${keys})` : words}>
      <span>
        <IconButton size="small" aria-label={words} disabled={disabled} onClick={press} sx={SQUARE}>
          <Icon fontSize="inherit" />
        </IconButton>
      </span>
    </Tooltip>
  );
}

/** The same for a file of the server's. */
export function GlyphLink({ icon, words, href }: { icon: GlyphName; words: string; href: string }) {
  const Icon = ICONS[icon];
  return (
    <Tooltip title={words}>
      <IconButton size="small" component="a" href={href} download aria-label={words} sx={SQUARE}>
        <Icon fontSize="inherit" />
      </IconButton>
    </Tooltip>
  );
}
