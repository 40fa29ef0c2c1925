import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, configure, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, expect, test, vi } from 'vitest';
import type { Piece } from '../api/client';
import { GoTo } from './GoTo';
import { useBench } from './store';

// The client takes the page's `fetch` when it is made: it is put in place before anything is brought in.
const served = vi.hoisted(() => {
  const own: { answer: (request: Request) => Promise<Response> } = {
    answer: () => Promise.reject(new Error('no server')),
  };
  globalThis.fetch = ((request: Request) => own.answer(request)) as typeof fetch;
  return own;
});

const taken = vi.hoisted(() => [] as string[]);
vi.mock('./download', () => ({ download: (path: string) => taken.push(path) }));

configure({ asyncUtilTimeout: 15_000 });
afterEach(cleanup);

const files = [
  { file: 'blank.dxf', words: 'Blank, DXF', kinds: ['sheet'], of: 'piece', written: 'dxf' },
  { file: 'flat.pdf', words: 'Flat sheet, PDF', kinds: ['sheet'], of: 'piece', written: 'pdf' },
];

/** The dialog over a sheet piece, whose list of files comes when `send` is called. */
function opened() {
  let send = () => {};
  const here = new Promise<void>((resolve) => (send = resolve));
  served.answer = async (request) => {
    await here;
    const body = new URL(request.url).pathname === '/api/outputs' ? files : { pieces: [] };
    return new Response(JSON.stringify(body), { headers: { 'content-type': 'application/json' } });
  };
  taken.length = 0;
  useBench.setState({
    id: 7,
    jobId: 1,
    variant: '',
    document: { kind: 'sheet', operations: [], callouts: [] } as unknown as Piece,
  });
  const close = vi.fn();
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <GoTo open close={close} />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { send: () => send(), close };
}

test('Enter before the list of files is here takes the file when it comes', async () => {
  const { send, close } = opened();
  const field = screen.getByLabelText('Go to', { selector: 'input' });
  fireEvent.change(field, { target: { value: 'flat sheet' } });
  fireEvent.keyDown(field, { key: 'Enter' });
  expect(screen.getByText(/Reading what there is/)).toBeTruthy();
  expect(close).not.toHaveBeenCalled();
  send();
  await waitFor(() => expect(taken).toEqual(['/api/pieces/7/files/flat.pdf']));
  expect(close).toHaveBeenCalledTimes(1);
});

test('what is not found says so and stays to be corrected', async () => {
  const { send, close } = opened();
  send();
  await screen.findByText(/Blank, DXF/);
  const field = screen.getByLabelText('Go to', { selector: 'input' });
  fireEvent.change(field, { target: { value: 'flt sheet' } });
  fireEvent.keyDown(field, { key: 'Enter' });
  expect(screen.getByText('Nothing here is called that.')).toBeTruthy();
  expect(close).not.toHaveBeenCalled();
  fireEvent.change(field, { target: { value: 'flat sheet' } });
  expect(taken).toEqual([]);
  fireEvent.keyDown(field, { key: 'Enter' });
  await waitFor(() => expect(taken).toEqual(['/api/pieces/7/files/flat.pdf']));
});
