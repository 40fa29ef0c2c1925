// Paths into a part of the document, as the schema has it: a field that is renamed or gone does not compile.
import type { Path } from './edit';

/** One level less. */
type Less = [never, 0, 1, 2, 3, 4, 5];
type Leaf = string | number | boolean | null | undefined;

/**
 * Where something can be inside of `T`: fields by name, entries of lists by number; `Path` where nothing is known
 * of it.
 */
export type PathIn<T, Deep extends number = 5> = unknown extends T
  ? Path
  : Deep extends never
    ? Path
    : T extends Leaf
      ? never
      : T extends readonly (infer Entry)[]
        ? readonly [number | string, ...([] | PathIn<NonNullable<Entry>, Less[Deep]>)]
        : {
            [Key in keyof T & string]-?: readonly [Key, ...([] | PathIn<NonNullable<T[Key]>, Less[Deep]>)];
          }[keyof T & string];

/** Further into a path: for what is written under whatever it is given. */
export const inside = <A>(path: PathIn<A>, ...more: (string | number)[]): PathIn<A> =>
  [...(path as Path), ...more] as unknown as PathIn<A>;
