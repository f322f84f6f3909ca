/** Colours of the interface for what is not drawn by style sheets. */

/** What a token of `tokens.css` is, such as `ink`. */
export const token = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
