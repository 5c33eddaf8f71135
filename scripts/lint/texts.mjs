// A plugin of the linter: texts for people stand in the catalogue (src/texts), not in the source.

/** Attributes that people read or hear: any word in them is a text. */
const READ = /^(aria-(label|description|roledescription)|alt|description|expects|label|placeholder|says|title)$/;

/** Two words, the end of a sentence, or a word with a capital. */
const TEXT = /\p{L}[\p{L}’,;:.…!?)”]* [“(]?\p{L}|\p{L}{2}[.…!?]$|^[“(]?\p{Lu}\p{Ll}/u;

/** What looks like a text and is code: keys of the keyboard, styles, selectors, media queries, headers, shell. */
const CODE = [
  /^(Arrow\w+|Backspace|Delete|End|Enter|Escape|Home|Key[A-Z]|Page(Up|Down)|Tab)$/,
  // Headers, formulas, patterns of dates.
  /^[A-Z]\w*(-[A-Z]\w*)+$|^Bearer( |$)|^text\/|^[A-Z ]+$|^[dMy ]+$/,
  /^\d+px |gradient\(|color-mix\(|^color: var|^\(max-width|^input, |^use client$|^no-store|^attachment;|^curl|^-[Hd] '/,
];

/** Calls whose arguments nobody reads: names of texts, parts of the page, errors for programmers, the server's log. */
const UNREAD = /(^|\.)(t|rich|refusalText|querySelector(All)?|closest|getContext|log\(\)\.\w+|RangeError|TypeError)$/;

const isText = (text) => TEXT.test(text.trim()) && !CODE.some((pattern) => pattern.test(text.trim()));

/** True where a text is not shown: a type, a name, something compared or imported, or the argument of a call above. */
function isUnread(node, source) {
  const { parent } = node;
  if (/^(TS|Import|Export)/.test(parent.type) && !/Expression$/.test(parent.type)) return true;
  if (parent.type === 'BinaryExpression' && /[=<>]/.test(parent.operator)) return true;
  if (parent.type === 'SwitchCase' || (parent.type === 'Property' && parent.key === node)) return true;
  if (parent.type === 'ConditionalExpression') return isUnread(parent, source);
  const isArgument = /^(Call|New)Expression$/.test(parent.type) && parent.callee !== node;
  return isArgument && UNREAD.test(source.getText(parent.callee).replace(/<.*>$/, ''));
}

const PARTS = /^(TemplateLiteral|ConditionalExpression|LogicalExpression|JSXExpressionContainer)$/;

/** True for a part of what an attribute that is read, or an element, shows: there a single word is a text as well. */
function isShown(node) {
  let at = node;
  while (PARTS.test(at.parent.type) && at.parent.test !== at) at = at.parent;
  if (at.type !== 'JSXExpressionContainer') return false;
  const { type, name } = at.parent;
  return type === 'JSXAttribute' ? READ.test(String(name.name)) : /^JSX(Element|Fragment)$/.test(type);
}

const inCatalogue = {
  create(context) {
    const source = context.sourceCode;
    const check = (node, text) => {
      const isWord = /\p{L}{2}/u.test(text) && isShown(node);
      if ((isWord || isText(text)) && !isUnread(node, source))
        context.report({ node, message: `A text for people stands in src/texts: ${text.trim().slice(0, 60)}` });
    };
    return {
      Literal: (node) => typeof node.value === 'string' && check(node, node.value),
      TemplateLiteral: (node) => check(node, node.quasis.map(({ value }) => value.cooked).join('1')),
      JSXAttribute({ name, value }) {
        if (
          value?.type === 'Literal' &&
          READ.test(String(name.name)) &&
          /\p{L}/u.test(value.value) &&
          !isText(value.value)
        )
          context.report({ node: value, message: `A text for people stands in src/texts: ${value.value}` });
      },
    };
  },
};

export default { meta: { name: 'texts' }, rules: { 'in-catalogue': inCatalogue } };
