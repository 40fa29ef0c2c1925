// The bench's state against a server played by a function: what is saved, refused, kept and undone.
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Piece } from '../api/client';

interface Call {
  method: string;
  path: string;
  body: Record<string, unknown>;
}

const piece = (title: string): Piece => ({
  steelk: 1,
  kind: 'sheet',
  mark: 'X-1',
  title,
  quantity: 1,
  unit: 'mm',
  stock: { material: 'S275', thickness: '3 mm' },
  bending: { radius: '3 mm' },
  callouts: [{ name: 'A', value: '60 mm' }],
  operations: [{ name: 'base', do: { lay_down: { shape: { rectangle: { width: 'A', depth: '80 mm' } } } } }],
});

const answer = (findings: object[] = [], state = findings.length > 0 ? 'bad' : 'made') => ({
  heading: { material: '', thickness: '3 mm', radius: '3 mm', method: 'K 0.44' },
  operations: [{ name: 'base', state, sides: [], values: [] }],
  callouts: [{ name: 'A', verdict: 'holds', features: ['base.front'], drives: ['base'] }],
  mesh: { positions: '', triangles: '', owners: '', features: [], extents: [0, 0, 0, 0, 0, 0] },
  figures: [],
  bends: [],
  rules: [],
  breaches: [],
  findings,
  cautions: [],
  names: { panels: [], edges: [], bends: [], holes: [], forms: [], made_by: {} },
});

const calls: Call[] = [];
let saved = piece('first');
let version = 1;
let play: (call: Call) => [number, unknown] | 'unreachable' | undefined = () => undefined;

function server(call: Call): [number, unknown] | 'unreachable' {
  const own = play(call);
  if (own) return own;
  const view = () => ({
    id: 1,
    job_id: 1,
    version,
    document: saved,
    can_undo: version > 1,
    can_redo: false,
    has_picture: false,
    removed: false,
  });
  if (call.path === '/api/build') return [200, answer()];
  if (call.path === '/api/fold') return [200, answer().mesh];
  if (call.method === 'PUT') {
    if (call.body.version !== version)
      return [
        409,
        {
          type: 'about:blank',
          title: 'Stale',
          status: 409,
          detail: `version ${version} has been saved since`,
          yours: call.body.version,
          current: version,
        },
      ];
    saved = call.body.document as Piece;
    version += 1;
    return [200, view()];
  }
  if (call.path.endsWith('/undo')) {
    saved = piece('first');
    version += 1;
    return [200, view()];
  }
  return [200, view()];
}

vi.stubGlobal('fetch', async (input: Request | string, init?: RequestInit) => {
  const request = input instanceof Request ? input : new Request(new URL(input, 'http://localhost'), init);
  const text = request.method === 'GET' ? '' : await request.text();
  const call = {
    method: request.method,
    path: new URL(request.url).pathname,
    body: text ? (JSON.parse(text) as Record<string, unknown>) : {},
  };
  calls.push(call);
  const result = server(call);
  if (result === 'unreachable') throw new TypeError('failed to fetch');
  return new Response(JSON.stringify(result[1]), {
    status: result[0],
    headers: { 'Content-Type': 'application/json' },
  });
});

const bench = await import('./store');
const state = bench.useBench.getState;
const settled = (want: string) => vi.waitFor(() => expect(state().save).toBe(want), { timeout: 20_000 });

beforeEach(async () => {
  localStorage.clear();
  play = () => undefined;
  saved = piece('first');
  version = 1;
  await bench.open(1);
  calls.length = 0;
});

describe('a change', () => {
  it('is built, taken over and saved from the version it was made on', async () => {
    expect(await bench.commit((now) => ({ ...now, title: 'second' }), 'title')).toBeNull();
    await settled('saved');
    expect(state().document?.title).toBe('second');
    expect(state().version).toBe(2);
    expect(calls.find((one) => one.method === 'PUT')?.body).toMatchObject({ version: 1, note: 'title' });
  });

  it('made twice at once loses neither', async () => {
    const [one, two] = await Promise.all([
      bench.commit((now) => ({ ...now, title: 'second' }), 'title'),
      bench.commit((now) => ({ ...now, quantity: 7 }), 'quantity'),
    ]);
    expect([one, two]).toEqual([null, null]);
    await settled('saved');
    expect(saved).toMatchObject({ title: 'second', quantity: 7 });
    expect(version).toBe(3);
  });

  it('with an error of its own is refused and leaves the piece', async () => {
    play = (call) =>
      call.path === '/api/build'
        ? [200, answer([{ severity: 'error', operation: 'base', field: 'leg', message: 'no', way_out: 'Do this.' }])]
        : undefined;
    expect(await bench.commit((now) => ({ ...now, title: 'bad' }), 'x', { operation: 'base' })).toBe('no. Do this.');
    expect(state().document?.title).toBe('first');
    expect(calls.some((one) => one.method === 'PUT')).toBe(false);
    // An error elsewhere does not refuse it.
    expect(await bench.commit((now) => ({ ...now, title: 'fine' }), 'x', { operation: 'other' })).toBeNull();
    await settled('saved');
  });

  it('that an outline is built in spite of keeps its numbers; one that cannot be read is refused', async () => {
    const error = (field: string) => ({
      severity: 'error',
      operation: 'base',
      field,
      message: 'no',
      way_out: 'Do this.',
    });
    play = (call) => (call.path === '/api/build' ? [200, answer([error('shape.drawn.says.3')], 'made')] : undefined);
    expect(await bench.commit((now) => ({ ...now, title: 'disagrees' }), 'x', { operation: 'base' })).toBeNull();
    play = (call) =>
      call.path === '/api/build' ? [200, answer([error('shape.drawn.says.3.value')], 'made')] : undefined;
    expect(await bench.commit((now) => ({ ...now, title: 'garbage' }), 'x', { operation: 'base' })).toBe(
      'no. Do this.',
    );
    expect(state().document?.title).toBe('disagrees');
    await settled('saved');
  });

  it('that the server cannot read is refused in its words', async () => {
    play = (call) =>
      call.path === '/api/build'
        ? [422, { detail: 'mark: a mark has 1 to 40 characters', title: 'x', status: 422, type: '' }]
        : undefined;
    expect(await bench.commit((now) => ({ ...now, mark: '' }), 'mark')).toContain('1 to 40 characters');
    expect(state().document?.mark).toBe('X-1');
  });
});

describe('saving', () => {
  it('says when somebody saved in between, and keeps both', async () => {
    version = 5;
    await bench.commit((now) => ({ ...now, title: 'mine' }), 'title');
    await settled('conflict');
    expect(state().other?.view.version).toBe(5);
    expect(state().document?.title).toBe('mine');
    bench.keepMine();
    await settled('saved');
    expect(saved.title).toBe('mine');
    expect(version).toBe(6);
  });

  it('keeps the change while the server is away', async () => {
    play = (call) => (call.method === 'PUT' ? 'unreachable' : undefined);
    await bench.commit((now) => ({ ...now, title: 'kept' }), 'title');
    await settled('unsaved');
    expect(state().saveFault).toContain('does not answer');
    play = () => undefined;
    bench.saveNow();
    await settled('saved');
    expect(saved.title).toBe('kept');
  });

  it('goes on while the server is away, and is judged and saved when it is back', async () => {
    play = () => 'unreachable';
    expect(await bench.commit((now) => ({ ...now, title: 'one' }), 'title')).toBeNull();
    expect(await bench.commit((now) => ({ ...now, quantity: 3 }), 'quantity')).toBeNull();
    await settled('unsaved');
    expect([state().document?.title, state().document?.quantity, state().behind]).toEqual(['one', 3, true]);
    // A reload finds it.
    await bench.open(1).catch(() => undefined);
    play = () => undefined;
    await bench.open(1);
    await settled('saved');
    expect([saved.title, saved.quantity, state().behind]).toEqual(['one', 3, false]);
    expect(localStorage.getItem('steelk-kept-1')).toBeNull();
  });

  it('tells what another window saved, and puts both together', async () => {
    saved = { ...saved, title: 'theirs' };
    version += 1;
    await bench.look();
    expect(state().other?.merged.differences).toEqual([{ what: 'title', mine: '', theirs: 'changed', touches: false }]);
    expect(state().save).toBe('saved');
    await bench.commit((now) => ({ ...now, quantity: 5 }), 'quantity');
    await settled('conflict');
    expect(state().other?.merged.both).toMatchObject({ title: 'theirs', quantity: 5 });
    bench.keepBoth();
    await settled('saved');
    expect([saved.title, saved.quantity, state().other]).toEqual(['theirs', 5, null]);
  });

  it('goes on from the other window, and forgets what is its own', async () => {
    saved = { ...saved, title: 'theirs' };
    version += 1;
    await bench.commit((now) => ({ ...now, title: 'mine' }), 'title');
    await settled('conflict');
    expect(state().other?.merged.both).toBeNull();
    await bench.takeTheirs();
    expect([state().document?.title, state().save, state().version]).toEqual(['theirs', 'saved', version]);
    expect(localStorage.getItem('steelk-kept-1')).toBeNull();
  });

  it('undoes only what is saved', async () => {
    await bench.commit((now) => ({ ...now, title: 'second' }), 'title');
    await settled('saved');
    await bench.undo();
    expect(state().document?.title).toBe('first');
    expect(calls.find((one) => one.path.endsWith('/undo'))?.body).toEqual({ version: 2 });
  });
});

describe('looking', () => {
  it('moves the caret within the work', () => {
    bench.stepCaret(-1);
    expect(state().caret).toBe(0);
    bench.stepCaret(-1);
    expect(state().caret).toBe(0);
    bench.stepCaret(1);
    expect(state().caret).toBeNull();
  });

  it('selects by call-out, operation and feature', () => {
    bench.selectCallout('A');
    expect(state().selection).toEqual({ callout: 'A', features: ['base.front'] });
    expect(bench.isOn(state().selection, 'base.front')).toBe(true);
    expect(bench.isOn(state().selection, 'base.back')).toBe(false);
    bench.selectFeature('drain.3');
    expect(state().selection).toEqual({ operation: 'drain', features: ['drain.3'] });
    bench.selectOperation('upright');
    expect(bench.isOn(state().selection, 'upright.bend.top')).toBe(true);
    expect(bench.isOn(state().selection, 'upright-2.top')).toBe(false);
  });

  it('folds to the newest place asked for', async () => {
    await Promise.all([bench.setFold(0.2), bench.setFold(0.4), bench.setFold(0.6)]);
    const folds = calls.filter((one) => one.path === '/api/fold').map((one) => one.body.fold);
    expect(folds.at(-1)).toBe(0.6);
    expect(folds.length).toBeLessThan(3);
    await bench.setFold(1);
    expect(state().foldMesh).toBeNull();
  });
});

describe('variants', () => {
  const withVariant = { ...piece('first'), variants: [{ name: 'light', rest: ['base'] }] };
  it('are asked for by name, and what is edited is the piece', async () => {
    saved = withVariant;
    await bench.open(1);
    calls.length = 0;
    bench.setVariant('light');
    await vi.waitFor(() => expect(calls.find((one) => one.path === '/api/build')?.body.variant).toBe('light'), {
      timeout: 20_000,
    });
    calls.length = 0;
    expect(await bench.commit((now) => ({ ...now, title: 'second' }), 'title')).toBeNull();
    // Judged as the piece itself, then shown as the variant.
    expect(calls.filter((one) => one.path === '/api/build').map((one) => one.body.variant)).toEqual([null, 'light']);
    await settled('saved');
    expect(saved.title).toBe('second');
    expect(saved.operations?.length).toBe(1);
  });
  it('that are taken out are no longer shown', async () => {
    saved = withVariant;
    await bench.open(1);
    bench.setVariant('light');
    await bench.commit((now) => ({ ...now, variants: undefined }), 'no variants');
    expect(state().variant).toBeNull();
  });
  it('are forgotten when another piece is opened', async () => {
    saved = withVariant;
    await bench.open(1);
    bench.setVariant('light');
    await bench.open(1);
    expect(state().variant).toBeNull();
  });
});

describe('a change of stock', () => {
  it('lists what came out otherwise; a change of work does not', async () => {
    const heavier = { ...answer(), figures: [{ key: 'mass', label: 'mass', text: '2 kg' }] };
    await bench.commit((now) => ({ ...now, title: 'x' }), 'title');
    expect(state().changed).toBeNull();
    bench.useBench.setState({
      answer: { ...answer(), figures: [{ key: 'mass', label: 'mass', text: '1 kg' }] } as never,
    });
    play = (call) => (call.path === '/api/build' ? [200, heavier] : undefined);
    await bench.commit((now) => ({ ...now, stock: { ...now.stock, thickness: '6 mm' } }), 'thickness', {
      field: 'stock',
    });
    expect(state().changed).toEqual({ note: 'thickness', lines: ['mass: 1 kg → 2 kg'] });
  });
});

describe('answers that come late', () => {
  it('never stand over a newer piece', async () => {
    let late: ((value: unknown) => void) | undefined;
    const waiting = new Promise((resolve) => (late = resolve));
    let first = true;
    const real = globalThis.fetch;
    vi.stubGlobal('fetch', async (input: Request | string, init?: RequestInit) => {
      const url = input instanceof Request ? input.url : String(input);
      if (url.includes('/api/build') && first) {
        first = false;
        await waiting;
      }
      return real(input, init);
    });
    // The caret asks for the old piece; the change that follows is answered first.
    bench.setCaret(0);
    const change = bench.commit((now) => ({ ...now, title: 'newer' }), 'title');
    await change;
    const shown = state().answer;
    late?.(undefined);
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(state().document?.title).toBe('newer');
    expect(state().answer).toBe(shown);
    vi.stubGlobal('fetch', real);
  });
});
