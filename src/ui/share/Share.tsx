import { IconUsers } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import type { SheetId } from '../../core/sheet/ids';
import { HeaderPanel } from '../page/HeaderPanel';
import { LaterSharePanel } from '../sheet/later';

/** Who else has the sheet: people, links, and what those may do who fill it in. */
export function Share({ sheet }: { readonly sheet: SheetId }) {
  const t = useTranslations('share');
  return (
    <HeaderPanel
      panel="share"
      label={t('share')}
      title={t('shareThisSheet')}
      icon={<IconUsers size={15} stroke={1.5} />}
    >
      {() => <LaterSharePanel sheet={sheet} />}
    </HeaderPanel>
  );
}
