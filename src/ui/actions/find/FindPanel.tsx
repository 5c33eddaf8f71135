import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { focusGrid } from '../../grid/focus-grid';
import { useFind } from './use-find';
import { useSession, useSessionState } from '../../sheet/use-session';
import classes from './FindPanel.module.css';

/** Looks for a text in the sheet or the selection, goes from one place to the next, and puts another in its place. */
export function FindPanel() {
  const session = useSession();
  const panel = useSessionState((state) => state.panel);
  return panel === 'find' ? (
    <Find
      key="find"
      onClose={() => {
        session.openPanel(null);
        focusGrid();
      }}
    />
  ) : null;
}

function Find({ onClose }: { readonly onClose: () => void }) {
  const t = useTranslations('actions');
  const { isMaker } = useSession();
  const { wanted, rules, isEmpty, message, area, put, next, replaceAll } = useFind();
  return (
    <form
      className={classes.find}
      role="search"
      aria-label={t('findReplace')}
      onSubmit={(event) => {
        event.preventDefault();
        void next();
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.preventDefault();
        onClose();
      }}
    >
      <FindText label={t('find')} value={wanted.text} onChange={(text) => put({ text })} autoFocus />
      {isMaker && <FindText label={t('replaceWith')} value={wanted.by} onChange={(by) => put({ by })} />}
      <FindOption label={t('matchCaseAndAccents')} checked={wanted.exact} onChange={(exact) => put({ exact })} />
      <FindOption label={t('pattern')} checked={wanted.pattern} onChange={(pattern) => put({ pattern })} />
      <NativeSelect
        size="xs"
        hidden={rules.length === 0}
        aria-label={t('look')}
        value={wanted.painted}
        data={[
          { value: '', label: t('anyLook') },
          ...rules.map(({ id, name }) => ({ value: id, label: t('matchedByName', { name }) })),
        ]}
        onChange={(event) => put({ painted: event.currentTarget.value })}
      />
      <Button type="submit" size="compact-sm" disabled={isEmpty}>
        {t('next')}
      </Button>
      {isMaker && (
        <Button
          variant="default"
          size="compact-sm"
          disabled={wanted.text === '' || wanted.painted !== ''}
          onClick={() => void replaceAll()}
        >
          {t('replaceAll')}
        </Button>
      )}
      <Button variant="subtle" color="ink" size="compact-sm" onClick={onClose}>
        {t('close')}
      </Button>
      <span role="status">{area && !message ? t('inTheSelection') : message}</span>
    </form>
  );
}

interface FindTextProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly autoFocus?: boolean;
}

const FindText = ({ label, value, onChange, autoFocus = false }: FindTextProps) => (
  <TextInput
    size="xs"
    aria-label={label}
    placeholder={label}
    value={value}
    onChange={(event) => onChange(event.currentTarget.value)}
    autoFocus={autoFocus}
  />
);

interface FindOptionProps {
  readonly label: string;
  readonly checked: boolean;
  readonly onChange: (checked: boolean) => void;
}

const FindOption = ({ label, checked, onChange }: FindOptionProps) => (
  <Checkbox
    size="xs"
    color="ink"
    label={label}
    checked={checked}
    onChange={(event) => onChange(event.currentTarget.checked)}
  />
);
