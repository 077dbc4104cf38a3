declare module '#built-pages' {
  const pages: readonly import('./edge/page-hints').BuiltPage[];
  export default pages;
}
