import { Button } from '@mantine/core';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import classes from './Desk.module.css';

const ExampleGallery = lazy(() => import('../examples/ExampleGallery'));

interface Props {
  /** True where there is no sheet yet. */
  readonly isOpen: boolean;
  /** The first way to begin, beside which its button stands. */
  readonly beside: ReactNode;
  /** What stands after its button. */
  readonly after: ReactNode;
  /** The other ways to begin, between the button and the examples. */
  readonly children: ReactNode;
}

/** The examples to begin a sheet with: shown at once where there is no sheet yet, else on demand. */
export function StartFromExample({ isOpen: isOpenAtFirst, beside, after, children }: Props) {
  const t = useTranslations('desk');
  const [isOpen, setOpen] = useState(isOpenAtFirst);
  return (
    <>
      <div className={classes.begin}>
        {beside}
        <Button variant="default" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {t('startFromExample')}
        </Button>
        {after}
      </div>
      {children}
      {isOpen && (
        <Suspense fallback={<p role="status">{t('loading')}</p>}>
          <ExampleGallery />
        </Suspense>
      )}
    </>
  );
}
