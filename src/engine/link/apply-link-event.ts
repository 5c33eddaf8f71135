import type { Change } from '../../core/sheet/change';
import { isSameRule } from '../../core/rules/shape/is-same-rule';
import { findRule, rulesPutBy } from '../../core/rules/shape/stored-rule';
import type { Event, RefusedRule } from '../../protocol/engine-messages';
import type { RecordedChange } from '../../protocol/recorded-change';
import type { News } from '../news';
import type { Replica } from '../replica/replica';
import type { LinkEvent } from './live-link';
import { lostCell } from './lost-cell';
import type { OwnEntries } from './own-entries';

/** The events that change a sheet; the others are about the link itself. */
export type SheetEvent = Extract<LinkEvent, { readonly kind: 'changes' | 'repaint' | 'accepted' | 'refused' }>;

/** What an event means to the page. */
export interface Effect {
  readonly news: readonly News[];
  readonly events: readonly Event[];
}

/**
 * Applies an event of the link to a replica: the one place that says what each does. Entries of this person that others
 * wrote over without having seen them are among the effects.
 */
export function applyLinkEvent(replica: Replica, own: OwnEntries, event: SheetEvent): Effect {
  switch (event.kind) {
    case 'changes': {
      const events = lostBy(replica, own, event.changes);
      replica.receiveAll(event.changes);
      return { news: ['frame', 'window', 'legend', 'selection'], events };
    }
    case 'repaint': {
      const { changes, legend } = event.repaint;
      const events = lostBy(replica, own, changes);
      replica.repaint(event.repaint);
      const told: Event[] = legend ? [{ kind: 'meanings-changed', meanings: legend }] : [];
      return { news: ['frame', 'window', 'selection'], events: [...events, ...told] };
    }
    case 'accepted':
      replica.acknowledge(event.change.id, event.sequence);
      return { news: [], events: [] };
    case 'refused':
      replica.refuse(event.change.id);
      return {
        news: ['frame', 'window', 'legend', 'undo'],
        events: [{ kind: 'change-refused', message: event.message, rule: refusedRule(replica, event.change) }],
      };
  }
}

/** The rule that a refused change was about; null where it changed several, or nothing of one. */
function refusedRule({ sheet }: Replica, { operations }: Change): RefusedRule | null {
  const [draft, ...others] = operations.flatMap(rulesPutBy);
  if (!draft || others.length) return null;
  const kept = findRule(sheet, draft.id) ?? null;
  return kept && isSameRule(draft.rule, kept.rule) ? null : { draft, kept };
}

/** Remembers this person's entries that come back, and reports those that the changes of others wrote over. */
function lostBy(replica: Replica, own: OwnEntries, changes: readonly RecordedChange[]): Event[] {
  const mine = new Set(replica.waiting.map(({ id }) => id));
  const lost = changes.flatMap((change) => {
    if (!mine.has(change.change.id)) return own.lostTo(change);
    own.note(change);
    return [];
  });
  const cells = lost.flatMap((entry) => lostCell(replica.sheet, entry) ?? []);
  return cells.length ? [{ kind: 'entries-lost', lost: cells }] : [];
}
