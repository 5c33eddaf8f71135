import { useTranslations } from 'use-intl';
import classes from './Readings.module.css';
import { useSessionState } from '../sheet/use-session';
import { useEngineQuery } from '../sheet/engine/use-engine-query';

/**
 * How the formula on the bench reads at the first cells, at the last and at the selected one, and what it gives there.
 */
export function Readings() {
  const t = useTranslations('bench');
  const rule = useSessionState((state) => state.bench?.draft.id) ?? '';
  const at = useSessionState((state) => state.selection.anchor);
  const readings = useEngineQuery({ kind: 'ask-readings', rule, at }) ?? [];
  if (readings.length === 0) return null;
  return (
    <table className={classes.readings} aria-label={t('howItReads')}>
      <tbody>
        {readings.map(({ address, formula, gives }) => (
          <tr key={address}>
            <th scope="row">{address}</th>
            <td>
              <code>{formula}</code>
            </td>
            <td>{gives}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
