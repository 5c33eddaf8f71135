import fc from 'fast-check';
import { expect, test } from 'vitest';
import { foldText } from '../../values/fold-text';
import { BitSet } from '../../values/bit-set';
import { readInput } from '../../values/read-input';
import { Column } from './column';

const input = fc.oneof(
  fc.constantFrom(
    '',
    'Alder',
    '7',
    '7',
    ' alder ',
    'ÄLDER',
    '5',
    '5.0',
    '2026-03-08',
    'TRUE',
    '#N/A',
    "'5",
    'two\nlines',
  ),
  fc.string({ maxLength: 6 }),
);

/** What two cells meet by: the type of their value, and the value, for texts folded. */
const meeting = (text: string): string => {
  const { value } = readInput(text);
  return JSON.stringify(value.kind === 'text' ? { text: foldText(value.text) } : value);
};

// Against each cell read and folded by itself.
test('cells have one id where they meet, and texts are found by what they contain, also with contents that come later', () => {
  fc.assert(
    fc.property(
      fc.array(input, { maxLength: 40 }),
      fc.array(input, { maxLength: 8 }),
      input,
      fc.boolean(),
      (...[first, later, word, isLarge]) => {
        const column = new Column();
        // Beside many contents, numbers are kept as numbers alone.
        if (isLarge) for (let other = 0; other < 1000; other++) column.contents.codeFor(`other ${other}`, false);
        const all = [...first, ...later];
        column.fit(all.length);
        const contents = column.foldedContents();
        const ids = new Int32Array(all.length);
        const found = (): boolean[] => {
          const codes = new Set<number>();
          const folded = foldText(word);
          if (folded !== '') contents.forEachWith(folded, (code) => codes.add(code));
          return all.map((_, slot) => codes.has(column.codes[slot]!));
        };
        for (const part of [first, all, all.map((text, at) => (at === 0 ? word : text))]) {
          part.forEach((text, slot) => column.set(slot, text));
          const among = new BitSet();
          among.fit(part.length);
          part.forEach((_, slot) => among.set(slot, true));
          const counts = new Uint32Array(contents.idCount + part.length);
          contents.countIds(among, { into: ids.subarray(0, part.length), counts });
          for (const id of new Set(ids.subarray(0, part.length)))
            if (id > 0) expect(counts[id]).toBe(ids.subarray(0, part.length).filter((each) => each === id).length);
          part.forEach((text, slot) => {
            const { kind } = readInput(text).value;
            expect(contents.idAt(slot)).toBe(ids[slot]);
            expect(Math.sign(ids[slot]!)).toBe(kind === 'blank' ? 0 : kind === 'error' ? -1 : 1);
            const twin = part.findIndex((other) => meeting(other) === meeting(text));
            if (kind !== 'error') expect(ids[slot]).toBe(ids[twin]);
          });
          const distinct = new Set(ids.subarray(0, part.length)).size;
          const expected = new Set(
            part.map((text) => (readInput(text).value.kind === 'error' ? 'error' : meeting(text))),
          );
          expect(distinct).toBe(expected.size);
          if (isLarge) continue;
          const wanted = foldText(word);
          const shown = part.map((_, slot) => foldText(column.entryAt(slot).shown));
          expect(found().slice(0, part.length)).toEqual(shown.map((text) => wanted !== '' && text.includes(wanted)));
        }
      },
    ),
  );
});
