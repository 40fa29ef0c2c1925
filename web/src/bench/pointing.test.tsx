import { cleanup, configure, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { BuildAnswer, Piece } from '../api/client';
import { Chip } from './Chip';
import { Adder } from './Adder';
import { DraftSentence } from './DraftSentence';
import { PickMenu } from './PickMenu';
import { startDraft, type Offer } from './draft';
import { asWanted, pickAt } from './pick';
import { useBench } from './store';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';

// The client takes the page's `fetch` when it is made: it is put in place before anything is brought in.
const served = vi.hoisted(() => {
  const own: { answer: (request: Request) => Promise<Response> } = {
    answer: () => Promise.reject(new Error('no server')),
  };
  globalThis.fetch = ((request: Request) => own.answer(request)) as typeof fetch;
  return own;
});

const piece = {
  steelk: 1,
  kind: 'sheet',
  mark: 'T-1',
  title: 'test',
  quantity: 1,
  unit: 'mm',
  stock: { material: 'S275', thickness: '3 mm' },
  operations: [{ name: 'base', do: { lay_down: { shape: { rectangle: { width: '120 mm', depth: '80 mm' } } } } }],
} as unknown as Piece;

const names = {
  panels: ['base'],
  edges: ['base.front', 'base.left'],
  bends: ['flange'],
  holes: ['bore'],
  forms: [],
  nodes: [],
  lines: [],
  members: [],
  pieces: [],
  faces: [],
  made_by: {},
};

const answer = {
  names,
  operations: [],
  callouts: [],
  breaches: [],
  findings: [],
  figures: [],
  rules: [],
  blank: null,
  frame: null,
} as unknown as BuildAnswer;

const flange: Offer = {
  group: 'bend',
  words: 'Bend a flange here',
  stem: 'flange',
  asks: ['leg', 'angle'],
  action: {
    bend: { edge: 'base.front', angle: '90 deg', leg: '25 mm', direction: 'up' },
  } as unknown as Offer['action'],
};

/** What the server is asked, and what it answers by path. */
let asked: { path: string; body: unknown }[] = [];
const answers: Record<string, unknown> = {};

beforeEach(() => {
  asked = [];
  answers['/api/offers'] = {
    pointed: [{ name: 'base.front', words: 'edge base.front, 120 mm' }],
    offers: [flange],
    readings: [
      { words: 'length of this edge', measure: { edge_length: { edge: 'base.front' } }, text: '120 mm', witnesses: [] },
    ],
  };
  answers['/api/build'] = answer;
  served.answer = async (request: Request) => {
    const path = new URL(request.url).pathname;
    asked.push({
      path,
      body: await request
        .clone()
        .json()
        .catch(() => null),
    });
    const found = answers[path];
    return new Response(JSON.stringify(found ?? { detail: 'not here', status: 404 }), {
      status: found ? 200 : 404,
      headers: { 'content-type': 'application/json' },
    });
  };
  useBench.setState({
    document: piece,
    answer,
    picks: [],
    menu: null,
    want: null,
    draft: null,
    ghost: null,
    measuring: null,
    adding: false,
    caret: null,
    selection: { features: [] },
  });
});
afterEach(() => {
  cleanup();
});

// A machine that is busy takes its time; what is never there is still missed.
configure({ asyncUtilTimeout: 15_000 });
vi.setConfig({ testTimeout: 60_000 });

const within = (child: React.ReactNode) => (
  <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
    {child}
  </QueryClientProvider>
);

test('a pick opens the menu with what the server offers and what can be measured', async () => {
  render(<PickMenu />);
  pickAt(['base.front', 'base.top'], { x: 10, y: 10 });
  expect(await screen.findByRole('menuitem', { name: 'Bend a flange here' })).toBeTruthy();
  expect(screen.getByText('edge base.front, 120 mm')).toBeTruthy();
  expect(screen.getByRole('menuitem', { name: /Call out: length of this edge/ }).textContent).toContain('120 mm');
  expect(asked.find((one) => one.path === '/api/offers')?.body).toMatchObject({ at: ['base.front'] });
});

test('a second click at the same place goes on to what lies behind, with Shift it is added', () => {
  pickAt(['base.front', 'base.top'], { x: 10, y: 10 });
  expect(useBench.getState().picks).toEqual(['base.front']);
  pickAt(['base.front', 'base.top'], { x: 12, y: 10 });
  expect(useBench.getState().picks).toEqual(['base.top']);
  pickAt(['base.left'], { x: 200, y: 10 }, true);
  expect(useBench.getState().picks).toEqual(['base.top', 'base.left']);
  pickAt(['base.left'], { x: 200, y: 10 }, true);
  expect(useBench.getState().picks).toEqual(['base.top']);
  pickAt([], { x: 300, y: 300 });
  expect(useBench.getState().picks).toEqual([]);
});

test('a value that wants a place takes the next pick, and tells what it cannot take', () => {
  const taken: string[] = [];
  useBench.setState({ want: { words: 'an edge', names: 'edges', take: (name) => taken.push(name) } });
  pickAt(['base.top'], { x: 10, y: 10 });
  expect(taken).toEqual([]);
  expect(useBench.getState().message).toContain('base.top is not an edge');
  pickAt(['base.top', 'base.left'], { x: 10, y: 10 });
  expect(taken).toEqual(['base.left']);
  expect(useBench.getState().menu).toBeNull();
});

test('names are taken as the sort that is wanted', () => {
  expect(asWanted('base.bottom', 'panels', names)).toBe('base');
  expect(asWanted('flange.bend.top', 'panels', names)).toBeNull();
  expect(asWanted('flange.bend.top', 'lines', names)).toBe('flange.mould-outside');
  expect(asWanted('bore.side-2.base', 'holes', names)).toBe('bore');
  expect(asWanted('base.top', 'edges', names)).toBeNull();
  expect(asWanted('base.top', undefined, names)).toBe('base.top');
});

test('a draft begins with the value that the drawing gives, Tab goes through them, Esc drops it', async () => {
  render(within(<DraftSentence />));
  startDraft(flange);
  const leg = await screen.findByLabelText('leg');
  await waitFor(() => expect(document.activeElement).toBe(leg));
  fireEvent.change(leg, { target: { value: '40 mm' } });
  await waitFor(() => {
    const built = asked.filter((one) => one.path === '/api/build');
    expect(JSON.stringify(built[built.length - 1]?.body)).toContain('"leg":"40 mm"');
  });
  fireEvent.keyDown(leg, { key: 'Tab' });
  expect(document.activeElement).toBe(screen.getByLabelText('angle'));
  // Nothing was kept by all this.
  expect(useBench.getState().document).toBe(piece);
  fireEvent.keyDown(screen.getByLabelText('angle'), { key: 'Escape' });
  await waitFor(() => expect(screen.queryByRole('group')).toBeNull());
  expect(useBench.getState().draft).toBeNull();
});

test('a value that is typed asks for words, a draft for its picture, and what was overtaken is let go of', async () => {
  const stopped: boolean[] = [];
  const slow = served.answer;
  served.answer = async (request: Request) => {
    const at = stopped.length;
    stopped.push(false);
    request.signal.addEventListener('abort', () => (stopped[at] = true));
    // The first is still on its way when the second is asked for.
    if (at === 0) await vi.waitFor(() => expect(stopped.length).toBe(2), { timeout: 15_000 });
    return slow(request);
  };
  render(
    within(
      <Chip
        text="120 mm"
        label="width"
        edit={(now, text) => ({ ...now, title: text ?? '' })}
        comes={() => '130 mm'}
        own={{ operation: 'base' }}
        note="width"
      />,
    ),
  );
  fireEvent.click(screen.getByRole('button', { name: 'width: 120 mm' }));
  fireEvent.change(screen.getByLabelText('width'), { target: { value: '13' } });
  await waitFor(() => expect(stopped.length).toBe(1));
  fireEvent.change(screen.getByLabelText('width'), { target: { value: '130' } });
  expect(await screen.findByText('= 130 mm')).toBeTruthy();
  expect(stopped).toEqual([true, false]);
  startDraft(flange);
  await waitFor(() => expect(useBench.getState().ghost).not.toBeNull());
  const needs = asked.filter((one) => one.path === '/api/build').map(({ body }) => (body as { need?: string }).need);
  expect(needs[0]).toBe('words');
  expect(needs[needs.length - 1]).toBe('picture');
});

test('what stands as usual is folded, and one press unfolds it', async () => {
  render(within(<DraftSentence />));
  startDraft(flange);
  await screen.findByLabelText('leg');
  expect(screen.queryByLabelText('inside radius')).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: /as usual/ }));
  expect(screen.getByLabelText('inside radius')).toBeTruthy();
});

test('a draft that cannot be made says why and keeps the last good picture', async () => {
  render(within(<DraftSentence />));
  startDraft(flange);
  await waitFor(() => expect(useBench.getState().ghost).not.toBeNull());
  const good = useBench.getState().ghost;
  const wrong = { severity: 'error', operation: 'flange', field: 'leg', message: 'a leg of 0 mm', way_out: 'Longer.' };
  answers['/api/build'] = { ...answer, findings: [wrong] };
  fireEvent.change(await screen.findByLabelText('leg'), { target: { value: '0' } });
  expect(await screen.findByText(/a leg of 0 mm/)).toBeTruthy();
  expect(useBench.getState().ghost).toBe(good);
});

test('the adder lists steps by groups with pictures, and a press lays one', async () => {
  useBench.setState({ adding: true });
  render(within(<Adder piece={piece} />));
  const step = await screen.findByRole('option', { name: 'Bend: Bend a flange here' });
  const line = screen.getByRole('combobox', { name: 'New operation' });
  expect(line.getAttribute('aria-controls')).toBe(screen.getByRole('listbox').id);
  // The arrow keys say which of the list Enter takes.
  fireEvent.keyDown(line, { key: 'ArrowDown' });
  const chosen = document.getElementById(line.getAttribute('aria-activedescendant') ?? '');
  expect(chosen?.getAttribute('aria-selected')).toBe('true');
  expect(step.querySelector('svg')).toBeTruthy();
  expect(screen.getByText('Bend')).toBeTruthy();
  fireEvent.click(step);
  expect(useBench.getState().draft?.operation.name).toBe('flange');
  expect(useBench.getState().adding).toBe(false);
});

test('the adder takes typed lines as before, and what is not understood stays with its fault', async () => {
  useBench.setState({ adding: true });
  render(within(<Adder piece={piece} />));
  const line = screen.getByLabelText('New operation');
  fireEvent.change(line, { target: { value: 'wobble base' } });
  fireEvent.keyDown(line, { key: 'Enter' });
  expect(await screen.findByText(/Start with one of/)).toBeTruthy();
  expect((line as HTMLInputElement).value).toBe('wobble base');
});

test('the words of a line that are not understood are marked, to be typed over', async () => {
  useBench.setState({ adding: true });
  render(within(<Adder piece={piece} />));
  const line = screen.getByLabelText<HTMLInputElement>('New operation');
  const marked = () => line.value.slice(line.selectionStart ?? 0, line.selectionEnd ?? 0);
  for (const [typed, words] of [
    ['drill base, 9 mm, 12 mm form left', '12 mm form left'],
    ['drill base, 9 mm, 3 1/8" form left', '3 1/8" form left'],
  ] as const) {
    fireEvent.change(line, { target: { value: typed } });
    fireEvent.keyDown(line, { key: 'Enter' });
    await screen.findByText(/is not understood/);
    expect(marked()).toBe(words);
  }
});

test('a value chip is typed into with Enter, left as it was with Esc, and shows its fault in place', async () => {
  const edit = (now: Piece, text: string | undefined) => ({ ...now, title: text ?? '' });
  render(<Chip text="test" label="title" edit={edit} own={{ field: 'title' }} note="title" />);
  fireEvent.click(screen.getByRole('button', { name: 'title: test' }));
  const field = screen.getByLabelText('title');
  fireEvent.change(field, { target: { value: '' } });
  fireEvent.keyDown(field, { key: 'Enter' });
  expect(await screen.findByText(/A title is needed here/)).toBeTruthy();
  fireEvent.keyDown(field, { key: 'Escape' });
  expect(await screen.findByRole('button', { name: 'title: test' })).toBeTruthy();
  expect(useBench.getState().document).toBe(piece);
});

test('a value that was empty keeps the cursor while it is typed, whatever words come before it', async () => {
  const step: Offer = {
    group: 'hole',
    words: 'Drill a hole from this one',
    stem: 'hole',
    asks: ['place.hole.x', 'place.hole.y'],
    action: {
      drill: { panel: 'base', diameter: '9 mm', place: { hole: { hole: 'bore', x: '20 mm' } } },
    } as unknown as Offer['action'],
  };
  render(within(<DraftSentence />));
  startDraft(step);
  const across = await screen.findByDisplayValue('20 mm');
  across.focus();
  fireEvent.change(across, { target: { value: '' } });
  fireEvent.change(screen.getByLabelText(across.getAttribute('aria-label') ?? ''), { target: { value: '3' } });
  expect(document.activeElement?.getAttribute('aria-label')).toBe(across.getAttribute('aria-label'));
  expect(document.body.contains(across)).toBe(true);
});
