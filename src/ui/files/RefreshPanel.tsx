import { counted, inDigits } from '../../core/values/counted';
import { Button, Checkbox, Switch } from '@mantine/core';
import { useRefresh } from './use-refresh';
import { itemAt, lastItem } from '../../core/values/item-at';
import type { NewerFile, RefreshPreview } from '../../protocol/engine-messages';
import { ChooseFile } from './ChooseFile';
import classes from './Files.module.css';

/** Brings a newer file's values into the records that are there: what would be different is shown first. */
export function RefreshPanel() {
  const { file, key, removes, preview, isDone, error, look, read, refresh } = useRefresh();
  return (
    <div className={classes.panel}>
      <p className={classes.note}>
        Choose a newer file of these records. Records that are already here get its values, new ones are added. You see
        the differences first, and one undo reverts them.
      </p>
      <ChooseFile label="File with newer values" take={(chosen) => void read(chosen)} />
      {error && <p role="alert">{error}</p>}
      {file && (
        <>
          <p className={classes.note}>
            “{file.name}”: {counted(file.newer.records, 'record')}, {counted(file.newer.shared.length, 'field')} in
            common with this sheet.
            {file.newer.unknown.length > 0 &&
              ` Ignored, because this sheet has no such field: ${file.newer.unknown.join(', ')}.`}
          </p>
          <Checkbox.Group
            label="Match records by"
            description={proposal(file.newer)}
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
            label="Delete records that are not in the file"
            checked={removes}
            onChange={({ currentTarget }) => void look({ key, removes: currentTarget.checked })}
          />
        </>
      )}
      {preview && <Different preview={preview} isDone={isDone} />}
      {preview && !isDone && preview.changed + preview.added + preview.removed > 0 && (
        <div>
          <Button onClick={() => void refresh()}>Update the sheet</Button>
        </div>
      )}
    </div>
  );
}

/** Why some fields are proposed. */
function proposal({ shared, key }: NewerFile): string {
  const labels = key.flatMap((id) => shared.find((field) => field.id === id)?.label ?? []);
  if (labels.length === 0) return 'No field identifies each record of the file';
  return labels.length === 1
    ? `${itemAt(labels, 0)} identifies each record of the file`
    : `${labels.slice(0, -1).join(', ')} and ${lastItem(labels)} together identify each record of the file`;
}

/** The differences that refreshing makes, or has made. */
function Different({
  preview: { changed, cells, added, removed, missing, passedOver },
  isDone,
}: {
  readonly preview: RefreshPreview;
  readonly isDone: boolean;
}) {
  return (
    <section className={classes.report} aria-label="Differences">
      <h3>
        {isDone ? 'Done: ' : ''}
        {changed + added + removed === 0
          ? 'No differences'
          : `${counted(changed, 'changed cell')}, ${counted(added, 'new record')}, ${counted(removed, 'deleted record')}`}
      </h3>
      {missing > removed && <p>Not in the file, but kept: {counted(missing, 'record')}.</p>}
      {passedOver > 0 && (
        <p>{counted(passedOver, 'record')} of the file ignored: no key, or the same key as another record.</p>
      )}
      {cells.length > 0 && (
        <table>
          <thead>
            <tr>
              <th scope="col">Record</th>
              <th scope="col">Field</th>
              <th scope="col">Now</th>
              <th scope="col">In the file</th>
            </tr>
          </thead>
          <tbody>
            {cells.map(({ record, label, before, after }, at) => (
              <tr key={at}>
                <td>{record}</td>
                <td>{label}</td>
                <td>{before || 'blank'}</td>
                <td>{after || 'blank'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {changed > cells.length && <p>… and {inDigits(changed - cells.length)} more cells</p>}
    </section>
  );
}
