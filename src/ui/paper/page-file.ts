/**
 * A page of its own with all that an element needs to look as it does here: its text and the style rules that apply to
 * it.
 */
export function pageFile(element: Element, title: string): string {
  const rules = [...document.styleSheets]
    .flatMap((sheet) => [...sheet.cssRules])
    .filter(
      (rule) => rule instanceof CSSPageRule || (rule instanceof CSSStyleRule && applies(rule.selectorText, element)),
    )
    .map(({ cssText }) => cssText);
  const variables = element.parentElement!.getAttribute('style') ?? '';
  const heading = document.createElement('title');
  heading.textContent = title;
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8">${heading.outerHTML}
<style>
${rules.join('\n')}
body { margin: 24px; font: 420 13px 'Hanken Grotesk Variable', system-ui, sans-serif; font-variant-numeric: tabular-nums; }
</style></head><body style="${variables.replaceAll('"', '&quot;')}">
${element.outerHTML}
</body></html>
`;
}

const applies = (selector: string, element: Element): boolean =>
  element.matches(selector) || element.querySelector(selector) !== null;
