// The bench's state, without React: the piece, what the server made of it, what is selected, what is saved.
import { create } from 'zustand';
import {
  client,
  must,
  Refusal,
  words,
  type BuildAnswer,
  type MeshView,
  type Piece,
  type PieceView,
  type Schemas,
} from '../api/client';
import { useSettings } from '../settings';
import { differences } from './differences';
import { callouts, operations } from './edit';
import { keep, keptOf, type Waiting } from './kept';
import { merge, type Merged } from './merge';
import type { Draft, Place, Want } from './pointing';

export type SaveState = 'saved' | 'saving' | 'unsaved' | 'conflict' | 'refused';
export interface Selection {
  operation?: string;
  callout?: string;
  features: string[];
  /** The message of the broken rule that it is about: its features are marked as such. */
  breach?: string;
}
export type OpenPanel =
  'callouts' | 'rules' | 'blank' | 'mass' | 'revisions' | 'variants' | 'cutlist' | 'bars' | 'welds';
export type Panel = OpenPanel | null;

/** What another window saved in between. */
export interface Other {
  view: PieceView;
  merged: Merged;
}

export interface BenchState {
  id: number;
  jobId: number;
  version: number;
  document: Piece | null;
  answer: BuildAnswer | null;
  fault: string | null;
  canUndo: boolean;
  canRedo: boolean;
  hasPicture: boolean;
  pictureStamp: number;
  hasPhoto: boolean;
  photoStamp: number;
  save: SaveState;
  saveFault: string | null;
  /** What another window saved since `version`, and how it differs. */
  other: Other | null;
  /** The piece as it was saved at `version`. */
  base: Piece | null;
  /** Whether the picture and figures are of before the last changes: the server was not there to work them out. */
  behind: boolean;
  selection: Selection;
  caret: number | null;
  fold: number;
  foldMesh: MeshView | null;
  panel: Panel;
  /** Centre lines and nodes shown over a frame. */
  lines: boolean;
  placing: boolean;
  adding: boolean;
  /** What the line of a step begins with when it is opened. */
  typed: string;
  /** The mark whose pieces are lit, while the pointer is on it. */
  lit: string[];
  /** Balloons of the hole table on the blank. */
  balloons: boolean;
  /** Milliseconds that the last answer took, there and back. */
  took: number;
  message: string | null;
  /** The variant that is shown; the piece itself where null. What is edited is always the piece. */
  variant: string | null;
  /** What is pointed at, by name, the last one last. */
  picks: string[];
  /** Where the menu of what is pointed at stands, in pixels of the window; closed where null. */
  menu: Place | null;
  /** Whether what is pointed at next joins what is chosen: under a finger there is no Shift. */
  joining: boolean;
  /** What the pointer is over. */
  hover: (Place & { name: string }) | null;
  /** The call-out that is to be measured by pointing. */
  measuring: string | null;
  /** The reading that is shown on the picture while it is looked at in the menu. */
  reading: Schemas['Reading'] | null;
  /** Who takes the next pick. */
  want: Want | null;
  /** The step that is not kept yet, and what the piece would be with it. */
  draft: Draft | null;
  ghost: BuildAnswer | null;
  /** What the last change of stock or bending did. */
  changed: { note: string; lines: string[] } | null;
}

const blankState: BenchState = {
  id: 0,
  jobId: 0,
  version: 0,
  document: null,
  answer: null,
  fault: null,
  canUndo: false,
  canRedo: false,
  hasPicture: false,
  pictureStamp: 0,
  hasPhoto: false,
  photoStamp: 0,
  save: 'saved',
  saveFault: null,
  other: null,
  base: null,
  behind: false,
  selection: { features: [] },
  caret: null,
  fold: 1,
  foldMesh: null,
  panel: null,
  placing: false,
  adding: false,
  typed: '',
  lit: [],
  lines: false,
  balloons: false,
  took: 0,
  message: null,
  variant: null,
  picks: [],
  menu: null,
  joining: false,
  hover: null,
  want: null,
  measuring: null,
  reading: null,
  draft: null,
  ghost: null,
  changed: null,
};

export const useBench = create<BenchState>()(() => blankState);
const get = useBench.getState;
const set = useBench.setState;

/** Says what an act came to. */
export const say = (message: string): void => set({ message });

let asked = 0;
let waiting: Waiting[] = [];
let sending = false;
let retry: ReturnType<typeof setTimeout> | undefined;

/** Windows of one browser tell each other at once; others are found out by looking. */
const windows = typeof BroadcastChannel === 'function' ? new BroadcastChannel('steelk-saved') : null;
const tellOthers = () => windows?.postMessage(get().id);

/** Looks for other windows' saves every few seconds while this one is seen; ends it. */
export function watch(): () => void {
  const seen = () => document.visibilityState === 'visible' && void look();
  const timer = setInterval(seen, LOOK);
  const told = ({ data }: MessageEvent) => data === get().id && void look();
  windows?.addEventListener('message', told);
  document.addEventListener('visibilitychange', seen);
  window.addEventListener('online', seen);
  return () => {
    clearInterval(timer);
    windows?.removeEventListener('message', told);
    document.removeEventListener('visibilitychange', seen);
    window.removeEventListener('online', seen);
  };
}

/** How often another window's save is looked for, ms. */
const LOOK = 2500;

/** How much of a piece is asked for: up to a step, of a variant, everything or what is needed. */
interface Asking {
  upto: number | null;
  variant: string | null;
  need?: Schemas['Need'];
  /** Where it may be overtaken: the server then leaves off. */
  signal?: AbortSignal;
}

/** What a piece comes to, without taking it over. */
export const build = (document: Piece, { signal, ...asking }: Asking) =>
  must(
    client.POST('/api/build', {
      body: { document, show: useSettings.getState().show, ...asking },
      ...(signal ? { signal } : {}),
    }),
  );

/** The variant that is shown, where the piece still has it. */
export const shownVariant = (document: Piece): string | null =>
  document.variants?.some((one) => one.name === get().variant) ? get().variant : null;

/** A changed piece with what it takes along of what the shop keeps: its kind says how. */
export const completing = { by: (piece: Piece): Promise<Piece> => Promise.resolve(piece) };

/** What the values of a changed piece come to and what is wrong with its steps. */
export async function preview(document: Piece, signal: AbortSignal): Promise<BuildAnswer | Refusal> {
  try {
    const changed = await completing.by(document);
    signal.throwIfAborted();
    return await build(changed, { upto: get().caret, variant: shownVariant(document), need: 'words', signal });
  } catch (fault) {
    if (fault instanceof Refusal) return fault;
    throw fault;
  }
}

async function rebuild(): Promise<void> {
  const { document, caret, fold } = get();
  if (!document) return;
  const turn = ++asked;
  const started = performance.now();
  try {
    const answer = await build(document, { upto: caret, variant: shownVariant(document) });
    if (turn !== asked) return;
    set({ answer, fault: null, behind: false, took: performance.now() - started });
    if (fold < 1) await setFold(fold);
  } catch (fault) {
    // What was worked out before stays on the screen.
    if (turn === asked) set(get().answer && isAway(fault) ? { behind: true } : { fault: words(fault) });
  }
}

/** Whether the server could not be reached at all. */
const isAway = (fault: unknown) => fault instanceof Refusal && fault.problem.status === 0;

function take(view: PieceView): void {
  set({
    id: view.id,
    jobId: view.job_id,
    version: view.version,
    document: view.document,
    base: view.document,
    other: null,
    canUndo: view.can_undo,
    canRedo: view.can_redo,
    hasPicture: view.has_picture,
    hasPhoto: view.has_photo,
  });
}

export async function open(id: number): Promise<void> {
  waiting = [];
  clearTimeout(retry);
  set({ ...blankState, id });
  try {
    const view = await must(client.GET('/api/pieces/{id}', { params: { path: { id } } }));
    take(view);
    const kept = keptOf(id);
    const last = kept?.waiting[kept.waiting.length - 1];
    if (kept && last) {
      // What did not get through before the reload.
      waiting = kept.waiting;
      set({ document: last.document, base: kept.base, version: kept.version, save: 'saving' });
      if (view.version === kept.version) void send();
      else meet(view);
    }
    await rebuild();
  } catch (fault) {
    set({ fault: words(fault) });
  }
}

/** Another window's version has come: what differs is told, and nothing is taken over. */
function meet(view: PieceView): void {
  const { base, document } = get();
  if (!base || !document) return;
  const merged = merge(base, document, view.document);
  set({ other: { view, merged }, ...(waiting.length > 0 ? { save: 'conflict' as const } : {}) });
}

/** Looks whether another window saved in between. */
export async function look(): Promise<void> {
  const { id, version, save, other, document } = get();
  if (!document || sending || save === 'saving') return;
  const path = { params: { path: { id } } };
  try {
    const now = await must(client.GET('/api/pieces/{id}/version', path));
    const same = () => get().id === id && get().version === version && !sending;
    if (save === 'unsaved' && same()) void send();
    if (!same() || now.version <= (other?.view.version ?? version)) return;
    const view = await must(client.GET('/api/pieces/{id}', path));
    if (same()) meet(view);
  } catch {
    // The server is away: whoever saves is told.
  }
}

/** The piece after a change: where the change is the server's to make, once it has answered. */
export type Edit = (now: Piece) => Piece | Promise<Piece>;

/** The piece with an operation or a call-out renamed, and all that cites it. */
export const renamed =
  (what: 'operation' | 'callout', from: string, to: string): Edit =>
  async (now) =>
    (await must(client.POST('/api/rename', { body: { document: now, what, from, to } }))).document;

let chain: Promise<unknown> = Promise.resolve();

/** Takes over a change and saves it. Changes are made one after another, each on the piece that the one before left, so
 *  that fast hands lose nothing. `own` names the operation or call-out that was edited: an error of its own refuses the
 *  change, and the piece stays as it was; `quiet` where what it did elsewhere is not told. Returns the refusal in
 *  words, or null. */
export function commit(
  edit: Edit,
  note: string,
  own?: { operation?: string; callout?: string; field?: string; quiet?: boolean },
): Promise<string | null> {
  const run = chain.then(() => commitNow(edit, note, own));
  chain = run.catch(() => undefined);
  return run;
}

async function commitNow(
  edit: Edit,
  note: string,
  own?: { operation?: string; callout?: string; field?: string; quiet?: boolean },
): Promise<string | null> {
  const { document: now, caret, id } = get();
  if (!now) return 'There is no piece open.';
  const started = performance.now();
  let document: Piece;
  let answer: BuildAnswer;
  try {
    document = await edit(now);
  } catch (fault) {
    return words(fault);
  }
  try {
    document = await completing.by(document);
    asked += 1;
    // A change is judged on the whole piece, wherever the caret stands.
    answer = await build(document, { upto: null, variant: null });
  } catch (fault) {
    if (!isAway(fault)) return words(fault);
    // Work goes on: the change is kept and is judged when the server is back.
    if (get().id !== id) return null;
    waiting.push({ document, note });
    set({ document, behind: true, save: 'saving' });
    void send();
    return null;
  }
  if (own) {
    const fault = ownFault(answer, own);
    if (fault) return fault;
  }
  if (get().id !== id) return null;
  const variant = shownVariant(document);
  const shown =
    caret === null && variant === null ? answer : await build(document, { upto: caret, variant }).catch(() => answer);
  const before = get().answer;
  // What a change of stock does reaches everywhere: it is told.
  const told =
    before && own?.field && !own.quiet && /^(stock|bending)/.test(own.field)
      ? { changed: { note, lines: differences(before, shown) } }
      : {};
  // Whatever was asked for on the piece before this change is out of date.
  asked += 1;
  set({
    ...told,
    variant,
    document,
    answer: shown,
    fault: null,
    behind: false,
    took: performance.now() - started,
    save: 'saving',
  });
  if (get().caret !== caret) void rebuild();
  waiting.push({ document, note });
  void send();
  if (get().fold < 1) void setFold(get().fold);
  return null;
}

/**
 * The first error that belongs to what was edited and stops it. An operation that is built all the same (an outline
 * whose numbers disagree) keeps what was typed, with its error beside it; a number that cannot be read is refused.
 */
export function ownFault(
  answer: BuildAnswer,
  own: { operation?: string; callout?: string; field?: string },
): string | null {
  const made = answer.operations.find((one) => one.name === own.operation)?.state === 'made';
  const found = answer.findings.find(
    (one) =>
      one.severity === 'error' &&
      ((own.operation &&
        one.operation === own.operation &&
        (!made || /\.(value|of|length|turn)$/.test(one.field ?? ''))) ||
        (own.callout && one.callout === own.callout) ||
        (own.field && !one.operation && !one.callout && one.field?.startsWith(own.field))),
  );
  return found ? `${found.message}. ${found.way_out}` : null;
}

/** Keeps what waits where a reload finds it. */
function keepWaiting(): void {
  const { id, version, base } = get();
  if (base && !keep(id, { version, base, waiting }))
    say('The browser has no room to keep unsaved changes: do not close this window before they are saved.');
}

async function send(): Promise<void> {
  if (sending) return;
  sending = true;
  keepWaiting();
  try {
    for (let next = waiting[0]; next; next = waiting[0]) {
      const { id, version } = get();
      const view = await must(
        client.PUT('/api/pieces/{id}', {
          params: { path: { id } },
          body: { version, document: next.document, note: next.note },
        }),
      );
      waiting.shift();
      if (get().id !== id) return;
      set({ version: view.version, base: next.document, canUndo: view.can_undo, canRedo: view.can_redo });
      keepWaiting();
    }
    set({ save: 'saved', saveFault: null, other: null });
    tellOthers();
    if (get().behind) void rebuild();
  } catch (fault) {
    const problem = fault instanceof Refusal ? fault.problem : undefined;
    if (problem?.status === 409) {
      set({ save: 'conflict', saveFault: problem.detail });
      await fetchOther();
    } else if (problem && problem.status >= 400 && problem.status < 500)
      set({ save: 'refused', saveFault: problem.detail });
    else {
      set({ save: 'unsaved', saveFault: words(fault) });
      clearTimeout(retry);
      retry = setTimeout(() => void send(), 3000);
    }
  } finally {
    sending = false;
  }
}

/** Saves what waits, now. */
export const saveNow = (): void => {
  set({ save: 'saving' });
  void send();
};

/** Fetches what another window saved. */
async function fetchOther(): Promise<void> {
  const { id } = get();
  const view = await must(client.GET('/api/pieces/{id}', { params: { path: { id } } })).catch(() => null);
  if (view && get().id === id) meet(view);
}

function putOnTop(document: Piece, note: string): void {
  const { other } = get();
  if (!other) return;
  waiting = [{ document, note }];
  set({ document, version: other.view.version, base: other.view.document, other: null, save: 'saving' });
  void send();
  void rebuild();
}

/** This window's piece becomes the newest version, on top of the other's. */
export function keepMine(): void {
  const { document } = get();
  if (document) putOnTop(document, 'kept over a newer version');
}

/** Both changes, where they do not touch. */
export function keepBoth(): void {
  const both = get().other?.merged.both;
  if (both) putOnTop(both, 'both windows put together');
}

/** Goes on from the other's version; what this window had and did not save is gone. */
export async function takeTheirs(): Promise<void> {
  const { other } = get();
  if (!other) return;
  waiting = [];
  clearTimeout(retry);
  take(other.view);
  set({ save: 'saved', saveFault: null });
  keepWaiting();
  const { caret, document } = get();
  if (caret !== null && document && caret > operations(document).length) set({ caret: null });
  await rebuild();
}

async function step(which: 'undo' | 'redo'): Promise<void> {
  const { id, version, save } = get();
  if (save !== 'saved') return;
  try {
    const path = which === 'undo' ? ('/api/pieces/{id}/undo' as const) : ('/api/pieces/{id}/redo' as const);
    take(await must(client.POST(path, { params: { path: { id } }, body: { version } })));
    tellOthers();
    const { caret, document } = get();
    if (caret !== null && document && caret > operations(document).length) set({ caret: null });
    await rebuild();
  } catch (fault) {
    const problem = fault instanceof Refusal ? fault.problem : undefined;
    if (problem?.status === 409) await fetchOther();
    else set({ message: words(fault) });
  }
}

export const undo = (): Promise<void> => step('undo');
export const redo = (): Promise<void> => step('redo');

export async function restore(number: number): Promise<void> {
  const { id, version } = get();
  try {
    take(
      await must(
        client.POST('/api/pieces/{id}/revisions/{number}/restore', {
          params: { path: { id, number } },
          body: { version },
        }),
      ),
    );
    await rebuild();
  } catch (fault) {
    set({ message: words(fault) });
  }
}

export function select(selection: Partial<Selection>): void {
  set({ selection: { features: [], ...selection }, picks: [], menu: null, joining: false });
}

export function selectOperation(name: string): void {
  select({ operation: name, features: [name] });
}

/** Selects what a click on the stage hit: an edge, hole, panel or bend, and the operation that made it. */
export function selectFeature(feature: string): void {
  const operation = get().answer?.names.made_by[feature] ?? feature.split('.')[0] ?? feature;
  select({ operation, features: [feature] });
}

/** Selects everything that a broken rule is about, and the likeliest operation at fault. */
export function selectBreach(breach: BuildAnswer['breaches'][number]): void {
  const [operation] = breach.operations;
  select({ ...(operation ? { operation } : {}), features: breach.features, breach: breach.message });
}

export function selectCallout(name: string): void {
  const proof = get().answer?.callouts.find((one) => one.name === name);
  select({ callout: name, features: proof?.features ?? [] });
}

export function setCaret(caret: number | null): void {
  const count = operations(get().document ?? ({} as Piece)).length;
  const next = caret === null || caret >= count ? null : Math.max(0, caret);
  if (next === get().caret) return;
  set({ caret: next });
  void rebuild();
}

/** Shows a variant, or the piece itself. */
export function setVariant(variant: string | null): void {
  set({ variant });
  void rebuild();
}

export function stepCaret(by: number): void {
  const { caret, document } = get();
  if (!document) return;
  setCaret((caret ?? operations(document).length) + by);
}

let folding = false;
let foldNext: number | null = null;

/** Folds the stage part of the way; only the newest place asked for is drawn. */
export async function setFold(fold: number): Promise<void> {
  set({ fold });
  if (fold >= 1) {
    set({ foldMesh: null });
    return;
  }
  foldNext = fold;
  if (folding) return;
  folding = true;
  try {
    while (foldNext !== null) {
      const wanted: number = foldNext;
      foldNext = null;
      const { document, caret } = get();
      if (!document) break;
      const mesh = await must(
        client.POST('/api/fold', { body: { document, upto: caret, variant: shownVariant(document), fold: wanted } }),
      );
      if (get().fold < 1) set({ foldMesh: mesh });
    }
  } catch (fault) {
    set({ message: words(fault) });
  } finally {
    folding = false;
  }
}

useSettings.subscribe((now, before) => {
  if (now.show !== before.show) void rebuild();
});

/** Whether a named thing is part of what is selected. */
export function isOn(selection: Selection, name: string): boolean {
  return selection.features.some(
    (one) =>
      name === one ||
      name.startsWith(`${one}.`) ||
      (one.startsWith(`${name}.`) && !one.slice(name.length + 1).includes('mould')),
  );
}

export const calloutOf = (state: BenchState) =>
  callouts(state.document ?? ({} as Piece)).find((one) => one.name === state.selection.callout);
