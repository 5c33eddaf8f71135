import type { Theme } from '../../core/looks/first-family';
import type { PaintedHead } from '../../protocol/packed/painted-sheet';
import { unpackPainted } from '../../protocol/packed/painted-sheet';
import { unpackSheet } from '../../protocol/packed/packed-sheet';
import { EntryLock } from './entry-lock';
import { GivenLooks } from './given-looks';
import { Replica } from './replica';

/** A sheet with given looks, ready to be worked on. */
export interface OpenPainted {
  readonly name: string;
  readonly replica: Replica;
  readonly lock: EntryLock;
  readonly head: PaintedHead;
}

/** Opens a painted sheet (see painted-sheet.ts). */
export function openPainted(bytes: ArrayBuffer, theme: Theme): OpenPainted {
  const { packed, head, codesOf } = unpackPainted(bytes);
  const { sheet, head: about } = unpackSheet(packed);
  const codes = sheet.fields.map((_, column) => codesOf(column, sheet.rowCount));
  const given = new GivenLooks(sheet, { looks: head.looks, codes });
  const replica = new Replica(sheet, about.sequence, { theme, nowMs: Date.now(), given });
  replica.revision = head.revision;
  return { name: about.name, replica, lock: new EntryLock(sheet, { role: head.role, own: head.own }), head };
}
