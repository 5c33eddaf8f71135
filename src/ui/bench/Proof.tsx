import { counted, inDigits } from '../../core/values/counted';
import { kindOf } from '../../core/rules/kinds/registry';
import type { Rule } from '../../core/rules/shape/rule';
import { thresholdText } from '../../core/values/threshold-text';
import { isoFromSerial } from '../../core/values/date-serial';
import { formatNumber } from '../../core/values/number-format';
import { useSession, useSessionState } from '../sheet/use-session';
import shared from './Bench.module.css';
import classes from './Proof.module.css';

/** The evidence for a rule: the nearest values on each side of each threshold, and the cells that are not tested. */
export function Proof({ rule }: { readonly rule: Rule }) {
  const session = useSession();
  const answer = useSessionState((state) => state.profile);
  const entry = useSessionState((state) => state.legend.find((candidate) => candidate.id === state.bench?.draft.id));
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  if (!answer) return null;
  const { reads, when } = rule;
  const format = ('fields' in reads ? fields.find((field) => field.id === reads.fields[0])?.format : null) ?? null;
  const { profile, nearest } = answer;
  const isDated = answer.dates > profile.numbers / 2;
  const shown = (value: number) =>
    Number.isNaN(value) ? 'none' : isDated ? isoFromSerial(Math.floor(value)) : formatNumber(value, format);
  return (
    <ul className={classes.proof} aria-label="Proof">
      {entry && !entry.problem && (
        <li data-testid="bench-count">
          <b>
            {inDigits(entry.matched)} of {inDigits(entry.read)} cells
          </b>{' '}
          {entry.matched > 0 && (
            <button type="button" className={shared.show} onClick={() => void session.rules.showMatch()}>
              show the next one
            </button>
          )}
        </li>
      )}
      {entry?.problem && <li>{entry.problem.message}</li>}
      {kindOf(when)
        .thresholds(when)
        .map(({ value }, at) => {
          const near = nearest[at];
          return (
            near && (
              <li key={at}>
                At {thresholdText(value, format)}: {counted(near.at, 'cell')}; nearest below {shown(near.below)},
                nearest above {shown(near.above)}
              </li>
            )
          );
        })}
      {profile.numbers > profile.others && (
        <li>
          Average {shown(Number(profile.mean.toPrecision(6)))}, median {shown(profile.median)}
        </li>
      )}
      <li>
        {counted(profile.numbers, isDated ? 'date' : 'number')}, {counted(profile.blanks, 'blank')},{' '}
        {inDigits(profile.others)} text or other
      </li>
    </ul>
  );
}
