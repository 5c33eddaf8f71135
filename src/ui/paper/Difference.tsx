import { Button, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Texts } from '../../texts/texts';
import { sheetUrl } from '../../protocol/sheet-url';
import type { SheetDifference } from '../../core/rules/explain/sheet-difference';
import type { CellIds } from '../../core/sheet/ids';
import { sendJson } from '../../engine/link/send-json';
import { useSession } from '../sheet/use-session';
import { DifferenceTable } from './DifferenceTable';
import classes from './Paper.module.css';

/** The diff between a snapshot and now: values, looks, and added and removed records. */
export function Difference({ sequence }: { readonly sequence: number }) {
  const t = useTranslations('paper');
  const session = useSession();
  const [found, setFound] = useState<SheetDifference | null>(null);
  const [isBack, setBack] = useState(false);
  const [error, setError] = useState<string | null>(null);
  /** The change after which the other sheet is taken; empty for now. */
  const [to, setTo] = useState('');
  const other = to.trim() === '' ? undefined : Number(to);
  const ask = () => {
    setError(null);
    if (other !== undefined && !(Number.isInteger(other) && other >= 0)) return setError(t('changesNumberedSoSheet'));
    session
      .ask({ kind: 'ask-difference', ...(other === undefined ? {} : { to: other }) })
      .then(setFound, (failed: Error) => setError(failed.message));
  };
  if (!found) return <CompareForm to={to} when={whenWords(other, t)} onTo={setTo} onAsk={ask} error={error} />;
  const path = sheetUrl(session.sheet, `history/${sequence}`);
  /** Cells, or the whole sheet, go back to what they were then. */
  const bringBack = async (
    what: { readonly what: 'sheet' } | { readonly what: 'cells'; readonly cells: readonly CellIds[] },
  ) => {
    const sent = await sendJson(path, { body: { id: nanoid(), ...what } });
    if ('refused' in sent) return setError(sent.refused);
    if (what.what === 'sheet') setBack(true);
    ask();
  };
  const { cells, added, removed, isCut } = found;
  const when = whenWords(other, t);
  return (
    <section aria-label={t('differencesWhen', { when })} className={classes.difference}>
      <h2>
        {cells.length + added.length + removed.length === 0
          ? t('nothingIsDifferentWhen', { when })
          : t('differentWhenCellsCells', {
              when,
              cells: cells.length,
              isCut: String(isCut),
              added: added.length,
              removed: removed.length,
            })}
      </h2>
      {cells.length > 0 && (
        <DifferenceTable
          cells={cells}
          after={other === undefined ? t('now') : t('afterChangeOther', { other })}
          onBringBack={
            other === undefined ? (cell) => void bringBack({ what: 'cells', cells: [idsOf(cell)] }) : undefined
          }
        />
      )}
      {isBack ? (
        <p role="status">{t('sheetRestoredNewChange')}</p>
      ) : (
        <div className={classes.compare}>
          {other === undefined && (
            <Button size="compact-sm" variant="default" onClick={() => void bringBack({ what: 'sheet' })}>
              {t('restoreThisVersion')}
            </Button>
          )}
          <Button size="compact-sm" variant="default" onClick={() => setFound(null)}>
            {t('compareWithAnotherVersion')}
          </Button>
        </div>
      )}
      {error && <p role="alert">{error}</p>}
      {added.length > 0 && <p>{t('addedAdded', { added: namesOf(added, t) })}</p>}
      {removed.length > 0 && <p>{t('removedRemoved', { removed: namesOf(removed, t) })}</p>}
    </section>
  );
}

const whenWords = (other: number | undefined, t: Texts<'paper'>): string =>
  other === undefined ? t('whenNow') : t('whenAfterChange', { other });
const idsOf = ({ row, field }: CellIds): CellIds => ({ row, field });

interface CompareFormProps {
  readonly to: string;
  readonly when: string;
  readonly onTo: (to: string) => void;
  readonly onAsk: () => void;
  readonly error: string | null;
}

/** Asks with which moment to compare. */
const CompareForm = ({ to, when, onTo, onAsk, error }: CompareFormProps) => {
  const t = useTranslations('paper');
  return (
    <div className={classes.compare}>
      <Button size="compact-sm" variant="default" onClick={onAsk}>
        {t('showWhatDifferentWhen', { when })}
      </Button>
      <TextInput
        size="xs"
        aria-label={t('compareSheetAfterChange')}
        placeholder={t('orAfterChangeNo')}
        inputMode="numeric"
        value={to}
        onChange={(event) => onTo(event.currentTarget.value)}
      />
      {error && <span role="alert"> {error}</span>}
    </div>
  );
};

const MAX_NAMES = 20;
const namesOf = (names: readonly string[], t: Texts<'paper'>): string =>
  t('namesMoreAndMore', {
    names: names.slice(0, MAX_NAMES).join(', '),
    more: Math.max(0, names.length - MAX_NAMES),
  });
