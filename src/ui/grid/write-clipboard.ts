import type { CopiedText } from '../../protocol/engine-messages';

/**
 * Puts a text on the clipboard, as such and as a table. A clipboard takes data only while a copy event asks for it, so one is raised; without
 * a word on `beforecopy`, a browser that sees no marked text would not raise it. Works without the permission that the asynchronous way needs.
 */
export function writeClipboard({ text, html }: CopiedText): void {
  const hand = (event: ClipboardEvent) => {
    event.preventDefault();
    event.stopPropagation();
    event.clipboardData?.setData('text/plain', text);
    event.clipboardData?.setData('text/html', html);
  };
  document.addEventListener('beforecopy', (event) => event.preventDefault(), { once: true });
  document.addEventListener('copy', hand, { capture: true, once: true });
  document.execCommand('copy');
  document.removeEventListener('copy', hand, { capture: true });
}
