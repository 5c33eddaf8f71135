import { Button, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Look } from '../../../core/looks/look';
import { lookPart, OWN_LOOK, renamedLook, type NamedLook } from '../../../core/sheet/sheet-looks';
import { useLooks } from '../../legend/use-looks';
import { useSession } from '../../sheet/use-session';
import classes from '../Bench.module.css';

interface Props {
  readonly look: Look;
  /** The saved look that it starts from. */
  readonly base: NamedLook | undefined;
  /** True where it is that look without a change. */
  readonly isPlain: boolean;
  readonly onSaved: (id: string) => void;
}

/**
 * Saves a look for the whole sheet: under a new name, or instead of the one that it starts from, everywhere that one is
 * used.
 */
export function SaveLook({ look, base, isPlain, onSaved }: Props) {
  const t = useTranslations('bench');
  const session = useSession();
  const { saved } = useLooks();
  const [name, setName] = useState('');
  const keep = (kept: NamedLook) => {
    session.rules.change([{ kind: 'put-parts', parts: [lookPart(kept, saved)] }]);
    setName('');
    onSaved(kept.id);
  };
  const rename = (renamed: NamedLook) => {
    session.rules.change([{ kind: 'put-parts', parts: [renamedLook(renamed, name.trim())] }]);
    setName('');
  };
  const isRenaming = isPlain && base !== undefined;
  return (
    <div className={classes.lookLine}>
      <TextInput
        size="xs"
        flex={1}
        aria-label={isRenaming ? t('anotherNameForName', { name: base.name }) : t('nameNewLook')}
        placeholder={isRenaming ? t('anotherNameForName', { name: base.name }) : t('saveItAs')}
        maxLength={80}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <Button
        size="compact-xs"
        variant="default"
        disabled={name.trim() === ''}
        onClick={() => (isRenaming ? rename(base) : keep({ id: `${OWN_LOOK}${nanoid(8)}`, name: name.trim(), look }))}
      >
        {isRenaming ? t('rename') : t('save')}
      </Button>
      {!isPlain && base && (
        <Button size="compact-xs" variant="default" onClick={() => keep({ id: base.id, name: base.name, look })}>
          {t('changeNameEverywhere', { name: base.name })}
        </Button>
      )}
    </div>
  );
}
