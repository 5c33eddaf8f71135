import { counted } from '../../../core/values/counted';
import { Button, Modal, Stack, TextInput } from '@mantine/core';
import { useEffect, useState, type FormEvent } from 'react';
import type { RuleId } from '../../../core/sheet/ids';
import type { RuleSetHead } from '../../../protocol/rule-sets';
import { useSession, useSessionState } from '../../sheet/use-session';
import classes from './RuleSets.module.css';
import { bringIn, keepAsSet, useRuleSets } from './rule-sets-here';

/** Rule sets: one to be used here, or the chosen rules to be kept as one. */
export function RuleSets() {
  const session = useSession();
  const asked = useSessionState((state) => state.asked);
  const isOpen = asked?.what === 'set' || asked?.what === 'use-set';
  return (
    <Modal
      opened={isOpen}
      onClose={() => session.openDialog(null)}
      title={asked?.what === 'set' ? `Save ${counted(asked.rules.length, 'rule')} as a rule set` : 'Use a rule set'}
      size="sm"
    >
      {isOpen && <SetList rules={asked.what === 'set' ? asked.rules : null} />}
    </Modal>
  );
}

/** With rules, where to keep them; without, which set to use. */
function SetList({ rules }: { readonly rules: readonly RuleId[] | null }) {
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
        ? `“${kept.name}” is at version ${kept.version} now. Sheets that use it offer the update.`
        : `“${kept.name}” is kept. Other sheets can use it.`,
    );
  };
  const use = async (set: RuleSetHead) => {
    const wrong = await bringIn(session, set.id);
    if (wrong) setError(wrong);
    else done(`The rules of “${set.name}” were added after those of this sheet.`);
  };
  const make = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setError('Give the rule set a name.');
    void keep(null);
  };

  return (
    <Stack gap="xs">
      <p className={classes.setNote}>Fields and the columns of formulas are met by their labels.</p>
      {rules && (
        <form onSubmit={make} className={classes.setForm}>
          <TextInput
            label="A new rule set"
            placeholder="Its name"
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
            data-autofocus
          />
          <Button type="submit">Keep it</Button>
        </form>
      )}
      {rules && shown.length > 0 && <p className={classes.setNote}>Or save a new version of one of yours:</p>}
      {!rules && sets?.length === 0 && (
        <p>There is no rule set yet. Choose rules in the legend and keep them as one.</p>
      )}
      {shown.map((set) => (
        <Button key={set.id} variant="default" justify="start" onClick={() => void (rules ? keep(set) : use(set))}>
          {set.name}: {counted(set.rules, 'rule')}, version {set.version}
          {used.some((each) => each.set === set.id) && !rules ? ', used here' : ''}
        </Button>
      ))}
      {(error ?? failed) && <p role="alert">{error ?? failed}</p>}
    </Stack>
  );
}
