import { EditorView } from '@codemirror/view';

/** The formula editor in the colours of the theme, on one line. What hangs below and above it is drawn alike. */
export const formulaTheme = EditorView.theme({
  // Its class is also that of the box in which tooltips hang.
  '&.cm-editor': { height: '100%', fontSize: '13px' },
  '&.cm-focused': { outline: 'none' },
  '.cm-scroller': {
    fontFamily: "'Atkinson Hyperlegible Mono', monospace",
    lineHeight: 'inherit',
    overflowX: 'auto',
    overflowY: 'hidden',
    scrollbarWidth: 'none',
  },
  '.cm-content': { padding: '0', color: 'var(--ink)', caretColor: 'var(--ink)' },
  '.cm-line': { padding: '0' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '&.cm-focused .cm-matchingBracket': { background: 'none', boxShadow: 'inset 0 -2px var(--marigold)' },
  '&.cm-focused .cm-nonmatchingBracket': { background: 'none', boxShadow: 'inset 0 -2px var(--error)' },
  '.cm-mistake': { textDecoration: 'underline wavy var(--error) 1px' },
  '.cm-tooltip': {
    background: 'var(--sheet)',
    color: 'var(--ink)',
    border: '1px solid var(--line)',
    borderRadius: '6px',
    boxShadow: 'var(--mantine-shadow-md)',
    fontSize: '13px',
    zIndex: '400',
  },
  '.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: 'inherit', maxHeight: '216px', minWidth: '260px' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li': { padding: '4px 8px', lineHeight: '20px' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li[aria-selected]': {
    background: 'var(--head)',
    color: 'var(--ink)',
    boxShadow: 'inset 3px 0 var(--marigold)',
  },
  '.cm-completionDetail': { fontStyle: 'normal', color: 'var(--ink-second)', marginLeft: '8px' },
  '.cm-completionMatchedText': { textDecoration: 'none', fontWeight: '600' },
  '.cm-tooltip.cm-completionInfo': { padding: '4px 8px', maxWidth: '280px' },
  '.cm-tooltip.cm-signature': { padding: '4px 8px', marginBottom: '4px', maxWidth: 'min(560px, 92vw)' },
  '.cm-signature-says': { color: 'var(--ink-second)' },
});
