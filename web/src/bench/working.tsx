// The column of a list in which each row tells how its figure was worked out.
import type { Column } from '../kit/columns';
import { WhyBox } from './WhyBox';

type Why = React.ComponentProps<typeof WhyBox>['why'];

/** Rows without a working show nothing. */
export function working<Row>(why: (row: Row) => Why | null | undefined, width: number, grow = 1): Column<Row> {
  return {
    key: 'working',
    head: 'working',
    value: () => null,
    drawn: true,
    show: (row) => {
      const own = why(row);
      return own && <WhyBox why={own} />;
    },
    grow,
    width,
  };
}
