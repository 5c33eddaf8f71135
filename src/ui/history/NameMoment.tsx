import { Button, Modal, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { sheetUrl } from '../../protocol/sheet-url';
import type { Change } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import { snapshotKey } from '../../core/sheet/sheet-part';
import { sendJson } from '../../engine/link/send-json';

interface Props {
  readonly sheet: SheetId;
  /** The change after which the moment is; null while none is to be named. */
  readonly sequence: number | null;
  /** `named` where the moment has got its name. */
  readonly onEnd: (how?: 'named') => void;
}

/** Asks for the name of a moment, by which rules can ask what has changed since. */
export function NameMoment({ sheet, sequence, onEnd }: Props) {
  const t = useTranslations('history');
  return (
    <Modal opened={sequence !== null} onClose={() => onEnd()} title={t('nameThisVersion')} size="sm">
      {sequence !== null && <NameForm sheet={sheet} sequence={sequence} onEnd={onEnd} />}
    </Modal>
  );
}

function NameForm({ sheet, sequence, onEnd }: Props & { readonly sequence: number }) {
  const t = useTranslations('history');
  const [name, setName] = useState('');
  const [error, setError] = useState<string | null>(null);
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    const called = name.trim();
    if (called === '') return setError(t('enterAName'));
    const part = { id: snapshotKey(called), kind: 'snapshot', name: called, sequence } as const;
    const change: Change = { id: nanoid(), operations: [{ kind: 'put-parts', parts: [part] }] };
    const sent = await sendJson(sheetUrl(sheet, 'changes'), { body: change });
    if ('refused' in sent) return setError(sent.refused);
    onEnd('named');
  };
  return (
    <form onSubmit={(event) => void keep(event)}>
      <TextInput
        label={t('name')}
        description={t('rulesCanThenTest')}
        maxLength={80}
        value={name}
        error={error}
        onChange={(event) => setName(event.currentTarget.value)}
        data-autofocus
      />
      <Button type="submit" mt="md">
        {t('save')}
      </Button>
    </form>
  );
}
