/// <reference types="vite/client" />
// No files of the front end use each other in a circle, types included.
import ts from 'typescript';
import { expect, test } from 'vitest';

const texts = import.meta.glob<string>('./**/*.{ts,tsx}', { query: '?raw', import: 'default', eager: true });

/** The file that `name` means in `from`. */
function meant(name: string, from: string): string | undefined {
  const path = '.' + new URL(name, new URL(from, 'file:///')).pathname;
  return [`${path}.ts`, `${path}.tsx`].find((one) => one in texts);
}

test('no files use each other in a circle', () => {
  const uses = new Map(
    Object.entries(texts).map(([file, text]) => {
      const imported = ts.preProcessFile(text).importedFiles.map((one) => one.fileName);
      const own = imported.filter((name) => name.startsWith('.')).map((name) => meant(name, file));
      return [file, own.filter((one) => one !== undefined)];
    }),
  );
  expect([...uses.values()].flat().length, 'uses that were found').toBeGreaterThan(150);
  const reached = (from: string) => {
    const seen = new Set<string>();
    const next = [from];
    for (let at = next.pop(); at !== undefined; at = next.pop()) {
      const fresh = (uses.get(at) ?? []).filter((to) => !seen.has(to));
      fresh.forEach((to) => seen.add(to));
      next.push(...fresh);
    }
    return seen;
  };
  expect([...uses.keys()].filter((file) => reached(file).has(file))).toEqual([]);
});
