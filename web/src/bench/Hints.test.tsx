import { fireEvent, render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { Hints } from './Hints';

const remarks = (count: number) =>
  Array.from({ length: count }, (_, at) => `the bend ${at + 1} ends 2 mm from its corner`);

test('a few remarks are told whole, of many the first and the rest on demand', () => {
  const { rerender } = render(<Hints of="hood" messages={remarks(5)} />);
  expect(screen.getAllByText(/the bend \d+ ends/)).toHaveLength(5);
  expect(screen.queryByRole('button')).toBeNull();
  rerender(<Hints of="hood" messages={remarks(31)} />);
  expect(screen.getAllByText(/the bend \d+ ends/)).toHaveLength(4);
  fireEvent.click(screen.getByRole('button', { name: '27 more remarks on hood: show them' }));
  expect(screen.getAllByText(/the bend \d+ ends/)).toHaveLength(31);
  fireEvent.click(screen.getByRole('button', { name: 'Fewer remarks on hood' }));
  expect(screen.getAllByText(/the bend \d+ ends/)).toHaveLength(4);
});
