import { Tabs } from '@mantine/core';
import { IconUsers } from '@tabler/icons-react';
import { sheetUrl } from '../../protocol/sheet-url';
import type { SheetId } from '../../core/sheet/ids';
import type { SheetSharing } from '../../protocol/sheet-sharing';
import { HeaderPanel } from '../page/HeaderPanel';
import { useLoaded } from '../page/use-loaded';
import { FillingTab } from './FillingTab';
import { LinksTab } from './LinksTab';
import { PeopleTab } from './PeopleTab';
import { ProgramsTab } from './ProgramsTab';

/** Who else has the sheet: people, links, and what those may do who fill it in. */
export function Share({ sheet }: { readonly sheet: SheetId }) {
  return (
    <HeaderPanel panel="share" label="Share" title="Share this sheet" icon={<IconUsers size={15} stroke={1.5} />}>
      {() => <Panel sheet={sheet} />}
    </HeaderPanel>
  );
}

function Panel({ sheet }: { readonly sheet: SheetId }) {
  const path = sheetUrl(sheet, 'sharing');
  const { value: sharing, error, reload } = useLoaded<SheetSharing>(path);
  if (error) return <p role="alert">{error}</p>;
  if (!sharing) return <p role="status">Loading…</p>;
  return (
    <Tabs defaultValue="people" keepMounted={false} color="ink">
      <Tabs.List>
        <Tabs.Tab value="people">People</Tabs.Tab>
        <Tabs.Tab value="links">Links</Tabs.Tab>
        <Tabs.Tab value="filling">Filling in</Tabs.Tab>
        <Tabs.Tab value="programs">Programs</Tabs.Tab>
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
