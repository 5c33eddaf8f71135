import type { NewFinding } from '../../protocol/findings';

/** A finding in one line, for mails. */
export function findingLine({ ruleName, outcome, way, record, label, before, after }: NewFinding): string {
  const what = `${ruleName}${outcome === '' ? '' : ` (${outcome})`}`;
  const values = before === after ? shown(after) : `${shown(before)}, now ${shown(after)}`;
  return `${record}, ${label}: ${way === 'entered' ? 'entered' : 'left'} ${what}. It was ${values}.`;
}

const shown = (text: string): string => (text === '' ? 'blank' : text);
