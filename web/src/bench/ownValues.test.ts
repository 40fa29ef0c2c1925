import { describe, expect, it } from 'vitest';
import { meant, misspelt, notUnderstood, withOwn } from './ownValues';

const FORMS = [
  'from base.front 20 mm',
  '2 off 40 mm',
  '15 mm from the edges',
  'circle 6 on 60 mm',
  'countersunk for M5',
];

describe('an answer to what was not understood', () => {
  it('puts the typed quantities and the typed name into the form', () => {
    expect(withOwn('from base.front 20 mm', '3 1/8" form wall.left')).toBe('from wall.left 3 1/8"');
    expect(withOwn('circle 6 on 60 mm', 'crcle 8 at Ø120')).toBe('circle 8 on Ø120');
    expect(withOwn('2 off 40 mm', '3')).toBe('3 off 40 mm');
    expect(withOwn('from base.front 20 mm', '12 mm form left')).toBe('from base.left 12 mm');
  });

  it('finds the form by words that are nearly right', () => {
    expect(meant(FORMS, '20 mm form base.front')).toBe('from base.front 20 mm');
    expect(meant(FORMS, 'cirlce 6 on 60 mm')).toBe('circle 6 on 60 mm');
    expect(meant(FORMS, 'countersink for M5')).toBe('countersunk for M5');
    expect(meant(FORMS, 'banana')).toBeUndefined();
    expect(meant(FORMS, '20')).toBeUndefined();
  });

  it('counts letters as a reader does', () => {
    expect(misspelt('from', 'form')).toBe(1);
    expect(misspelt('edge', 'edges')).toBe(1);
    expect(misspelt('mark', 'make')).toBe(2);
  });

  it('says what was typed and what to type', () => {
    expect(notUnderstood('12 mm form base.left', FORMS)).toBe(
      '"12 mm form base.left" is not understood. Say "from base.left 12 mm".',
    );
    expect(notUnderstood('banana', FORMS)).toContain('Say one of "from base.front 20 mm"');
  });
});
