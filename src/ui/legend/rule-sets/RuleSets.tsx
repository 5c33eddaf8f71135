import { Button, Modal, Stack, TextInput } from '@mantine/core';
import { useEffect, useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import type { RuleId } from '../../../core/sheet/ids';
import type { RuleSetHead } from '../../../protocol/rule-sets';
import { useSession, useSessionState } from '../../sheet/use-session';
import classes from './RuleSets.module.css';
import { bringIn, keepAsSet, useRuleSets } from './rule-sets-here';

/** Rule sets: one to be used here, or the chosen rules to be kept as one. */
export function RuleSets() {
  const t = useTranslations('legend');
  const session = useSession();
  const asked = useSessionState((state) => state.asked);
  const isOpen = asked?.what === 'set' || asked?.what === 'use-set';
  return (
    <Modal
      opened={isOpen}
      onClose={() => session.openDialog(null)}
      title={asked?.what === 'set' ? t('saveCountRulesAs', { count: asked.rules.length }) : t('useRuleSet')}
      size="sm"
    >
      {isOpen && <SetList rules={asked.what === 'set' ? asked.rules : null} />}
    </Modal>
  );
}

/** With rules, where to keep them; without, which set to use. */
function SetList({ rules }: { readonly rules: readonly RuleId[] | null }) {
  const t = useTranslations('legend');
  const session = useSession();
  const used = useSessionState((state) => state.frame?.ruleSets) ?? [];
  const { sets, error: failed, read } = useRuleSets(session);
  const [name, setName] = useState('');
  const [error, setError] = useState<string | null>(null);
  useEffect(() => {
    void read();
  }, [read]);
  const shown = sets?.filter(({ isOwn }) => rules === null || isOwn) ?? [];

  const done = (words: string) => {
    session.openDialog(null);
    session.showMessage(words);
  };
  const keep = async (set: RuleSetHead | null) => {
    const kept = await keepAsSet(session, rules ?? [], set ?? name.trim());
    if ('refused' in kept) return setError(kept.refused);
    done(
      set
        ? t('nameVersionVersionNow', { name: kept.name, version: kept.version })
        : t('nameKeptOtherSheets', { name: kept.name }),
    );
  };
  const use = async (set: RuleSetHead) => {
    const wrong = await bringIn(session, set.id);
    if (wrong) setError(wrong);
    else done(t('rulesNameWereAdded', { name: set.name }));
  };
  const make = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setError(t('giveRuleSetName'));
    void keep(null);
  };

  return (
    <Stack gap="xs">
      <p className={classes.setNote}>{t('fieldsColumnsFormulasMet')}</p>
      {rules && (
        <form onSubmit={make} className={classes.setForm}>
          <TextInput
            label={t('aNewRuleSet')}
            placeholder={t('itsName')}
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
            data-autofocus
          />
          <Button type="submit">{t('save')}</Button>
        </form>
      )}
      {rules && shown.length > 0 && <p className={classes.setNote}>{t('saveNewVersionOne')}</p>}
      {!rules && sets?.length === 0 && <p>{t('thereNoRuleSet')}</p>}
      {shown.map((set) => (
        <Button key={set.id} variant="default" justify="start" onClick={() => void (rules ? keep(set) : use(set))}>
          {t('nameRulesRulesVersion', { name: set.name, rules: set.rules, version: set.version })}
          {used.some((each) => each.set === set.id) && !rules ? t('usedHere') : ''}
        </Button>
      ))}
      {(error ?? failed) && <p role="alert">{error ?? failed}</p>}
    </Stack>
  );
}
