import { Button, FileButton } from '@mantine/core';
import { useTranslations } from 'use-intl';

/** Takes one file by the system's picker. `label` is what screen readers call it. */
export function ChooseFile({
  label,
  accept,
  take,
}: {
  readonly label: string;
  readonly accept?: string;
  readonly take: (file: File | null) => void;
}) {
  const t = useTranslations('files');
  return (
    <div>
      <FileButton onChange={take} {...(accept === undefined ? {} : { accept })} inputProps={{ 'aria-label': label }}>
        {(props) => (
          <Button variant="default" {...props}>
            {t('chooseAFile')}
          </Button>
        )}
      </FileButton>
    </div>
  );
}
