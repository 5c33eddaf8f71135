import { IconFileExport } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { HeaderPanel } from '../page/HeaderPanel';
import { LaterFilesPanel } from '../sheet/later';

/** Takes the sheet out as a file, and newer values or rules in. Who only reads takes out what they see. */
export function Files({ isMaker }: { readonly isMaker: boolean }) {
  const t = useTranslations('files');
  return (
    <HeaderPanel panel="files" label={t('files')} title={t('files')} icon={<IconFileExport size={15} stroke={1.5} />}>
      {() => <LaterFilesPanel isMaker={isMaker} />}
    </HeaderPanel>
  );
}
