// Centre lines from a file.
import { plain } from '../../../bench/edit';
import { word } from '../../../bench/parts';
import { verb } from '../../verb';

export const LINES = verb<'lines'>({
  key: 'lines',
  phrases: [],
  sentence: (writer) => {
    const { get } = writer;
    const count = ((get(['lines']) as unknown[] | undefined) ?? []).length;
    return [
      word('Lines', true),
      word(`from ${plain(get(['source'])) || 'a file'}: ${count} ${count === 1 ? 'line' : 'lines'}.`),
    ];
  },
});
