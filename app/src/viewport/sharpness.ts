/** How many pixels are drawn for each of the screen's: all that the screen has, one, or a quarter of one. */
export const SHARPNESS = ['fine', 'plain', 'quick'] as const;
export type Sharpness = (typeof SHARPNESS)[number];
