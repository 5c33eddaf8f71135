import { Button, Checkbox, Switch } from '@mantine/core';
import { useTranslations } from 'use-intl';
import type { Texts } from '../../texts/texts';
import { useRefresh } from './use-refresh';
import type { NewerFile, RefreshPreview } from '../../protocol/engine-messages';
import { ChooseFile } from './ChooseFile';
import classes from './Files.module.css';

/** Brings a newer file's values into the records that are there: what would be different is shown first. */
export function RefreshPanel() {
  const t = useTranslations('files');
  const { file, key, removes, preview, isDone, error, look, read, refresh } = useRefresh();
  return (
    <div className={classes.panel}>
      <p className={classes.note}>{t('chooseNewerFileThese')}</p>
      <ChooseFile label={t('fileWithNewerValues')} take={(chosen) => void read(chosen)} />
      {error && <p role="alert">{error}</p>}
      {file && (
        <>
          <p className={classes.note}>
            {t('nameRecordsRecordsCount', {
              name: file.name,
              records: file.newer.records,
              count: file.newer.shared.length,
            })}
            {file.newer.unknown.length > 0 &&
              ` ${t('ignoredBecauseSheetHas', { unknown: file.newer.unknown.join(', ') })}`}
          </p>
          <Checkbox.Group
            label={t('matchRecordsBy')}
            description={proposal(file.newer, t)}
            value={[...key]}
            onChange={(value) => void look({ key: value, removes })}
          >
            <div className={classes.choices}>
              {file.newer.shared.map(({ id, label }) => (
                <Checkbox key={id} value={id} label={label} />
              ))}
            </div>
          </Checkbox.Group>
          <Switch
            label={t('deleteRecordsNotFile')}
            checked={removes}
            onChange={({ currentTarget }) => void look({ key, removes: currentTarget.checked })}
          />
        </>
      )}
      {preview && <Different preview={preview} isDone={isDone} />}
      {preview && !isDone && preview.changed + preview.added + preview.removed > 0 && (
        <div>
          <Button onClick={() => void refresh()}>{t('updateTheSheet')}</Button>
        </div>
      )}
    </div>
  );
}

/** Why some fields are proposed. */
function proposal({ shared, key }: NewerFile, t: Texts<'files'>): string {
  const labels = key.flatMap((id) => shared.find((field) => field.id === id)?.label ?? []);
  return t('countOthersLastTogether', {
    count: labels.length,
    others: labels.slice(0, -1).join(', '),
    last: labels.at(-1) ?? '',
  });
}

/** The differences that refreshing makes, or has made. */
function Different({
  preview: { changed, cells, added, removed, missing, passedOver },
  isDone,
}: {
  readonly preview: RefreshPreview;
  readonly isDone: boolean;
}) {
  const t = useTranslations('files');
  return (
    <section className={classes.report} aria-label={t('differences')}>
      <h3>
        {isDone ? `${t('done')} ` : ''}
        {changed + added + removed === 0
          ? t('noDifferences')
          : t('changedChangedCellsAdded', { changed, added, removed })}
      </h3>
      {missing > removed && <p>{t('notFileButKept', { missing })}</p>}
      {passedOver > 0 && <p>{t('passedOverRecordsFileIgnored', { passedOver })}</p>}
      {cells.length > 0 && (
        <table>
          <thead>
            <tr>
              <th scope="col">{t('record')}</th>
              <th scope="col">{t('field')}</th>
              <th scope="col">{t('now')}</th>
              <th scope="col">{t('inTheFile')}</th>
            </tr>
          </thead>
          <tbody>
            {cells.map(({ record, label, before, after }, at) => (
              <tr key={at}>
                <td>{record}</td>
                <td>{label}</td>
                <td>{before || t('blank')}</td>
                <td>{after || t('blank')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {changed > cells.length && <p>{t('andChangedMoreCells', { changed: changed - cells.length })}</p>}
    </section>
  );
}
