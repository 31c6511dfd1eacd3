/** A colour of the theme in use, by the name of its token. */
export const tone = (token: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(token).trim() || '#777777';
