import { Select } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { labelled } from '../../texts/texts';
import type { Key } from '../../texts/texts';
import type { ReadAs } from '../../core/exchange/import/table-reading';
import type { FilePreview, ReadingChange } from '../../protocol/import-messages';
import shared from './Import.module.css';
import classes from './PreviewTable.module.css';

const READ_AS: readonly { readonly value: ReadAs; readonly label: Key<'importing'> }[] = [
  { value: 'values', label: 'automatic' },
  { value: 'comma', label: 'decimalComma' },
  { value: 'point', label: 'decimalPoint' },
  { value: 'text', label: 'text' },
  { value: 'nothing', label: 'skip' },
];

/** A header can be any of the first rows. */
const HEADER_ROWS = 20;

interface Props {
  readonly preview: FilePreview;
  readonly change: (change: ReadingChange) => void;
}

/**
 * The first rows of a file as they stand in it, with what was found of each field above. The row of labels is chosen by
 * its number.
 */
export function PreviewTable({ preview: { head, fields, reading, header, rowCount }, change }: Props) {
  const t = useTranslations('importing');
  return (
    <div className={shared.scroller} tabIndex={0} role="region" aria-label={t('preview')}>
      <table className={classes.table}>
        <thead>
          <tr>
            <th className={classes.row} aria-label={t('row')} />
            {fields.map(({ label, kind, why, as }, column) => (
              <th key={column} scope="col" data-out={as === 'nothing' || undefined}>
                <span className={classes.label}>{label}</span>
                <span className={classes.kind}>
                  {kind}: {why}
                </span>
                {reading && (
                  <Select
                    size="xs"
                    w={148}
                    aria-label={t('typeOfLabel', { label })}
                    data={labelled(READ_AS, (key) => t(key))}
                    value={as}
                    allowDeselect={false}
                    onChange={(value) => value && change({ as: { column, as: value } })}
                  />
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {head.map((cells, position) => (
            <tr
              key={position}
              data-header={position === header || undefined}
              data-above={(header !== null && position < header) || undefined}
            >
              <td className={classes.row}>
                <RowNumber position={position} header={header} change={change} />
              </td>
              {fields.map(({ as }, column) => (
                <td key={column} data-out={as === 'nothing' || undefined}>
                  {cells[column] ?? ''}
                </td>
              ))}
            </tr>
          ))}
          {rowCount > head.length && (
            <tr>
              <td className={classes.row} />
              <td colSpan={fields.length}>{t('andRowCountMoreRows', { rowCount: rowCount - head.length })}</td>
            </tr>
          )}
        </tbody>
      </table>
    </div>
  );
}

interface RowNumberProps {
  readonly position: number;
  readonly header: number | null;
  readonly change: Props['change'];
}

/** The number of a row, by which one of the first can be chosen as the row of labels. */
function RowNumber({ position, header, change }: RowNumberProps) {
  const t = useTranslations('importing');
  if (position >= HEADER_ROWS) return position + 1;
  return (
    <button
      type="button"
      className={classes.place}
      aria-pressed={position === header}
      aria-label={t('rowPositionHeader', { position: position + 1 })}
      onClick={() => change({ header: position === header ? null : position })}
    >
      {position + 1}
    </button>
  );
}
