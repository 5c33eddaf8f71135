import { Tabs } from '@mantine/core';
import { IconFileExport } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { HeaderPanel } from '../page/HeaderPanel';
import { ExportPanel } from './ExportPanel';
import { RefreshPanel } from './RefreshPanel';
import { RulesPanel } from './RulesPanel';

/** Takes the sheet out as a file, and newer values or rules in. Who only reads takes out what they see. */
export function Files({ isMaker }: { readonly isMaker: boolean }) {
  const t = useTranslations('files');
  return (
    <HeaderPanel panel="files" label={t('files')} title={t('files')} icon={<IconFileExport size={15} stroke={1.5} />}>
      {() =>
        !isMaker ? (
          <ExportPanel isMaker={false} />
        ) : (
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
        )
      }
    </HeaderPanel>
  );
}
