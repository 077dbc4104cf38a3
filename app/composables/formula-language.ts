import { HighlightStyle, LanguageSupport, LRLanguage, syntaxHighlighting } from '@codemirror/language';
import { styleTags, tags } from '@lezer/highlight';
import { parser } from '#core/formula/formula.parser';

/** The formula language for the editor: the same grammar that formulas are computed with. */
const language = LRLanguage.define({
  name: 'formula',
  parser: parser.configure({
    props: [
      styleTags({
        'FunctionName/...': tags.function(tags.variableName),
        Number: tags.number,
        Text: tags.string,
        'True False': tags.bool,
        'AndWord OrWord NotWord InWord': tags.keyword,
        'OrElseOp PowerOp TimesOp PlusOp JoinOp CompareOp': tags.operator,
        'Name/...': tags.variableName,
        'FieldName/...': tags.propertyName,
      }),
    ],
  }),
  languageData: { closeBrackets: { brackets: ['(', '[', '"'] } },
});

const style = HighlightStyle.define([
  { tag: tags.function(tags.variableName), color: 'var(--slate)', fontWeight: '500' },
  { tag: tags.variableName, color: 'var(--verdigris)' },
  { tag: tags.propertyName, color: 'var(--verdigris)' },
  { tag: [tags.number, tags.bool], color: 'var(--brass-text)' },
  { tag: tags.string, color: 'var(--brass-text)' },
  { tag: tags.keyword, color: 'var(--slate)', fontWeight: '500' },
  { tag: tags.operator, color: 'var(--ink)' },
]);

export function formulaLanguage(): LanguageSupport {
  return new LanguageSupport(language, [syntaxHighlighting(style)]);
}
