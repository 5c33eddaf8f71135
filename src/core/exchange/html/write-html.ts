import { cssOf } from '../../looks/css-of';
import { ICON_SETS } from '../../looks/icon-sets';
import { lookProperties, type LookProperties, lookValue } from '../../looks/look';
import { kindOf } from '../../rules/kinds/registry';
import { namedFields } from '../../rules/shape/named-fields';
import { ruleSentence } from '../../rules/shape/sentence-words';
import { holdsCell, type CellRange } from '../../sheet/address';
import { shownAt } from '../../sheet/shown-cell';
import type { ExportedFile } from '../exported-file';
import { wholeArea, type ExportSource } from '../export-source';
import { mergesWithin } from '../workbook/written-sheet';
import { xmlText } from '../xml/write-xml';

const PAGE_STYLE =
  'body{font:14px system-ui,sans-serif;color:#20242e;margin:24px}table{border-collapse:collapse;font-variant-numeric:tabular-nums}' +
  'td,th{border:1px solid #e2ddd0;padding:3px 8px;text-align:left}td.n{text-align:right}tr.t td{font-weight:600}th{background:#f3efe5}' +
  'ul{list-style:none;padding:0}li{margin:4px 0}.w{display:inline-block;min-width:64px;padding:2px 8px;margin-right:10px}';

/** A sheet as a page by itself (HTML standard): the legend, and a table whose cells look as they do now. */
export function writeHtml(source: ExportSource): ExportedFile {
  const { name, sheet, area = wholeArea(sheet), running } = source;
  const merges = mergesWithin(sheet, area);
  function* parts(): Generator<string> {
    yield `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><title>${xmlText(name)}</title><style>${PAGE_STYLE}</style></head>\n<body><h1>${xmlText(name)}</h1>\n`;
    if (running.length) yield `<ul aria-label="Legend">\n${legend(source).join('\n')}\n</ul>\n`;
    yield '<table>\n';
    for (let position = area.top; position <= area.bottom; position++)
      yield rowHtml(source, { area, merges, position });
    yield '</table></body></html>\n';
  }
  return {
    parts: parts(),
    report: {
      rules: running.map(({ rule }) => ({
        name: rule.name,
        as: 'formatting',
        note: 'in the legend, with the looks of now',
      })),
      notes: ['It is a page to read: formulas are there as what they give'],
    },
  };
}

/** A line of the legend for each rule: its looks, its name, and what it says. */
function legend({ running, looks, sheet }: ExportSource): string[] {
  const fields = namedFields(sheet);
  return running.map(({ rule }) => {
    const own = kindOf(rule.when).outcomeLooks(rule.when) ?? [rule.look ?? {}];
    const swatches = own.flatMap((look) =>
      look
        ? `<span class="w" style="${attribute(cssOf(Object.fromEntries(lookProperties(look, looks))))}">9.1</span>`
        : [],
    );
    const sentence = ruleSentence(fields, rule);
    return `<li>${swatches.join('')}<b>${xmlText(rule.name)}</b>${sentence === rule.name ? '' : ` ${xmlText(sentence)}`}</li>`;
  });
}

interface RowAt {
  readonly area: CellRange;
  readonly merges: readonly CellRange[];
  readonly position: number;
}

function rowHtml({ sheet, resolver }: ExportSource, { area, merges, position }: RowAt): string {
  const slot = sheet.slotAt(position);
  const role = sheet.roleAt(slot);
  const tag = role === 'header' ? 'th' : 'td';
  // A title reaches over the blank cells after it.
  const lastFilled =
    role === 'title' ? sheet.columns.findLastIndex((store) => store.valueAt(slot).kind !== 'blank') : area.right;
  const cells: string[] = [];
  for (let column = area.left; column <= area.right; column++) {
    const [across, down] = [column - area.left, position - area.top];
    const merge = merges.find((each) => holdsCell(each, across, down));
    if (merge && (merge.left !== across || merge.top !== down)) continue;
    const { properties } = resolver.resolve(column, slot);
    const kind = sheet.column(column).valueAt(slot).kind;
    const css = cssOf({ ...sheet.styleAt(column, slot), ...Object.fromEntries(properties) });
    const reaches = !merge && column === Math.max(area.left, lastFilled) ? area.right - column + 1 : 1;
    const span = merge
      ? ` colspan="${merge.right - merge.left + 1}" rowspan="${merge.bottom - merge.top + 1}"`
      : reaches > 1
        ? ` colspan="${reaches}"`
        : '';
    const isNumber = tag === 'td' && (kind === 'number' || kind === 'date');
    cells.push(
      `<${tag}${isNumber ? ' class="n"' : ''}${span}${css ? ` style="${attribute(css)}"` : ''}>${content(shownAt(sheet, column, slot), properties)}</${tag}>`,
    );
    if (reaches > 1) break;
  }
  return `<tr${role === 'title' ? ' class="t"' : ''}>${cells.join('')}</tr>\n`;
}

/** The content of a cell: its text unless that is hidden, and its icon in words. */
function content(shown: string, properties: LookProperties): string {
  const icon = lookValue(properties, 'icon');
  const words = icon ? `[${ICON_SETS[icon.set][icon.index] ?? ''}] ` : '';
  return xmlText(words + (properties.get('hideValue') ? '' : shown));
}

const attribute = (css: string): string => xmlText(css);
