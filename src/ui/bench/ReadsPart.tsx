import { memo } from 'react';
import { useTranslations } from 'use-intl';
import { itemAt } from '../../core/values/item-at';
import type { Reads } from '../../core/rules/terms';
import { cellAddress, writeArea } from '../../core/sheet/address';
import { selectedAreas } from '../grid/engine/selection';
import { useSession, useSessionState } from '../sheet/use-session';
import { CellInput } from './parts/CellInput';
import { Pick } from './parts/Pick';
import { PickFields } from './parts/PickFields';
import { PickRoles } from './parts/PickRoles';

/** The cells that a rule tests: fields, in the records or in rows of other roles too, or ranges. */
export const ReadsPart = memo(function ReadsPart({
  reads,
  onPick,
}: {
  readonly reads: Reads;
  readonly onPick: (reads: Reads) => void;
}) {
  const t = useTranslations('bench');
  const session = useSession();
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const reach = (id: string) => {
    const { selection } = session.get();
    if (id === 'cells') onPick({ cells: selectedAreas(selection).map(writeArea).join(' ') || cellAddress(0, 0) });
    else onPick({ fields: [fields[selection.anchor.column]?.id ?? itemAt(fields, 0).id] });
  };
  return (
    <>
      {'fields' in reads ? (
        <>
          <PickFields label={t('reads')} value={reads.fields} onPick={(ids) => onPick({ ...reads, fields: ids })} />{' '}
          {t('in')} <PickRoles value={reads.roles ?? ['record']} onPick={(roles) => onPick({ ...reads, roles })} />
        </>
      ) : (
        <>
          {t('cells')}{' '}
          <CellInput
            label={t('cellsRead')}
            value={reads.cells}
            takes="ranges"
            onChange={(cells) => onPick({ cells })}
          />
        </>
      )}{' '}
      <Pick
        label={t('range')}
        value={'fields' in reads ? 'fields' : 'cells'}
        shown="▾"
        options={[
          { id: 'fields', words: t('fieldsRecordsStillCome') },
          { id: 'cells', words: t('justTheSelectedCells') },
        ]}
        onPick={reach}
      />
    </>
  );
});
