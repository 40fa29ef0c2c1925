// The one step that is not kept yet: its sentence is typed while the picture shows what it would make.
import type { Schemas } from '../api/client';
import { Refusal, words, type BuildAnswer, type Operation, type Piece } from '../api/client';
import { freshName, operations, pathText, put, type Path } from './edit';
import type { Draft } from './pointing';
import { build, commit, completing, ownFault, selectOperation, setCaret, shownVariant, useBench } from './store';

export type Offer = Schemas['Offer'];

const get = useBench.getState;
const set = useBench.setState;
let turn = 0;
let asking: AbortController | null = null;

/** The piece with the draft where the caret stands, as it would be kept. */
export function withDraft(piece: Piece, draft: Draft): Piece {
  const list = operations(piece);
  const place = get().caret ?? list.length;
  return { ...piece, operations: [...list.slice(0, place), draft.operation, ...list.slice(place)] };
}

/** Lays an offer's sentence. */
export function startDraft(offer: Offer): void {
  const piece = get().document;
  if (!piece) return;
  const operation = { name: freshName(piece, offer.stem), do: offer.action } as Operation;
  set({
    draft: {
      operation,
      wants: [...(offer.wants ?? [])],
      asks: [...(offer.asks ?? [])],
      fault: null,
      turn: (turn += 1),
    },
    adding: false,
    menu: null,
    picks: [],
    selection: { features: [operation.name], operation: operation.name },
  });
  void askGhost();
}

/** Changes a value of the draft; undefined leaves it out. */
export function editDraft(path: Path, value: unknown): void {
  const { draft } = get();
  if (!draft) return;
  const field = pathText(path.slice(2));
  set({
    draft: {
      ...draft,
      operation: put(draft.operation, path, value),
      wants: draft.wants.filter((one) => one !== field),
    },
  });
  void askGhost();
}

/** What the piece would be with the draft; an answer that was overtaken is let go of. */
async function askGhost(): Promise<void> {
  const { document, draft, caret } = get();
  if (!document || !draft) return;
  asking?.abort();
  const own = new AbortController();
  asking = own;
  let answer: BuildAnswer | null = null;
  let fault: string | null;
  try {
    const drafted = await completing.by(withDraft(document, draft));
    if (own.signal.aborted) return;
    answer = await build(drafted, {
      upto: caret === null ? null : caret + 1,
      variant: shownVariant(document),
      need: 'picture',
      signal: own.signal,
    });
    fault = draftFault(answer, draft.operation.name);
  } catch (refused) {
    if (own.signal.aborted) return;
    fault = refused instanceof Refusal ? refused.problem.detail : words(refused);
  }
  const now = get().draft;
  if (own !== asking || !now) return;
  set({ draft: { ...now, fault }, ...(fault || !answer ? {} : { ghost: answer }) });
}

/** Why a draft cannot be made, in words. */
export function draftFault(answer: BuildAnswer, name: string): string | null {
  const found = answer.findings.find((one) => one.severity === 'error' && one.operation === name);
  return found ? `${found.message}. ${found.way_out}` : ownFault(answer, { operation: name });
}

/** Keeps the draft: it becomes the step at the caret. */
export async function keepDraft(): Promise<void> {
  const { draft, caret } = get();
  if (!draft) return;
  const { name } = draft.operation;
  const fault = await commit((now) => withDraft(now, draft), `added ${name}`, { operation: name });
  if (fault) {
    const now = get().draft;
    if (now) set({ draft: { ...now, fault } });
    return;
  }
  endDraft();
  if (caret !== null) setCaret(caret + 1);
  selectOperation(name);
}

/** Drops the draft; the piece is as it was. */
export function dropDraft(): void {
  endDraft();
  set({ selection: { features: [] } });
}

function endDraft(): void {
  asking?.abort();
  asking = null;
  set({ draft: null, ghost: null, want: null });
}

// The piece may change beneath a draft (undo, another value): the picture is of the piece as it is.
useBench.subscribe((now, before) => {
  if (now.draft && now.document !== before.document) void askGhost();
});
