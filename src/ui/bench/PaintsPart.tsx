import { memo, useState } from 'react';
import { useTranslations } from 'use-intl';
import { eachText } from '../../texts/texts';
import type { Paints, Reads } from '../../core/rules/terms';
import { useSessionState } from '../sheet/use-session';
import { fieldsRead } from './fields-read';
import { PickFields } from './parts/PickFields';
import { PickWord } from './parts/PickWord';

const WORDS = { cell: 'thatCell', record: 'wholeRecord', fields: 'theseFieldsRecord' } as const;

interface Props {
  readonly reads: Reads;
  readonly paints: Paints;
  readonly onPick: (paints: Paints) => void;
}

/** Where a rule paints in the record in which it matches. */
export const PaintsPart = memo(function PaintsPart({ reads, paints, onPick }: Props) {
  const t = useTranslations('bench');
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  // Fields that were just chosen to be painted are named next.
  const [isNew, setNew] = useState(false);
  const kind = typeof paints === 'object' ? 'fields' : paints;
  return (
    <>
      <PickWord
        label={t('paints')}
        value={kind}
        words={eachText(WORDS, (key) => t(key))}
        onPick={(next) => {
          setNew(next === 'fields');
          onPick(next === 'fields' ? { fields: fieldsRead(reads, fields) } : next);
        }}
      />
      {typeof paints === 'object' && (
        <>
          {' '}
          <PickFields
            label={t('paintedFields')}
            between="and"
            value={paints.fields}
            opensAtOnce={isNew}
            onPick={(ids) => onPick({ fields: ids })}
          />
        </>
      )}
    </>
  );
});
