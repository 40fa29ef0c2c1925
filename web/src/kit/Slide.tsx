// A value by how far a knob is drawn: MUI's slider.
import { Slider } from '@mui/material';

interface Props {
  label: string;
  /** What it stands at in words, where the number alone says little. */
  words?: string;
  least: number;
  most: number;
  step: number;
  value: number;
  change: (value: number) => void;
  width?: number;
}

export function Slide({ label, words, least, most, step, value, change, width = 140 }: Props) {
  return (
    <Slider
      size="small"
      aria-label={label}
      {...(words ? { getAriaValueText: () => words } : {})}
      min={least}
      max={most}
      step={step}
      value={value}
      onChange={(_, now) => change(now)}
      sx={{ width, mx: 1, py: '12px', verticalAlign: 'middle', color: 'var(--scribe)' }}
    />
  );
}
