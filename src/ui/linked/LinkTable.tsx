import { Alert, Button, Modal, PasswordInput, TextInput } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { sendJson } from '../../engine/link/send-json';
import { sheetPageUrl } from '../../protocol/sheet-url';

/** Makes a sheet of a table of a database, whose records stay there. */
export function LinkTable() {
  const t = useTranslations('linked');
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button variant="default" onClick={() => setOpen(true)}>
        {t('linkATable')}
      </Button>
      <Modal opened={isOpen} onClose={() => setOpen(false)} title={t('linkATable')}>
        <LinkForm />
      </Modal>
    </>
  );
}

function LinkForm() {
  const t = useTranslations('linked');
  const router = useRouter();
  const [given, setGiven] = useState({ name: '', address: '', table: '', key: '' });
  const [error, setError] = useState<string | null>(null);
  const [isAsking, setAsking] = useState(false);
  const lines = [
    { name: 'table', label: t('table'), placeholder: t('tableExample'), maxLength: 200 },
    { name: 'key', label: t('orderedBy'), placeholder: t('primaryKey'), maxLength: 500 },
    { name: 'name', label: t('nameOfTheSheet'), placeholder: given.table, maxLength: 120 },
  ] as const;
  const set = (part: Partial<typeof given>) => {
    setGiven({ ...given, ...part });
    setError(null);
  };
  const link = async (event: FormEvent) => {
    event.preventDefault();
    const { address, table } = given;
    if (address.trim() === '' || table.trim() === '') return setError(t('giveAddressAndTable'));
    const key = given.key.split(',').flatMap((name) => name.trim() || []);
    setAsking(true);
    const sent = await sendJson<{ id: string }>('/api/linked', {
      body: { name: given.name.trim() || table.trim(), address: address.trim(), table: table.trim(), key },
    });
    setAsking(false);
    if ('answer' in sent) router.push(sheetPageUrl(sent.answer.id));
    else setError(sent.refused);
  };
  return (
    <form onSubmit={(event) => void link(event)} noValidate>
      <p style={{ marginTop: 0 }}>{t('recordsStay')}</p>
      <PasswordInput
        label={t('address')}
        placeholder={t('addressExample')}
        description={t('addressIsSealed')}
        autoComplete="off"
        value={given.address}
        onChange={(event) => set({ address: event.currentTarget.value })}
      />
      {lines.map(({ name, ...line }) => (
        <TextInput
          key={name}
          {...line}
          mt="sm"
          value={given[name]}
          onChange={(event) => set({ [name]: event.currentTarget.value })}
        />
      ))}
      {error !== null && (
        <Alert color="red" variant="light" mt="sm" role="alert">
          {error}
        </Alert>
      )}
      <Button type="submit" mt="md" loading={isAsking}>
        {t('link')}
      </Button>
    </form>
  );
}
