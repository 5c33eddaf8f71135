import fc from 'fast-check';
import { expect, test } from 'vitest';
import { TextIndex } from './text-index';

test('texts that come and go are found as in a map', () => {
  const text = fc.oneof(fc.nat({ max: 300 }).map(String), fc.string({ maxLength: 3 }), fc.constantFrom('Aa', 'BB', ''));
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom('set', 'find or set', 'delete'), text), { maxLength: 900 }),
      (acts) => {
        const texts: string[] = [];
        const map = new Map<string, number>();
        const index = new TextIndex((number) => texts[number]!);
        for (const [act, each] of acts) {
          const next = texts.push(each) - 1;
          if (act === 'delete') {
            map.delete(each);
            index.delete(each);
          } else if (act === 'set') {
            map.set(each, next);
            index.set(each, next);
          } else {
            if (!map.has(each)) map.set(each, next);
            expect(index.findOrSet(each, next)).toBe(map.get(each));
          }
        }
        for (const each of texts) expect(index.find(each)).toBe(map.get(each) ?? -1);
      },
    ),
    { numRuns: 300 },
  );
});
