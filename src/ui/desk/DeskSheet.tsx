import { ActionIcon, Button, Menu, Modal, TextInput } from '@mantine/core';
import { IconDotsVertical } from '@tabler/icons-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useFormatter, useTranslations } from 'use-intl';
import type { Theme } from '../../core/looks/first-family';
import { LINK_ROLE_WORDS } from '../../core/sharing/role-words';
import { isOwner } from '../../core/sharing/role';
import { sheetUrl, sheetPageUrl } from '../../protocol/sheet-url';
import type { DeskSheetSummary } from '../../protocol/sheet-summary';
import { sendJson } from '../../engine/link/send-json';
import classes from './Desk.module.css';
import { DeskLegend } from './DeskLegend';

interface Props {
  readonly sheet: DeskSheetSummary;
  readonly scheme: Theme;
}

/** One sheet on the desk: opened by its name, renamed or removed by the menu beside it. */
export function DeskSheet({ sheet, scheme }: Props) {
  const t = useTranslations('desk');
  const router = useRouter();
  const [asked, setAsked] = useState<'name' | 'removal' | null>(null);
  const [name, setName] = useState(sheet.name);
  const [error, setError] = useState<string | null>(null);
  const path = sheetUrl(sheet.id);

  const send = async (request: Parameters<typeof sendJson>[1]) => {
    const sent = await sendJson(path, request);
    if ('refused' in sent) return setError(sent.refused);
    setAsked(null);
    router.refresh();
  };
  const rename = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setError(t('giveSheetName'));
    void send({ method: 'PATCH', body: { name: name.trim() } });
  };
  const ask = (what: typeof asked) => {
    setName(sheet.name);
    setError(null);
    setAsked(what);
  };

  return (
    <li className={classes.item}>
      <SheetLink sheet={sheet} scheme={scheme} />
      {isOwner(sheet.role) && (
        <SheetMenu name={sheet.name} onRename={() => ask('name')} onRemove={() => ask('removal')} />
      )}
      <Modal opened={asked === 'name'} onClose={() => setAsked(null)} title={t('renameName', { name: sheet.name })}>
        <form onSubmit={rename}>
          <TextInput
            label={t('name')}
            maxLength={120}
            value={name}
            error={error}
            onChange={(event) => setName(event.currentTarget.value)}
            data-autofocus
          />
          <Button type="submit" mt={16}>
            {t('rename')}
          </Button>
        </form>
      </Modal>
      <Modal opened={asked === 'removal'} onClose={() => setAsked(null)} title={t('deleteName', { name: sheet.name })}>
        <p style={{ margin: '0 0 16px' }}>
          {t('deletesRecordsRecordsRules', { records: sheet.records, rules: sheet.rules ?? 0 })}
        </p>
        {error && <p role="alert">{error}</p>}
        <Button onClick={() => void send({ method: 'DELETE' })}>{t('delete')}</Button>
        <Button variant="default" ml={8} onClick={() => setAsked(null)} data-autofocus>
          {t('cancel')}
        </Button>
      </Modal>
    </li>
  );
}

const SheetLink = ({ sheet, scheme }: Props) => {
  const t = useTranslations('desk');
  const { dateTime } = useFormatter();
  return (
    <Link href={sheetPageUrl(sheet.id)} className={classes.link} prefetch={false}>
      <span className={classes.name}>{sheet.name}</span>
      <span className={classes.fact}>
        {sheet.linked === null ? t('countRecords', { count: sheet.records }) : t('linkedTo', { table: sheet.linked })}
      </span>
      {sheet.rules !== null && <span className={classes.fact}>{t('countRules', { count: sheet.rules })}</span>}
      {!isOwner(sheet.role) && (
        <span className={classes.fact}>
          {LINK_ROLE_WORDS[sheet.role].listed} {sheet.owner}
        </span>
      )}
      <time className={classes.fact} dateTime={sheet.changedAt} suppressHydrationWarning>
        {dateTime(new Date(sheet.changedAt), { day: 'numeric', month: 'short', year: 'numeric' })}
      </time>
      <DeskLegend sheet={sheet} scheme={scheme} />
    </Link>
  );
};

interface SheetMenuProps {
  readonly name: string;
  readonly onRename: () => void;
  readonly onRemove: () => void;
}

const SheetMenu = ({ name, onRename, onRemove }: SheetMenuProps) => {
  const t = useTranslations('desk');
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <ActionIcon variant="subtle" color="ink" aria-label={t('actionsForName', { name })}>
          <IconDotsVertical size={16} stroke={1.5} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={onRename}>{t('rename')}</Menu.Item>
        <Menu.Item onClick={onRemove}>{t('delete')}</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
};
