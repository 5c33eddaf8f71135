import { expect, test } from 'vitest';
import { FIRST_FAMILY } from '../looks/first-family';
import { lookPart, lookParts, looksById, OWN_LOOK, renamedLook, sheetLooks } from './sheet-looks';
import { seenAs } from '../looks/vision';

test('a sheet begins with the first family, in either theme', () => {
  for (const theme of ['light', 'dark'] as const)
    expect(sheetLooks([], theme)).toEqual(FIRST_FAMILY.map(({ id, name, [theme]: look }) => ({ id, name, look })));
});

test('a renamed look stays what it is in both themes; a changed one is changed in both, in its place', () => {
  const [alarm] = sheetLooks([], 'dark');
  const renamed = renamedLook(alarm!, 'Act now');
  expect(sheetLooks([renamed], 'light')[0]).toEqual({ id: 'alarm', name: 'Act now', look: FIRST_FAMILY[0]!.light });
  expect(sheetLooks([renamed], 'dark')[0]).toEqual({ id: 'alarm', name: 'Act now', look: FIRST_FAMILY[0]!.dark });
  const changed = lookPart(
    { id: 'alarm', name: 'Alarm', look: { look: 'alarm', italic: true } },
    looksById(sheetLooks([], 'light')),
  );
  expect(sheetLooks([changed], 'dark')[0]!.look).toEqual({ ...FIRST_FAMILY[0]!.light, italic: true });
});

test('a look of the sheet’s own comes after the family and takes with it what it began from', () => {
  const own = lookPart(
    {
      id: `${OWN_LOOK}x`,
      name: 'Heavy',
      look: { look: 'ringed', border: { top: { style: 'double', width: 3, color: '#111111' } } },
    },
    looksById(sheetLooks([], 'light')),
  );
  const kept = sheetLooks(lookParts([own, { id: 'bands', kind: 'bands' }]), 'light').at(-1)!;
  expect(kept).toMatchObject({ id: 'saved-x', name: 'Heavy' });
  expect(kept.look.border).toMatchObject({ top: { style: 'double' }, left: { style: 'solid', color: '#b4411f' } });
  expect('look' in kept.look).toBe(false);
});

test('a grey is seen as itself with every vision, and grey print leaves no colour', () => {
  for (const vision of ['protan', 'deutan', 'tritan', 'grey'] as const)
    expect(seenAs('#808080', vision)).toBe('#808080');
  expect(seenAs('#c04040', 'grey')).toMatch(/^#(..)\1\1$/);
});
