/** Colours that the lane of a bone can take; without one it has that of its side. */
export const LANE_COLOURS = [
  ['amber', '#c98a16'],
  ['rust', '#b4532a'],
  ['rose', '#a63d57'],
  ['violet', '#7d5a98'],
  ['blue', '#44639c'],
  ['green-blue', '#2a7a70'],
  ['leaf', '#5d7f2b'],
  ['stone', '#6f665c'],
] as const;
