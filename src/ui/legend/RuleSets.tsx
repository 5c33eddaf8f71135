import { Button, Modal, Stack, TextInput } from '@mantine/core';
import { useCallback, useEffect, useState, type FormEvent } from 'react';
import type { RuleId } from '../../core/sheet/ids';
import type { RuleSetHead, RuleSetWhole } from '../../protocol/rule-sets';
import { counted } from '../counted';
import { sendJson } from '../send-json';
import type { Session } from '../sheet/session';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Legend.module.css';

/** How often it is looked whether rule sets have moved on. */
const LOOK_MS = 60_000;

/** The rule sets that can be used in the sheet, as they are now; looked at again now and then. */
function useRuleSets(session: Session): { sets: readonly RuleSetHead[] | null; error: string | null; read: () => Promise<void> } {
  const [sets, setSets] = useState<readonly RuleSetHead[] | null>(null);
  const [error, setError] = useState<string | null>(null);
  const read = useCallback(async () => {
    const sent = await sendJson<RuleSetHead[]>(`/api/sheets/${encodeURIComponent(session.sheet)}/rule-sets`, { method: 'GET' });
    if ('refused' in sent) setError(sent.refused);
    else setSets(sent.answer);
  }, [session]);
  return { sets, error, read };
}

/** Brings a rule set to work here, as it is now. Gives what went wrong. */
async function bringIn(session: Session, set: string): Promise<string | null> {
  const sent = await sendJson<RuleSetWhole>(`/api/sheets/${encodeURIComponent(session.sheet)}/rule-sets?set=${encodeURIComponent(set)}`, {
    method: 'GET',
  });
  if ('refused' in sent) return sent.refused;
  const { id, name, version, body } = sent.answer;
  try {
    await session.ask({ kind: 'use-rule-set', set: { id, name, version, body } });
    return null;
  } catch (failed) {
    return (failed as Error).message;
  }
}

/** Says where a rule set that is used here has moved on, and brings its rules up to date. */
export function RuleSetNotice() {
  const session = useSession();
  const used = useSessionState((state) => state.frame?.ruleSets);
  const { sets, read } = useRuleSets(session);
  const count = used?.length ?? 0;
  useEffect(() => {
    if (count === 0) return;
    void read();
    const timer = setInterval(() => void read(), LOOK_MS);
    return () => clearInterval(timer);
  }, [count, read]);
  const behind = used?.filter(({ set, version }) => (sets?.find(({ id }) => id === set)?.version ?? 0) > version) ?? [];
  return behind.map(({ set, name }) => (
    <div key={set} className={classes.moved} role="status">
      <span>The rule set “{name}” has moved on.</span>
      <Button size="compact-xs" variant="default" onClick={() => void bringIn(session, set).then((wrong) => wrong && session.tell(wrong))}>
        Bring its rules up to date
      </Button>
    </div>
  ));
}

/** Rule sets: one to be used here, or the chosen rules to be kept as one. */
export function RuleSets() {
  const session = useSession();
  const asked = useSessionState((state) => state.asked);
  const isOpen = asked?.what === 'set' || asked?.what === 'use-set';
  return (
    <Modal
      opened={isOpen}
      onClose={() => session.askAbout(null)}
      title={asked?.what === 'set' ? `Keep ${counted(asked.rules.length, 'rule')} as a rule set` : 'Use a rule set'}
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
    session.askAbout(null);
    session.tell(words);
  };
  /** Keeps the rules, and has this sheet use what is kept, so that it hears of later versions too. */
  const keep = async (set: RuleSetHead | null) => {
    const body = await session.ask({ kind: 'ask-rule-set', rules: rules ?? [] });
    const path = set ? `/api/rule-sets/${encodeURIComponent(set.id)}` : '/api/rule-sets';
    const sent = await sendJson<{ id?: string; version: number }>(
      path,
      set ? { method: 'PUT', body: { body } } : { body: { name: name.trim(), body } },
    );
    if ('refused' in sent) return setError(sent.refused);
    const [id, called] = [set?.id ?? sent.answer.id!, set?.name ?? name.trim()];
    const own = Object.fromEntries(body.rules.map((rule) => [rule.id, rule.id]));
    const part = { id: `rule-set ${id}`, kind: 'rule-set', set: id, name: called, version: sent.answer.version, rules: own } as const;
    await session.tellingRefusals(session.ask({ kind: 'change', operations: [{ kind: 'put-parts', parts: [part] }] }));
    done(
      set ? `“${called}” is at version ${sent.answer.version} now. Sheets that use it are told.` : `“${called}” is kept. Other sheets can use it.`,
    );
  };
  const use = async (set: RuleSetHead) => {
    const wrong = await bringIn(session, set.id);
    if (wrong) setError(wrong);
    else done(`The rules of “${set.name}” are at work here now, after those that were there.`);
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
      {rules && shown.length > 0 && <p className={classes.setNote}>Or save one of yours anew:</p>}
      {!rules && sets?.length === 0 && <p>There is no rule set yet. Choose rules in the legend and keep them as one.</p>}
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
