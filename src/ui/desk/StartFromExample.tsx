import { Button } from '@mantine/core';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import classes from './Desk.module.css';

const ExampleGallery = lazy(() => import('../examples/ExampleGallery'));

interface Props {
  /** True where there is no sheet yet. */
  readonly isOpen: boolean;
  /** The other ways to begin, beside which it stands. */
  readonly children: ReactNode;
}

/** The examples to begin a sheet with: shown at once where there is no sheet yet, else on demand. */
export function StartFromExample({ isOpen: isOpenAtFirst, children }: Props) {
  const t = useTranslations('desk');
  const [isOpen, setOpen] = useState(isOpenAtFirst);
  return (
    <>
      <div className={classes.begin}>
        {children}
        <Button variant="default" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {t('startFromExample')}
        </Button>
      </div>
      {isOpen && (
        <Suspense fallback={<p role="status">{t('loading')}</p>}>
          <ExampleGallery />
        </Suspense>
      )}
    </>
  );
}
