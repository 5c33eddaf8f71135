import { PasswordInput, type PasswordInputProps } from '@mantine/core';
import { useTranslations } from 'use-intl';

/** A field for a secret, with a button that shows what was typed. */
export function Password(props: PasswordInputProps) {
  const t = useTranslations('people');
  return <PasswordInput visibilityToggleButtonProps={{ 'aria-label': t('showPassword') }} {...props} />;
}
