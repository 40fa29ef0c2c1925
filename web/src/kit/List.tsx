// A table of figures: MUI's, with its head and rows written as they are.
import { Table, type TableProps } from '@mui/material';

export function List({ className = 'list', ...rest }: TableProps) {
  return <Table className={className} {...rest} />;
}
