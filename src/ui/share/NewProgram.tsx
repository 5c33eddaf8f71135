import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { sendJson } from '../../engine/link/send-json';
import { SCOPES, TOKEN_DAYS, type MadeProgram, type Scope } from '../../protocol/programs/scopes';
import classes from './Share.module.css';

const USUAL: readonly Scope[] = ['read', 'write'];

interface Props {
  readonly path: string;
  readonly onMade: (program: MadeProgram) => void;
}

/** Makes a token for a program: its name, its scopes and how long it is good for. */
export function NewProgram({ path, onMade }: Props) {
  const t = useTranslations('share');
  const [name, setName] = useState('');
  const [scopes, setScopes] = useState<readonly Scope[]>(USUAL);
  const [days, setDays] = useState<number>(365);
  const [error, setError] = useState<string | null>(null);
  const make = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setError(t('enterNameProgram'));
    if (scopes.length === 0) return setError(t('chooseLeastOnePermission'));
    const sent = await sendJson<MadeProgram>(path, { body: { name: name.trim(), scopes, days } });
    if ('refused' in sent) return setError(sent.refused);
    setError(null);
    setName('');
    onMade(sent.answer);
  };
  return (
    <>
      <form className={classes.form} onSubmit={(event) => void make(event)} noValidate>
        <TextInput
          label={t('newProgram')}
          placeholder={t('name')}
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <NativeSelect
          label={t('expiresAfter')}
          value={String(days)}
          onChange={(event) => setDays(Number(event.currentTarget.value))}
          data={TOKEN_DAYS.map((count) => ({
            value: String(count),
            label: count % 365 === 0 ? t('countYears', { count: count / 365 }) : t('countDays', { count }),
          }))}
        />
        <Button type="submit">{t('createToken')}</Button>
        <ScopeBoxes scopes={scopes} onChange={setScopes} />
      </form>
      {error && <p role="alert">{error}</p>}
    </>
  );
}

interface ScopeBoxesProps {
  readonly scopes: readonly Scope[];
  readonly onChange: (scopes: Scope[]) => void;
}

const ScopeBoxes = ({ scopes, onChange }: ScopeBoxesProps) => {
  const t = useTranslations('share');
  return (
    <Checkbox.Group<Scope>
      label={t('permissions')}
      value={[...scopes]}
      onChange={onChange}
      style={{ flexBasis: '100%' }}
    >
      <div className={classes.scopes}>
        {Object.entries(SCOPES).map(([scope, words]) => (
          <Checkbox key={scope} value={scope} label={words} />
        ))}
      </div>
    </Checkbox.Group>
  );
};
