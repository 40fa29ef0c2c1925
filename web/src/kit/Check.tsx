// A yes or no beside its words: MUI's check box.
import { Checkbox } from '@mui/material';

interface Props {
  checked: boolean;
  change: (checked: boolean) => void;
  label?: string;
}

export function Check({ checked, change, label }: Props) {
  return (
    <Checkbox
      size="small"
      checked={checked}
      onChange={(event) => change(event.target.checked)}
      slotProps={{ input: label ? { 'aria-label': label } : {} }}
      sx={{ padding: '3px', color: 'inherit', '&.Mui-checked': { color: 'var(--copper)' } }}
    />
  );
}
