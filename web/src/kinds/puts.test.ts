// What a choice puts and a change sets is what the schema takes: nothing is offered that would be refused.
import { expect, test } from 'vitest';
import type { Operation, Piece } from '../api/client';
import { at, pathText, put } from '../bench/edit';
import { putBy } from '../bench/parts';
import { readPhrase } from '../bench/phrase';
import { changesOf, sentence } from '../bench/sentence';
import { KINDS } from '.';
import document from '../../../docs/piece.schema.json';

interface Schema {
  $ref?: string;
  oneOf?: Schema[];
  type?: string | string[];
  enum?: unknown[];
  properties?: Record<string, Schema>;
  required?: string[];
  additionalProperties?: boolean | Schema;
  items?: Schema;
}
const definitions = (document as unknown as { $defs: Record<string, Schema> }).$defs;

const typeOf = (value: unknown): string =>
  value === null ? 'null' : Array.isArray(value) ? 'array' : typeof value === 'object' ? 'object' : typeof value;

/** What is wrong with a value, where; nothing where the schema takes it. Of several ways the nearest is told. */
function wrong(schema: Schema, value: unknown, where = ''): string | undefined {
  if (schema.$ref) {
    const found = definitions[schema.$ref.replace('#/$defs/', '')];
    return found ? wrong(found, value, where) : `${where}: no ${schema.$ref}`;
  }
  if (schema.oneOf) {
    const all = schema.oneOf.map((one) => wrong(one, value, where));
    return all.some((one) => one === undefined) ? undefined : all.sort((a, b) => b!.length - a!.length)[0];
  }
  const own = typeOf(value);
  const types = schema.type === undefined ? [] : [schema.type].flat();
  if (types.length > 0 && !types.includes(own) && !(own === 'number' && types.includes('integer')))
    return `${where}: ${JSON.stringify(value)} is no ${types.join(' or ')}`;
  if (schema.enum && !schema.enum.includes(value))
    return `${where}: ${JSON.stringify(value)} is none of ${String(schema.enum)}`;
  if (own === 'array')
    return (value as unknown[])
      .map((one, n) => schema.items && wrong(schema.items, one, `${where}[${n}]`))
      .find(Boolean);
  if (own !== 'object') return undefined;
  const fields = value as Record<string, unknown>;
  const lacking = schema.required?.find((key) => fields[key] === undefined);
  if (lacking) return `${where}.${lacking} is missing`;
  for (const [key, one] of Object.entries(fields)) {
    const inner = schema.properties?.[key] ?? schema.additionalProperties;
    if (inner === false) return `${where}.${key} is no field`;
    const fault = typeof inner === 'object' ? wrong(inner, one, `${where}.${key}`) : undefined;
    if (fault) return fault;
  }
  return undefined;
}

const action = (operation: Operation) => wrong(definitions.Action!, operation.do, operation.name);

/** Every line that is typed as an example, and what every choice and change of it leads to, one step and another. */
function reached(kind: Piece['kind']): [string, Operation][] {
  const piece = { kind, operations: [] } as unknown as Piece;
  const lines = KINDS[kind].verbs.flatMap((one) => one.phrases).map((one) => one.example);
  const first = lines.map((line): [string, Operation] => {
    const read = readPhrase(line, piece);
    if ('fault' in read) throw new Error(`${line}: ${read.fault}`);
    return [line, read.operation];
  });
  const names = { edges: ['base.front', 'base.left', 'base.right', 'lid.end'], holes: ['hole', 'bore'] };
  const next = ([words, operation]: [string, Operation]): [string, Operation][] => [
    ...sentence(piece, operation, ['front', 'left']).flatMap((part) =>
      part.kind !== 'choice'
        ? []
        : part.options.map(([key]): [string, Operation] => [
            `${words}; ${part.label} ${key}`,
            put(operation, part.path, putBy(part.options, key)),
          ]),
    ),
    ...changesOf(piece, operation, names).map((change): [string, Operation] => [
      `${words}; ${change.words}`,
      change.sets.reduce((now, [path, value]) => put(now, ['do', Object.keys(now.do)[0]!, ...path], value), operation),
    ]),
  ];
  const second = first.flatMap(next);
  return [...first, ...second, ...second.flatMap(next)];
}

for (const kind of ['sheet', 'frame'] as const)
  test(`what a choice puts and a change sets in ${kind} work is what the schema takes`, () => {
    const all = reached(kind);
    expect(all.length).toBeGreaterThan(500);
    const faults = all.flatMap(([words, operation]) => {
      const fault = action(operation);
      return fault ? [`${words}: ${fault}`] : [];
    });
    expect([...new Set(faults)].slice(0, 20)).toEqual([]);
  });

test('a choice that was made is the one that is shown', () => {
  for (const kind of ['sheet', 'frame'] as const) {
    const piece = { kind } as Piece;
    for (const [words, operation] of reached(kind).slice(0, 400))
      for (const part of sentence(piece, operation, []))
        if (part.kind === 'choice')
          for (const [key] of part.options) {
            const now = put(operation, part.path, putBy(part.options, key));
            const shown = sentence(piece, now, []).find(
              (one) => one.kind === 'choice' && pathText(one.path) === pathText(part.path),
            );
            expect(shown?.kind === 'choice' && shown.value, `${words}: ${part.label} ${key}`).toBe(key);
          }
  }
});

test('the check bites: a text for a yes, a word for a whole field, a field that is none', () => {
  const end = (how: object) => ({ name: 'e', do: { end: { of: ['m'], how } } }) as unknown as Operation;
  expect(action(end({ trim: { to: ['p'], beyond: true } }))).toBeUndefined();
  expect(action(end({ trim: { to: ['p'], beyond: 'true' } }))).toContain('beyond');
  expect(action(end({ trims: { to: ['p'] } }))).toBeDefined();
  expect(at(end({ square: 'square' }), ['do', 'end', 'how', 'square'])).toBe('square');
  expect(action(end({ square: 'square' }))).toContain('square');
});
