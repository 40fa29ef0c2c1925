/// <reference types="vite/client" />
// Every text that the screen shows holds to the one file of words.
import ts from 'typescript';
import { expect, test } from 'vitest';
import { WORDS } from './words';

const texts = import.meta.glob<string>(['./**/*.{ts,tsx}', '!./**/*.test.*', '!./api/schema.d.ts', '!./words.ts'], {
  query: '?raw',
  import: 'default',
  eager: true,
});

/** What a source shows somebody: its element texts, and strings of more than one word. */
function shown(file: string, text: string): string[] {
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX);
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isJsxText(node)) found.push(node.text);
    else if (ts.isStringLiteralLike(node) && / /.test(node.text)) found.push(node.text);
    else if (ts.isTemplateExpression(node))
      found.push(node.head.text + node.templateSpans.map((span) => `{}${span.literal.text}`).join(''));
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found.map((one) => one.replace(/\s+/g, ' ').trim()).filter(Boolean);
}

const rust = import.meta.glob<string>('../../crates/{core,formats,cutter,server,store}/src/**/*.rs', {
  query: '?raw',
  import: 'default',
  eager: true,
});

/** What core, files and server may say to somebody: strings of more than one word, without what stands in comments. */
function said(text: string): string[] {
  const code = text.replace(/^\s*\/\/.*$/gm, '').replace(/^\s*#!?\[.*$/gm, '');
  const strings = [...code.matchAll(/(?<![\w'])"((?:[^"\\]|\\.)*)"/gs)].map(([, one]) => one ?? '');
  const plain = strings.map((one) => one.replace(/\\\n\s*/g, '').replace(/\{[^}]*\}/g, '{}'));
  return plain.filter((one) => / /.test(one));
}

const front = Object.entries(texts).flatMap(([file, text]) => shown(file, text).map((one) => ({ file, one })));
/** What logs of an older Steelk say: looked for, and never shown anew. */
const OLD = ['took the job off the rack'];

const back = Object.entries(rust)
  .flatMap(([file, text]) => said(text).map((one) => ({ file, one })))
  .filter(({ one }) => !OLD.includes(one));
const all = [...front, ...back];

test('there are texts to hold to the words', () => {
  expect(front.length).toBeGreaterThan(1500);
  expect(back.length).toBeGreaterThan(2000);
  expect(back.some(({ one }) => one.includes('NOT RELEASED'))).toBe(true);
});

test.each(WORDS.flatMap(({ word, not }) => (not ?? []).map((own) => ({ word, ...own }))))(
  '$word: $pattern is not said',
  ({ pattern, instead }) => {
    const wrong = all
      .filter(({ one }) => pattern.test(one))
      .map(({ file, one }) => `${file}: ${one} (say: ${instead})`);
    expect(wrong).toEqual([]);
  },
);

test('"off" stands for out of tolerance and nothing else', () => {
  // What stands beside it says that it is a verdict, a distance that is too far, or a word that is read and not shown.
  const verdict = /is off|call-outs? off|\{\} off|off by|^off$|off \{\}|furthest off|further off/;
  const read = /turn(ed)? off|off spacing/;
  const wrong = all.filter(({ one }) => /(^|[\s(])off([\s.,;)]|$)/.test(one) && !verdict.test(one) && !read.test(one));
  expect(wrong.map(({ file, one }) => `${file}: ${one}`)).toEqual([]);
});

test('words are told once, in a sentence, and have a place of their own', () => {
  expect(new Set(WORDS.map((one) => one.word)).size).toBe(WORDS.length);
  for (const { word, means } of WORDS) expect(means, word).toMatch(/^[A-Z].*\.$/s);
});
