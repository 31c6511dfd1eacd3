/**
 * Sentences and counts of the interface, by key: what is in braces is filled in; where the form depends on how many there are,
 * `n` decides. Another language is another file like this one.
 */
export const EN = {
  bones: { one: '{n} bone', other: '{n} bones' },
  clips: { one: '{n} clip', other: '{n} clips' },
  cubes: { one: '{n} cube', other: '{n} cubes' },
  keys: { one: '{n} key', other: '{n} keys' },
  pieces: { one: '{n} piece', other: '{n} pieces' },
  parts: { one: '{n} part', other: '{n} parts' },
  triangles: { one: '{n} triangle', other: '{n} triangles' },
  swatches: { one: '{n} swatch', other: '{n} swatches' },

  'version.newer':
    'A newer version of Sphalerite is ready. It comes when you take it, or when Sphalerite is next opened after all its windows were closed.',
  'version.take': 'Take it now',
  'version.otherWindows': {
    one: 'Sphalerite is open in {n} more window. Close it first, so that no work there is disturbed.',
    other: 'Sphalerite is open in {n} more windows. Close them first, so that no work there is disturbed.',
  },
  'version.notSaved': 'Not everything is saved yet. Try again in a moment.',

  'rig.allMounted': '{bones}, {parts}, all mounted',
  'rig.partsLoose': { one: '{n} part hangs on no bone', other: '{n} parts hang on no bone' },
  'rig.facesMeet': { one: '{n} face lies in that of {other}.', other: '{n} faces lie in those of {other}.' },
  'bringIn.itsBones': { one: 'Its {n} bone', other: 'Its {n} bones' },
  'bringIn.bring': 'Bring in {bones}, {parts}, {clips}',
  'bringIn.replace': { one: 'Replace {n} part', other: 'Replace {n} parts' },
  'curves.hint': {
    one: '{n} key. Drag it sideways in time, up and down in value.',
    other: '{n} keys. Drag one sideways in time, up and down in value; the two handles bend the way to the next.',
  },
  'keys.copied': { one: 'A key is copied.', other: '{n} keys are copied.' },
  'bones.tried': { one: 'a bone tried out: S keys', other: '{n} bones tried out: S keys' },
  'ground.clash': { one: '{a} stands {n} cube in {b}.', other: '{a} stands {n} cubes in {b}.' },
  'apart.rest': { one: '{n} cube stays together', other: '{n} cubes stay together' },
  'apart.take': { one: 'Take apart into {n} part', other: 'Take apart into {n} parts' },
  'twins.differ': { one: '{n} cube differs', other: '{n} cubes differ' },
  'cubes.copied': { one: '{n} cube copied.', other: '{n} cubes copied.' },
  'cubes.cutOff': {
    one: '{n} cube would have left the volume and was cut off.',
    other: '{n} cubes would have left the volume and were cut off.',
  },
  'cubes.selectedThrough': {
    one: '{n} cube selected, all that lie behind one another',
    other: '{n} cubes selected, all that lie behind one another',
  },
  'volume.wouldCut': {
    one: '{size} would cut off {n} cube of “{part}”. Nothing has changed yet.',
    other: '{size} would cut off {n} cubes of “{part}”. Nothing has changed yet.',
  },
  'cutaway.hidden': { one: 'cutaway: {n} cube hidden', other: 'cutaway: {n} cubes hidden' },
  'mirror.unpaired': {
    one: '{n} cube without a twin across {axis}',
    other: '{n} cubes without a twin across {axis}',
  },
  'tidy.loose': { one: '{n} loose cube in {pieces}', other: '{n} loose cubes in {pieces}' },
  'tidy.holes': { one: '{n} single hole', other: '{n} single holes' },
  'tidy.hidden': { one: '{n} cube nobody sees', other: '{n} cubes nobody sees' },
  'silhouette.differs': { one: 'silhouette: {n} place differs', other: 'silhouette: {n} places differ' },
  'palette.alike': {
    one: 'With this vision {n} pair looks alike:',
    other: 'With this vision {n} pairs look alike:',
  },
  'palette.loses': {
    one: '{n} colourway loses its own looks for this palette.',
    other: '{n} colourways lose their own looks for this palette.',
  },
} as const satisfies Readonly<Record<string, string | { readonly one: string; readonly other: string }>>;
