import { Button, NumberInput, SegmentedControl } from '@mantine/core';
import {
  IconAlignCenter,
  IconAlignLeft,
  IconAlignRight,
  IconBorderAll,
  IconBorderBottom,
  IconBorderNone,
  IconBorderOuter,
  IconBorderTop,
  IconLayoutAlignBottom,
  IconLayoutAlignMiddle,
  IconLayoutAlignTop,
  IconTextWrap,
} from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import type { StylePatch } from '../../core/edit/styles';
import type { BorderSide } from '../../core/looks/look';
import type { Style } from '../../core/looks/style';
import { useSession, useSessionState } from '../sheet/use-session';
import { Act } from './Act';
import classes from './ActionBar.module.css';
import { Swatches } from './Swatches';

const ALIGNS = [
  { align: 'start', label: 'alignLeft', icon: IconAlignLeft },
  { align: 'center', label: 'centre', icon: IconAlignCenter },
  { align: 'end', label: 'alignRight', icon: IconAlignRight },
] as const;

const STANDS = [
  { stand: 'top', label: 'alignTop', icon: IconLayoutAlignTop },
  { stand: 'middle', label: 'alignMiddle', icon: IconLayoutAlignMiddle },
  { stand: 'bottom', label: 'alignBottom', icon: IconLayoutAlignBottom },
] as const;

/** Tints that carry ink at 4.5 to 1 or better, and inks that read on paper. */
const FILLS = ['#f3ead7', '#e5e2da', '#fde5ac', '#f7d3c8', '#e9d8f0', '#d3e4f6', '#cfe8dc', '#2c3350', '#5a5f69'];
const INKS = ['#22252b', '#5a5f69', '#77200d', '#7a4a00', '#0f4f3c', '#143f6b', '#53235f', '#ffffff'];

const LINE: BorderSide = { style: 'solid', width: 1, color: '#5a5f69' };
const THICK: BorderSide = { style: 'solid', width: 2, color: '#22252b' };

/** How the selected cells look when no rule says otherwise. It stands above the grid and covers none of it. */
export function StylePanel() {
  const t = useTranslations('actions');
  const session = useSession();
  const isOpen = useSessionState((state) => state.panel === 'style');
  const style = useSessionState((state) => state.cell?.style);
  if (!isOpen) return null;
  const put = (patch: StylePatch) => session.actions.style(patch);
  return (
    <div
      className={classes.shelf}
      role="group"
      aria-label={t('style')}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.preventDefault();
        session.openPanel(null);
      }}
    >
      <Swatches label={t('fill')} colors={FILLS} chosen={style?.fill} onPick={(fill) => put({ fill })} />
      <Swatches label={t('text')} colors={INKS} chosen={style?.text} onPick={(text) => put({ text })} />
      <AlignActs style={style} put={put} />
      <LetterActs style={style} put={put} />
      <LineActs style={style} put={put} />
      <CellActs />
    </div>
  );
}

interface ActsProps {
  /** The style of the active cell. */
  readonly style: Style | undefined;
  readonly put: (patch: StylePatch) => void;
}

/** How the text stands in its cell. */
function AlignActs({ style, put }: ActsProps) {
  const t = useTranslations('actions');
  const session = useSession();
  return (
    <div className={classes.row}>
      {ALIGNS.map(({ align, label, icon }) => (
        <Act
          key={align}
          label={t(label)}
          icon={icon}
          isOn={style?.align === align}
          onAct={() => put({ align: style?.align === align ? null : align })}
        />
      ))}
      {STANDS.map(({ stand, label, icon }) => (
        <Act
          key={stand}
          label={t(label)}
          icon={icon}
          isOn={style?.stand === stand}
          onAct={() => put({ stand: style?.stand === stand ? null : stand })}
        />
      ))}
      <Act
        label={t('wrapText')}
        icon={IconTextWrap}
        isOn={style?.wrap === true}
        onAct={() => void session.actions.wrap(style?.wrap !== true)}
      />
    </div>
  );
}

/** The height and the family of the letters. */
function LetterActs({ style, put }: ActsProps) {
  const t = useTranslations('actions');
  return (
    <div className={classes.row}>
      <NumberInput
        aria-label={t('fontSizeInPixels')}
        size="xs"
        w={76}
        min={8}
        max={48}
        suffix={` ${t('px')}`}
        value={style?.sizePx ?? 13}
        onChange={(sizePx) => typeof sizePx === 'number' && sizePx >= 8 && sizePx <= 48 && put({ sizePx })}
      />
      <SegmentedControl
        size="xs"
        aria-label={t('font')}
        value={style?.family ?? 'plain'}
        onChange={(family) => put({ family })}
        data={[
          { value: 'plain', label: t('plain') },
          { value: 'serif', label: t('serif') },
          { value: 'fixed', label: t('fixed') },
        ]}
      />
    </div>
  );
}

/** Lines at the edges of cells. */
function LineActs({ put }: ActsProps) {
  const t = useTranslations('actions');
  const session = useSession();
  return (
    <div className={classes.row}>
      <Act
        label={t('allBorders')}
        icon={IconBorderAll}
        onAct={() => put({ border: { top: LINE, right: LINE, bottom: LINE, left: LINE } })}
      />
      <Act
        label={t('thickOutline')}
        icon={IconBorderOuter}
        onAct={() => void session.actions.editEach((area) => ({ do: 'outline-cells', area, line: THICK }))}
      />
      <Act label={t('topBorder')} icon={IconBorderTop} onAct={() => put({ border: { top: LINE } })} />
      <Act label={t('bottomBorder')} icon={IconBorderBottom} onAct={() => put({ border: { bottom: LINE } })} />
      <Act label={t('noBorders')} icon={IconBorderNone} onAct={() => put({ border: null })} />
    </div>
  );
}

/** What is done with whole cells and their style. */
function CellActs() {
  const t = useTranslations('actions');
  const session = useSession();
  return (
    <div className={classes.row}>
      <Button variant="default" size="compact-sm" onClick={() => void session.actions.merge()}>
        {t('merge')}
      </Button>
      <Button
        variant="default"
        size="compact-sm"
        onClick={() => void session.actions.edit({ do: 'split-cells', area: session.actions.area })}
      >
        {t('split')}
      </Button>
      <Button
        variant="default"
        size="compact-sm"
        onClick={() => void session.actions.editEach((area) => ({ do: 'clear-style', area }))}
      >
        {t('clearFormatting')}
      </Button>
      <Button variant="default" size="compact-sm" onClick={() => session.actions.liftStyle()}>
        {t('copyStyle')}
      </Button>
      <Button variant="default" size="compact-sm" onClick={() => session.actions.layStyle()}>
        {t('pasteStyle')}
      </Button>
    </div>
  );
}
