import classes from './Bench.module.css';
import { useReadings } from './use-readings';

/** How the formula on the bench reads at the first cells, at the last and at the selected one, and what it gives there. */
export function Readings() {
  const readings = useReadings();
  if (readings.length === 0) return null;
  return (
    <table className={classes.readings} aria-label="How it reads">
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
