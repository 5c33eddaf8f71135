import type { CopiedText } from '../../../protocol/engine-messages';

/**
 * Puts a text on the clipboard, as text and as a table. A clipboard takes data only while a copy event asks for it, so
 * one is raised; without a handler of `beforecopy`, a browser that sees no selected text would not raise it. Needs no
 * permission, unlike the asynchronous way.
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
