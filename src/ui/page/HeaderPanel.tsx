import { Button, Modal } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { Suspense, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './HeaderPanel.module.css';

interface Props {
  readonly panel: 'share' | 'files';
  readonly label: string;
  readonly title: string;
  readonly icon: ReactNode;
  /** Its content, rendered when it is opened. */
  readonly children: () => ReactNode;
}

/**
 * A button in the head of a sheet, on a phone only its icon, that opens a panel over the sheet, on a phone in its
 * place.
 */
export function HeaderPanel({ panel, label, title, icon, children }: Props) {
  const t = useTranslations('page');
  const session = useSession();
  const isOpen = useSessionState((state) => state.panel === panel);
  const hasHelp = useSessionState((state) => state.help !== null);
  const isNarrow = useMediaQuery('(max-width: 700px)');
  return (
    <>
      <Button
        variant="default"
        size="compact-sm"
        aria-label={label}
        data-tour={panel}
        leftSection={icon}
        onClick={() => session.openPanel(panel)}
        className={classes.open}
      >
        {label}
      </Button>
      <Modal
        opened={isOpen}
        trapFocus={!hasHelp}
        data-help={panel}
        onClose={() => session.openPanel(null)}
        title={title}
        size={680}
        fullScreen={isNarrow ?? false}
      >
        <Suspense fallback={<p role="status">{t('loading')}</p>}>{isOpen && children()}</Suspense>
      </Modal>
    </>
  );
}
