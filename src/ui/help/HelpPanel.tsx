import { Button, Drawer, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { TOUR } from './tour-name';
import { EXAMPLES } from '../../core/rules/suggest/examples';
import { foldText } from '../../core/values/fold-text';
import { hasKey, keysOf } from '../../core/values/typed-keys';
import { KeyList } from '../actions/KeyList';
import { focusGrid } from '../grid/focus-grid';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './HelpPanel.module.css';
import { LivingExample } from './LivingExample';
import { TOPICS, type Topic, type TopicName } from './topics';

/** Help beside the sheet: the task that one is at, and all others, searched by their words. */
export default function HelpPanel() {
  const t = useTranslations('help');
  const session = useSession();
  const about = useSessionState((state) => state.help) ?? '';
  const close = () => {
    session.openHelp(null);
    focusGrid();
  };
  return (
    <Drawer
      opened
      onClose={close}
      position="right"
      size={400}
      title={t('help')}
      withOverlay={false}
      lockScroll={false}
      trapFocus={false}
      closeOnClickOutside={false}
      transitionProps={{ duration: 0 }}
    >
      <Topics key={about} about={about} />
    </Drawer>
  );
}

/** The topics that have the words, the one that is asked for opened. */
function Topics({ about }: { readonly about: string }) {
  const t = useTranslations('help');
  const session = useSession();
  const [query, setQuery] = useState('');
  const wanted = foldText(query).split(' ');
  const has = (text: string): boolean => wanted.every((word) => foldText(text).includes(word));
  const names = keysOf(TOPICS).filter((name) => {
    const { title, steps, also, isForAll = false }: Topic = TOPICS[name];
    return (session.isMaker || isForAll) && has(`${t(title)} ${t(also)} ${t(steps)}`);
  });
  const first = hasKey(TOPICS, about) && names.includes(about) ? about : undefined;
  const ordered = first ? [first, ...names.filter((name) => name !== first)] : names;
  const isSearch = query.trim() !== '';
  return (
    <>
      <TextInput
        data-autofocus
        aria-label={t('searchHelp')}
        placeholder={t('searchHelp')}
        value={query}
        onChange={(event) => setQuery(event.currentTarget.value)}
      />
      {session.isMaker && (
        <Button size="compact-sm" variant="default" mt={10} onClick={() => session.openHelp(TOUR)}>
          {t('takeTourSheet')}
        </Button>
      )}
      <div className={classes.topics}>
        {ordered.map((name, at) => (
          <TopicPart key={name} name={name} isOpen={at === 0 && (isSearch || name === first)} />
        ))}
        {has(t('keyboardShortcuts')) && (
          <details className={classes.topic} open={about === 'keys'}>
            <summary>{t('keyboardShortcuts')}</summary>
            <KeyList />
          </details>
        )}
        {ordered.length === 0 && <p role="status">{t('noTaskHasThese')}</p>}
      </div>
    </>
  );
}

function TopicPart({ name, isOpen }: { readonly name: TopicName; readonly isOpen: boolean }) {
  const t = useTranslations('help');
  const { title, steps, example }: Topic = TOPICS[name];
  return (
    <details className={classes.topic} open={isOpen}>
      <summary>{t(title)}</summary>
      <ol className={classes.steps}>
        {t(steps)
          .split('\n')
          .map((step) => (
            <li key={step}>{step}</li>
          ))}
      </ol>
      {example && <LivingExample example={EXAMPLES[example]} label={t(title)} />}
    </details>
  );
}
