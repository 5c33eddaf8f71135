import { Button, Modal, Stack } from '@mantine/core';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { messageOf } from '../../../core/values/error-message';
import { isMaker } from '../../../core/sharing/role';
import type { RuleId, SheetId } from '../../../core/sheet/ids';
import type { SheetSummary } from '../../../protocol/sheet-summary';
import { sendJson } from '../../../engine/link/send-json';
import { useSession, useSessionState } from '../../sheet/use-session';

/** Asks for the sheet that rules are carried to. */
export function CarryElsewhere() {
  const t = useTranslations('legend');
  const session = useSession();
  const asked = useSessionState((state) => state.asked);
  const isOpen = asked?.what === 'sheet';
  return (
    <Modal
      opened={isOpen}
      onClose={() => session.openDialog(null)}
      title={t('copyCountRulesAnother', { count: asked?.rules.length ?? 0 })}
      size="sm"
    >
      {isOpen && <SheetList rules={asked.rules} />}
    </Modal>
  );
}

function SheetList({ rules }: { readonly rules: readonly RuleId[] }) {
  const t = useTranslations('legend');
  const session = useSession();
  const [sheets, setSheets] = useState<readonly SheetSummary[] | null>(null);
  const [error, setError] = useState<string | null>(null);
  useEffect(() => {
    void sendJson<SheetSummary[]>('/api/sheets', { method: 'GET' }).then((sent) => {
      if ('refused' in sent) setError(sent.refused);
      else setSheets(sent.answer.filter(({ id, role }) => id !== session.sheet && isMaker(role)));
    });
  }, [session]);
  const carry = async (sheet: SheetId) => {
    setError(null);
    try {
      const { name } = await session.ask({ kind: 'carry-rules', rules, sheet });
      session.openDialog(null);
      session.showMessage(
        t('rulesCopiedNameAfter', {
          count: rules.length,
          name,
        }),
      );
    } catch (failed) {
      setError(messageOf(failed));
    }
  };
  return (
    <Stack gap="xs">
      <p style={{ margin: 0, fontSize: 13 }}>{t('fieldsColumnsFormulasMet')}</p>
      {sheets?.length === 0 && <p>{t('thereNoOtherSheet')}</p>}
      {sheets?.map(({ id, name }) => (
        <Button key={id} variant="default" justify="start" onClick={() => void carry(id)}>
          {name}
        </Button>
      ))}
      {error && <p role="alert">{error}</p>}
    </Stack>
  );
}
