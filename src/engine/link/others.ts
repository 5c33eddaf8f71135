import { nanoid } from 'nanoid';
import { sheetUrl } from '../../protocol/sheet-url';
import { idsOfCell, positionOfCell } from '../../core/sheet/cell-position';
import type { SheetId } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';
import type { Area, Selection, PresentPerson } from '../../protocol/sheet-view';
import { PRESENCE_BEAT_MS, type Present, type PresentPlace } from '../../protocol/presence';

/** Minimum interval between presence announcements. */
const MIN_ANNOUNCE_MS = 2000;

/** A selection that moves on within this is announced once. */
const GATHER_MS = 250;

/** Presence: who else has the sheet open and where, and the announcing of one's own selection. */
export class Others {
  readonly key = nanoid();
  private heardAt = 0;
  private people: readonly Present[] = [];
  private place: PresentPlace | null = null;
  private resting: ReturnType<typeof setTimeout> | null = null;
  private readonly beat: ReturnType<typeof setInterval>;

  constructor(private readonly sheet: SheetId) {
    this.beat = setInterval(() => this.announce(), PRESENCE_BEAT_MS);
    this.announce();
  }

  /** Updates who is there. */
  hear(people: readonly Present[]): void {
    this.people = people.filter(({ key }) => key !== this.key);
    // A stream that broke has taken one off the list.
    if (this.people.length === people.length && Date.now() - this.heardAt > MIN_ANNOUNCE_MS) this.announce();
  }

  /** The others, each with their selection where it lies now; null where it is hidden, or gone. */
  tell(sheet: Sheet): PresentPerson[] {
    return this.people.map(({ key, name, role, place }) => ({ key, name, role, area: place && areaOf(sheet, place) }));
  }

  /** Sets this page's selection. */
  select(sheet: Sheet, { anchor, focus }: Selection): void {
    const [from, to] = [idsOfCell(sheet, anchor), idsOfCell(sheet, focus)];
    this.place = from && to ? { from, to } : null;
    this.resting ??= setTimeout(() => {
      this.resting = null;
      this.announce();
    }, GATHER_MS);
  }

  close(): void {
    clearInterval(this.beat);
    clearTimeout(this.resting ?? undefined);
  }

  private announce(): void {
    this.heardAt = Date.now();
    // Nobody waits for it, and a lost announcement is repeated at the next beat.
    void fetch(sheetUrl(this.sheet, 'presence'), {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ key: this.key, place: this.place }),
    }).catch(() => {});
  }
}

function areaOf(sheet: Sheet, { from, to }: PresentPlace): Area | null {
  const [a, b] = [positionOfCell(sheet, from), positionOfCell(sheet, to)];
  if (!a || !b) return null;
  return {
    left: Math.min(a.column, b.column),
    right: Math.max(a.column, b.column),
    top: Math.min(a.position, b.position),
    bottom: Math.max(a.position, b.position),
  };
}
