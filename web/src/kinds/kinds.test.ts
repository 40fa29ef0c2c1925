// The list of kinds against the server's own: none is left out, and no verb is without words.
import { expect, test } from 'vitest';
import type { Operation, Piece } from '../api/client';
import { sentence } from '../bench/sentence';
import { BEGIN } from './begin';
import { KINDS } from '.';
import document from '../../../docs/piece.schema.json';

interface Schema {
  enum?: string[];
  oneOf?: Schema[];
  const?: string;
  required?: string[];
}
const schemas = document as unknown as { $defs?: Record<string, Schema>; definitions?: Record<string, Schema> };
const named = (name: string): Schema => {
  const found = schemas.$defs?.[name] ?? schemas.definitions?.[name];
  if (!found) throw new Error(`the schema has no ${name}`);
  return found;
};
const words = (schema: Schema): string[] =>
  schema.enum ?? schema.oneOf?.flatMap((one) => one.enum ?? one.const ?? one.required ?? []) ?? [];

test('every kind of the schema has its row, on the bench and in a job', () => {
  const kinds = words(named('Kind')).sort();
  expect(kinds.length).toBeGreaterThan(2);
  expect(Object.keys(KINDS).sort()).toEqual(kinds);
  expect(BEGIN.map((one) => one.first.kind).sort()).toEqual(kinds);
  for (const kind of kinds) expect(KINDS[kind as Piece['kind']].key).toBe(kind);
});

const files = Object.keys(import.meta.glob('./*/verbs/*.ts')).filter((file) => !file.endsWith('/index.ts'));

test('every verb of the schema is a sentence of some kind, in a file of its own', () => {
  const verbs = words(named('Action'));
  expect(verbs.length).toBeGreaterThan(20);
  const said = (verb: string, kind: Piece['kind']) =>
    sentence({ kind }, { name: 'one', do: { [verb]: {} } } as unknown as Operation, []);
  for (const verb of verbs) {
    const parts = [...said(verb, 'sheet'), ...said(verb, 'frame')];
    expect(parts.length, verb).toBeGreaterThan(1);
    expect(
      files.filter((file) => file.endsWith(`/${verb}.ts`)),
      verb,
    ).toHaveLength(1);
  }
  expect(files).toHaveLength(verbs.length);
});

test('every choice of a sentence can be told from its neighbours, and a line that is typed from every other', () => {
  for (const kind of Object.values(KINDS)) {
    const typed = kind.verbs.flatMap((one) => one.phrases).map((one) => one.verb);
    expect(new Set(typed).size).toBe(typed.length);
    for (const row of kind.verbs) {
      const parts = sentence(
        kind.key === 'plate' ? { kind: 'sheet' } : { kind: kind.key },
        {
          name: 'one',
          do: { [row.key]: {} },
        } as unknown as Operation,
        [],
      );
      for (const part of parts) {
        if (part.kind !== 'choice') continue;
        const keys = part.options.map(([key]) => key);
        expect(new Set(keys).size, `${row.key}: ${part.label}`).toBe(keys.length);
        expect(keys, `${row.key}: ${part.label}`).toContain(part.value);
      }
    }
  }
});
