import type { Theme } from '../core/looks/first-family';
import type { SheetId } from '../core/sheet/ids';
import type { Reader } from '../core/sharing/role';
import { unpackSheet } from '../protocol/packed/packed-sheet';
import type { PaintedHead } from '../protocol/packed/painted-sheet';
import { sheetUrl } from '../protocol/sheet-url';
import { withQuery } from '../protocol/with-query';
import { PastReader } from './link/past-reader';
import { PersonalRules } from './link/personal-rules';
import { WholeTable } from './link/whole-table';
import type { News } from './news';
import type { OpenedSheet } from './opened-sheet';
import { LinkedLock } from './replica/linked-lock';
import { openPainted } from './replica/open-painted';
import { Replica } from './replica/replica';

/** A sheet as it came from the server, ready to be worked on. */
export interface ArrivedSheet {
  readonly opened: Omit<OpenedSheet, 'connection'>;
  /** Gives the address of the stream to follow; null where the sheet stands still. */
  readonly from: (() => string) | null;
}

/** What a sheet needs of the engine that opens it. */
interface Surroundings {
  readonly theme: Theme;
  /** The presence key of who reads; null for an anonymous reader. */
  readonly who: string | null;
  /** What is known of a linked table, of which other rows were here before. */
  readonly before: WholeTable | null;
  /** Does work when its turn comes, and reports what is new then. */
  readonly inTurn: (work: () => void, ...news: readonly News[]) => void;
}

/** A sheet with its rules. Throws a RangeError where the bytes are of another version than the page. */
export function arrivedSheet(
  id: SheetId,
  bytes: ArrayBuffer,
  { theme, who, before, inTurn }: Surroundings,
): ArrivedSheet {
  const { sheet, head } = unpackSheet(bytes);
  const whole = head.linked
    ? new WholeTable(head.linked, sheet, {
        id,
        before,
        told: (rule) => inTurn(() => replica.evaluation.onGiven(rule), 'window', 'legend'),
      })
    : null;
  const replica = new Replica(sheet, head.sequence, { theme, nowMs: head.asOf ?? Date.now(), whole });
  const past = new PastReader(id, (read) => inTurn(() => replica.usePast(read), 'window', 'legend', 'selection'));
  const from = head.asOf === undefined ? () => sheetUrl(id, `changes?after=${replica.sequence}`) : null;
  const personal =
    from !== null && who !== null ? new PersonalRules(id, replica, (work) => inTurn(work, 'window', 'legend')) : null;
  const lock = whole ? new LinkedLock(sheet) : null;
  return { opened: { id, name: head.name, replica, past, personal, lock }, from };
}

/** The same for a reader without rules: with given looks, and what they mean. */
export function arrivedView(
  id: SheetId,
  bytes: ArrayBuffer,
  { theme, as }: { readonly theme: Theme; readonly as: Reader['role'] | undefined },
): ArrivedSheet & Pick<PaintedHead, 'legend'> {
  const { name, replica, lock, head } = openPainted(bytes, theme);
  const url = sheetUrl(id, 'painted/changes');
  const from = () => withQuery(url, { theme, as, view: head.view, revision: replica.revision });
  return { opened: { id, name, replica, past: null, personal: null, lock }, from, legend: head.legend };
}
