import { Tabs } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { ExportPanel } from './ExportPanel';
import { RefreshPanel } from './RefreshPanel';
import { RulesPanel } from './RulesPanel';

/** What can be done with files: readers export what they see. */
export function FilesPanel({ isMaker }: { readonly isMaker: boolean }) {
  const t = useTranslations('files');
  if (!isMaker) return <ExportPanel isMaker={false} />;
  return (
    <Tabs defaultValue="out" keepMounted={false} color="ink">
      <Tabs.List>
        <Tabs.Tab value="out">{t('export')}</Tabs.Tab>
        <Tabs.Tab value="newer">{t('updateFromFile')}</Tabs.Tab>
        <Tabs.Tab value="rules">{t('rules')}</Tabs.Tab>
      </Tabs.List>
      <Tabs.Panel value="out" pt={16}>
        <ExportPanel isMaker />
      </Tabs.Panel>
      <Tabs.Panel value="newer" pt={16}>
        <RefreshPanel />
      </Tabs.Panel>
      <Tabs.Panel value="rules" pt={16}>
        <RulesPanel />
      </Tabs.Panel>
    </Tabs>
  );
}
