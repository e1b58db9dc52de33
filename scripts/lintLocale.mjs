/** Dates and numbers are written as the reader chose: whoever writes one says which locale, locale() of look. */
const isSaid = {
  create: (context) => ({
    CallExpression(node) {
      const { callee, arguments: [locale] } = node;
      if (callee.type !== 'MemberExpression' || !/^toLocale/.test(callee.property.name ?? '')) return;
      if (locale === undefined || (locale.type === 'Identifier' && locale.name === 'undefined')) context.report({ node, message: 'Say which locale: locale() of look.' });
    },
  }),
};

export default { meta: { name: 'locale' }, rules: { 'is-said': isSaid } };
