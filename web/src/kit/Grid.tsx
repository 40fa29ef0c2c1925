// A list that is sorted, filtered, copied and exported: MUI's grid, fetched when the first list is shown.
import { lazy, Suspense } from 'react';
import type { Props } from './GridInside';

const Inside = lazy(() => import('./GridInside')) as <Row>(props: Props<Row>) => React.ReactNode;

export function Grid<Row>(props: Props<Row>) {
  return (
    <Suspense fallback={<p role="status">Laying out the list…</p>}>
      <Inside {...props} />
    </Suspense>
  );
}
