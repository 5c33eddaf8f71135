import { Button } from '@mantine/core';
import { useEffect } from 'react';
import { useDropzone } from 'react-dropzone';
import { useTranslations } from 'use-intl';
import classes from './FileDrop.module.css';

/** Takes a file by drop, by the system's picker, or rows that were copied elsewhere by paste. */
export function FileDrop({ take }: { readonly take: (file: File) => void }) {
  const t = useTranslations('importing');
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    noClick: true,
    noKeyboard: true,
    multiple: false,
    onDropAccepted: ([file]) => file && take(file),
  });

  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      if (event.target instanceof HTMLElement && event.target.closest('input, textarea, [contenteditable]')) return;
      const file = event.clipboardData?.files[0];
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (file) take(file);
      else if (text.trim()) take(new File([text], t('pastedRows')));
    };
    document.addEventListener('paste', paste);
    return () => document.removeEventListener('paste', paste);
  }, [take, t]);

  return (
    <section
      {...getRootProps({ className: classes.drop, 'aria-label': t('importAFile'), role: 'region', tabIndex: -1 })}
      data-over={isDragActive || undefined}
    >
      <input {...getInputProps({ 'aria-label': t('fileToImport') })} />
      <p>{t.rich('importFileDropHere', { b: (chunks) => <b>{chunks}</b> })}</p>
      <Button variant="default" onClick={open}>
        {t('chooseAFile')}
      </Button>
    </section>
  );
}
