// How a plate begins.
import type { Begin } from '../beginning';
import { BEGIN_SHEET } from '../sheet/begin';

export const BEGIN_PLATE: Begin = {
  ...BEGIN_SHEET,
  first: {
    ...BEGIN_SHEET.first,
    kind: 'plate',
    title: 'New plate',
    stock: { material: 'S275', thickness: '10 mm' },
    bending: { radius: 'T' },
  },
  words: 'New plate',
};
