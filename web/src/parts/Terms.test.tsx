import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, expect, test } from 'vitest';
import { Terms } from './Terms';

afterEach(cleanup);

test('a word of the trade is asked about where it stands, and the text stays what it is', () => {
  render(
    <MemoryRouter>
      <p data-testid="text">
        <Terms text="row up to 3 mm: kerf 0.2 mm, from the long point; kerfs and cuts" />
      </p>
    </MemoryRouter>,
  );
  expect(screen.getByTestId('text').textContent).toBe(
    'row up to 3 mm: kerf 0.2 mm, from the long point; kerfs and cuts',
  );
  expect(screen.getAllByRole('button').map((one) => one.textContent)).toEqual(['kerf', 'long point']);
  fireEvent.click(screen.getByRole('button', { name: 'What is kerf?' }));
  const card = screen.getByRole('dialog', { name: 'kerf' });
  expect(card.textContent).toContain('How wide the cut is');
  expect(card.querySelector('svg')).not.toBeNull();
  expect(screen.getByRole('link', { name: 'All words' }).getAttribute('href')).toBe('/words#kerf');
});
