import type { QuietLimits } from '../../rules/shape/quiet';
import type { Spell } from '../past/spells';
import { QuietCell } from './quiet-cell';

interface Options {
  /** When each cell had the look by the condition that keeps it found; the rule's own where null. */
  readonly stays: readonly Spell[] | null;
  readonly limits: QuietLimits;
  /** The time that is known, as serial dates: what is there at its beginning was reported before. */
  readonly begins: number;
  readonly now: number;
}

/** The spells that a quiet rule would have reported, each from when it would have. */
export function quietSpells(spells: readonly Spell[], { stays, limits, begins, now }: Options): Spell[] {
  const staying = stays && byCell(stays);
  return [...byCell(spells)].flatMap(([key, own]) => {
    const found: Spell[] = [];
    const all = staying ? prolonged(own, staying.get(key) ?? []) : own;
    // What is there when the past begins was reported before.
    const old = all.find(({ from }) => from <= begins);
    const cell = new QuietCell(old?.outcome ?? -1);
    for (const spell of all) {
      const [report] = [
        ...cell.move(spell.from, spell.outcome, limits),
        ...cell.report(Math.min(spell.to, now), limits),
      ];
      if (spell === old) found.push(spell);
      else if (report) found.push({ ...spell, from: report.at });
      if (spell.to !== Infinity) cell.move(spell.to, -1, limits);
    }
    return found;
  });
}

/** Spells by cell, in order of time. */
function byCell(spells: readonly Spell[]): Map<string, Spell[]> {
  const cells = new Map<string, Spell[]>();
  for (const spell of spells) {
    const key = `${spell.row} ${spell.field}`;
    const own = cells.get(key);
    if (own) own.push(spell);
    else cells.set(key, [spell]);
  }
  for (const own of cells.values()) own.sort((a, b) => a.from - b.from);
  return cells;
}

/** From where each begins to where the wider condition ends; those that begin in between belong to it. */
function prolonged(own: readonly Spell[], wider: readonly Spell[]): Spell[] {
  const found: Spell[] = [];
  for (const spell of own) {
    const last = found.at(-1);
    if (last && spell.from < last.to) continue;
    const stay = wider.find(({ from, to }) => from <= spell.from && spell.from < to);
    found.push({ ...spell, to: stay?.to ?? spell.to });
  }
  return found;
}
