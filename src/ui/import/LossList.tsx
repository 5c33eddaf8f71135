import { useTranslations } from 'use-intl';
import type { Loss } from '../../core/exchange/workbook/losses';
import classes from './ImportScreen.module.css';

/** What a file has that the sheet will not: one line a kind, with where it stands on demand. */
export function LossList({ losses }: { readonly losses: readonly Loss[] }) {
  const t = useTranslations('importing');
  return (
    <section>
      <h2 className={classes.heading}>{t('notImported')}</h2>
      <ul className={classes.facts}>
        {losses.map((loss) => (
          <li key={loss.what}>
            <LossItem loss={loss} />
          </li>
        ))}
        {losses.length === 0 && <li>{t('nothingIsLeftOut')}</li>}
      </ul>
    </section>
  );
}

function LossItem({ loss: { what, count, places } }: { readonly loss: Loss }) {
  const t = useTranslations('importing');
  if (places.length === 0) return what;
  if (count === 1) return t('whatPlace', { what, place: places.join() });
  return (
    <details>
      <summary>{t('whatCountTimes', { what, count })}</summary>
      {t('placesMore', { places: places.join(', '), more: count - places.length })}
    </details>
  );
}
