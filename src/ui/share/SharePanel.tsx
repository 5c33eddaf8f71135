import { Tabs } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { sheetUrl } from '../../protocol/sheet-url';
import type { SheetId } from '../../core/sheet/ids';
import type { SheetSharing } from '../../protocol/sheet-sharing';
import { useLoaded } from '../page/use-loaded';
import { FillingTab } from './FillingTab';
import { LinksTab } from './LinksTab';
import { PeopleTab } from './PeopleTab';
import { ProgramsTab } from './ProgramsTab';

/** Who else has the sheet, in parts: people, links, what fillers may, programs. */
export function SharePanel({ sheet }: { readonly sheet: SheetId }) {
  const t = useTranslations('share');
  const path = sheetUrl(sheet, 'sharing');
  const { value: sharing, error, reload } = useLoaded<SheetSharing>(path);
  if (error) return <p role="alert">{error}</p>;
  if (!sharing) return <p role="status">{t('loading')}</p>;
  return (
    <Tabs defaultValue="people" keepMounted={false} color="ink">
      <Tabs.List>
        <Tabs.Tab value="people">{t('people')}</Tabs.Tab>
        <Tabs.Tab value="links">{t('links')}</Tabs.Tab>
        <Tabs.Tab value="filling">{t('filling')}</Tabs.Tab>
        <Tabs.Tab value="programs">{t('programs')}</Tabs.Tab>
      </Tabs.List>
      <Tabs.Panel value="people">
        <PeopleTab path={path} members={sharing.members} onChange={reload} />
      </Tabs.Panel>
      <Tabs.Panel value="links">
        <LinksTab path={path} links={sharing.links} onChange={reload} />
      </Tabs.Panel>
      <Tabs.Panel value="filling">
        <FillingTab sheet={sheet} />
      </Tabs.Panel>
      <Tabs.Panel value="programs">
        <ProgramsTab sheet={sheet} />
      </Tabs.Panel>
    </Tabs>
  );
}
