import { Button, CopyButton } from '@mantine/core';
import { useTranslations } from 'use-intl';

/** Copies a text, and says so. */
export function Copy({
  text,
  label,
  children,
}: {
  readonly text: string;
  readonly label: string;
  readonly children: string;
}) {
  const t = useTranslations('share');
  return (
    <CopyButton value={text}>
      {({ copied, copy }) => (
        <Button size="compact-sm" variant="default" aria-label={copied ? t('copied') : label} onClick={copy}>
          {copied ? t('copied') : children}
        </Button>
      )}
    </CopyButton>
  );
}
