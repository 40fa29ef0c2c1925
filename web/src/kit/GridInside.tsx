// The grid itself, in our clothes: its rows, its tools, and what the keyboard does in a cell.
import {
  DataGrid,
  gridExpandedSortedRowEntriesSelector,
  useGridApiRef,
  type GridColDef,
  type GridSortModel,
} from '@mui/x-data-grid';
import { useMemo, useState } from 'react';
import { asText, exportedHead, shownValue, type Column } from './columns';
import { Glyph } from './Glyph';
import { Input } from './Input';

/** Where the rows come a page at a time, sorted by who has them. */
export type Paged = {
  found: number;
  page: number;
  most: number;
  turn: (page: number, most: number) => void;
  sort: [key: string, rising: boolean];
  sortBy: (key: string, rising: boolean) => void;
  sortable: string[];
  /** All the rows, for copying and exporting. */
  all: () => Promise<unknown[]>;
};

export type Props<Row> = {
  /** What the list is of, for its label and the file it is exported to. */
  label: string;
  rows: Row[];
  columns: Column<Row>[];
  idOf: (row: Row) => string | number;
  /** Which rows the pointer is over. */
  hover?: (row: Row | null) => void;
  /** Without a field to find in it: the page has one. */
  unsearched?: boolean;
  /** What stands before the list's own tools. */
  tools?: React.ReactNode;
  paged?: Paged;
  /** Where a message goes. */
  say: (words: string) => void;
};

const PAGES = [25, 50, 100];

/** Paper and ink: no frame, thin rules, figures upright. */
const DRESS = {
  '--DataGrid-t-color-border-base': 'var(--thin)',
  '--DataGrid-t-color-background-base': 'transparent',
  '--DataGrid-t-header-background-base': 'var(--ground)',
  border: 0,
  font: 'inherit',
  color: 'inherit',
  '& .MuiDataGrid-columnHeaderTitle': { fontWeight: 600, color: 'var(--soft)', fontSize: 12 },
  '& .MuiDataGrid-columnHeaders [role="row"]': { borderBottom: '1.5px solid var(--ink)' },
  '& .MuiDataGrid-cell': { padding: '5px 8px', lineHeight: '22px' },
  '& .MuiDataGrid-columnHeader': { padding: '0 8px' },
  '& .num': { whiteSpace: 'nowrap' },
  '& .MuiDataGrid-cell .MuiIconButton-root': { margin: '-3px 0' },
  '& .MuiDataGrid-row:hover': { background: 'var(--sheet)' },
  '& .MuiDataGrid-cell:focus, & .MuiDataGrid-cell:focus-within, & .MuiDataGrid-columnHeader:focus': {
    outlineColor: 'var(--copper)',
  },
  '& .MuiDataGrid-footerContainer': { minHeight: 36, border: 0 },
  '& .MuiDataGrid-iconButtonContainer, & .MuiDataGrid-menuIcon': { color: 'var(--soft)' },
} as const;

/** Enter in a cell presses what is in it. */
function pressInside(event: React.KeyboardEvent) {
  if (event.key !== 'Enter' || event.target !== event.currentTarget) return;
  const inside = event.currentTarget.querySelector<HTMLElement>('a, button, summary');
  if (!inside) return;
  event.preventDefault();
  inside.click();
}

export default function GridInside<Row>(props: Props<Row>) {
  const { label, rows, columns, idOf, hover, paged, tools, say } = props;
  const apiRef = useGridApiRef();
  const [find, setFind] = useState('');
  const laid = useMemo(
    () =>
      columns.map((one): GridColDef => ({
        field: one.key,
        headerName: exportedHead(one),
        renderHeader: () => <span className="MuiDataGrid-columnHeaderTitle">{one.head}</span>,
        valueGetter: (_, row: Row) => one.value(row),
        renderCell: ({ row }: { row: Row }) =>
          one.show ? (
            one.show(row)
          ) : (
            <span className={one.figure || typeof one.value(row) === 'number' ? 'num' : undefined}>
              {shownValue(one, row)}
            </span>
          ),
        type: one.unit || rows.some((row) => typeof one.value(row) === 'number') ? 'number' : 'string',
        sortable: !one.drawn && (!paged || paged.sortable.includes(one.key)),
        filterable: !one.drawn && !paged,
        disableColumnMenu: one.drawn || paged !== undefined,
        minWidth: one.width ?? 60,
        ...(one.width ? { width: one.width } : {}),
        ...(one.grow ? { flex: one.grow } : {}),
      })),
    [columns, rows, paged],
  );
  const needle = find.trim().toLowerCase();
  const shown = needle
    ? rows.filter((row) =>
        columns
          .filter((one) => !one.drawn)
          .map((one) => shownValue(one, row))
          .join(' ')
          .toLowerCase()
          .includes(needle),
      )
    : rows;
  /** What is copied and exported: all there is, or what is found, in the order shown. */
  const told = async () =>
    paged
      ? ((await paged.all()) as Row[])
      : gridExpandedSortedRowEntriesSelector(apiRef).map(({ model }) => model as Row);
  const send = async (how: 'copy' | 'file') => {
    try {
      const found = await told();
      if (how === 'copy') {
        await navigator.clipboard.writeText(asText(columns, found, '\t'));
        say(`The list of ${found.length} is copied.`);
        return;
      }
      const link = document.createElement('a');
      // The mark before the text tells spreadsheets that it is UTF-8.
      link.href = URL.createObjectURL(new Blob(['\ufeff', asText(columns, found, ',')], { type: 'text/csv' }));
      link.download = `${label.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}.csv`;
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
    } catch (fault) {
      say(`The list was not put out: ${fault instanceof Error ? fault.message : String(fault)}`);
    }
  };
  const many = paged ? paged.found > PAGES[1]! : rows.length > PAGES[2]!;
  // The same list as long as it says the same: the grid turns back to its first page when it is given another.
  const [by, rising] = paged?.sort ?? [];
  const sorted = useMemo((): GridSortModel => (by ? [{ field: by, sort: rising ? 'asc' : 'desc' }] : []), [by, rising]);
  return (
    <div className="gridded">
      <div className={props.unsearched ? 'tools aside' : 'tools'}>
        {tools}
        {!props.unsearched && (
          <Input
            className="field"
            type="search"
            aria-label={`Find in: ${label}`}
            placeholder="find in the list"
            value={find}
            onChange={(event) => setFind(event.target.value)}
          />
        )}
        <Glyph icon="copy" words="Copy the list" press={() => void send('copy')} />
        <Glyph icon="table" words="The list as CSV" press={() => void send('file')} />
      </div>
      <DataGrid
        apiRef={apiRef}
        aria-label={label}
        rows={shown as object[]}
        columns={laid}
        getRowId={(row) => idOf(row as Row)}
        getRowHeight={() => 'auto'}
        columnHeaderHeight={30}
        hideFooter={!many}
        disableRowSelectionOnClick
        disableColumnFilter={paged !== undefined}
        disableVirtualization={rows.length <= PAGES[2]!}
        sortingOrder={['asc', 'desc']}
        pageSizeOptions={PAGES}
        sx={DRESS}
        localeText={{ noRowsLabel: needle ? `Nothing in the list has "${find}" in it.` : 'Nothing yet.' }}
        onCellKeyDown={(_, event) => pressInside(event)}
        {...(hover && {
          slotProps: {
            row: {
              onMouseEnter: (event: React.MouseEvent<HTMLElement>) =>
                hover(shown.find((row) => String(idOf(row)) === event.currentTarget.dataset.id) ?? null),
              onMouseLeave: () => hover(null),
            },
          },
        })}
        {...(paged
          ? {
              paginationMode: 'server' as const,
              sortingMode: 'server' as const,
              rowCount: paged.found,
              paginationModel: { page: paged.page, pageSize: paged.most },
              onPaginationModelChange: (model: { page: number; pageSize: number }) =>
                paged.turn(model.page, model.pageSize),
              sortModel: sorted,
              onSortModelChange: ([next]: GridSortModel) => next && paged.sortBy(next.field, next.sort === 'asc'),
            }
          : { initialState: { pagination: { paginationModel: { pageSize: PAGES[2]! } } } })}
      />
    </div>
  );
}
