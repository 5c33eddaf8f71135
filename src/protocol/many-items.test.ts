import fc from 'fast-check';
import Joi from 'joi';
import { expect, test } from 'vitest';
import { anyOperation } from '../../test/support/arbitrary-sheet';
import { changeSchema, FORMS, OPERATION_FORM } from './change-schema';
import { manyItems } from './many-items';

const LISTS = {
  'set-cells': 'setCells',
  'insert-rows': 'insertRows',
  'change-rows': 'changeRows',
  'set-styles': 'setStyles',
} as const;

/** Items as the engine makes them, and the same with something in them that is wrong, missing or too much. */
const damaged = fc
  .tuple(
    anyOperation.filter(({ kind }) => kind in LISTS),
    fc.constantFrom(
      'none',
      'row',
      'field',
      'id',
      'key',
      'role',
      'cells',
      'input',
      'was',
      'style',
      'heightPx',
      'level',
      'about',
      '__proto__',
      'more',
    ),
    fc.constantFrom<unknown>(
      '',
      'x'.repeat(600),
      'a b',
      '__proto__',
      'constructor',
      7,
      15,
      16.5,
      null,
      undefined,
      [],
      {},
      { a: 1 },
      { fill: 'red' },
    ),
  )
  .map(([operation, name, value]) => {
    const list = (operation as unknown as Record<string, readonly object[]>)[
      operation.kind === 'set-cells' || operation.kind === 'set-styles' ? 'cells' : 'rows'
    ]!;
    const items = list.map((item) =>
      name === 'none' ? item : Object.fromEntries([...Object.entries(item), [name, value]]),
    );
    return { form: FORMS[LISTS[operation.kind as keyof typeof LISTS]], items: [...items, ...items] };
  });

/** What a list says to its items, by their schemas and by the plain form. */
const told = (schema: Joi.Schema, list: readonly unknown[]) =>
  Joi.object({ list: schema }).validate({ list }, { convert: false }).error?.message;

test('a long list takes and refuses the same as its schema does item by item, in the same words', () => {
  fc.assert(
    fc.property(damaged, ({ form, items }) => {
      expect(told(manyItems(form), items)).toBe(told(Joi.array().items(form.item).min(1), items));
    }),
    { numRuns: 3000 },
  );
});

test('operations are taken and refused the same, whatever is wrong with one of its cells or with itself', () => {
  const operations = fc
    .tuple(damaged, fc.constantFrom('none', 'kind', 'cells', 'more'), fc.constantFrom<unknown>('rows', 7, null, {}, []))
    .map(([{ items }, name, value]) => [
      { kind: 'set-cells', cells: items, ...(name === 'none' ? {} : { [name]: value }) },
    ]);
  let taken = 0;
  fc.assert(
    fc.property(operations, (list) => {
      const says = told(Joi.array().items(OPERATION_FORM.item).min(1), list);
      if (says === undefined) taken++;
      expect(told(manyItems(OPERATION_FORM), list)).toBe(says);
    }),
    { numRuns: 2000 },
  );
  // About sixty times.
  expect(taken).toBeGreaterThan(5);
});

const check = (operations: readonly object[]) =>
  changeSchema.validate({ id: 'c', operations }, { convert: false }).error?.message;
const many = <T>(count: number, make: (at: number) => T) => Array.from({ length: count }, (_, at) => make(at));
const styled = (at: number, fill: string) => ({ row: `r${at}`, field: 'f', style: { fill } });
const hex = (at: number) => `#${at.toString(16).padStart(6, '0')}`;

test('as many cells as one edit may touch are taken, also with looks that are the same in many', () => {
  expect(
    check([{ kind: 'set-cells', cells: many(200_000, (at) => ({ row: `r${at}`, field: 'f', input: '1' })) }]),
  ).toBeUndefined();
  expect(check([{ kind: 'set-styles', cells: many(200_000, (at) => styled(at, hex(at % 900))) }])).toBeUndefined();
});

test('what would take long to check is refused before it is checked', () => {
  expect(check([{ kind: 'set-styles', cells: many(20_100, (at) => styled(at, hex(at))) }])).toContain(
    'send fewer at once',
  );
  expect(check(many(1001, () => ({ kind: 'remove-rows', rows: ['r'] })))).toBe(
    '"operations" has 1001 operations; a change has at most 1000',
  );
  const part = { id: 'gap_a', kind: 'dismissal', reason: 'x'.repeat(2_000_000) };
  expect(check([{ kind: 'put-parts', parts: [part] }])).toContain('a change holds at most 1000000');
});
