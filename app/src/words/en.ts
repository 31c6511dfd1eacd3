import type { Entry } from '@sphalerite/core/words';

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
  deliveries: { one: '{n} delivery', other: '{n} deliveries' },
  palettes: { one: '{n} palette', other: '{n} palettes' },
  scenes: { one: '{n} scene', other: '{n} scenes' },
  stamps: { one: '{n} stamp', other: '{n} stamps' },
  swatches: { one: '{n} swatch', other: '{n} swatches' },

  'version.newer':
    'A newer version of Sphalerite is ready. It comes when you take it, or when Sphalerite is next opened after all its windows were closed.',
  'version.take': 'Take it now',
  'version.otherWindows': {
    one: 'Sphalerite is open in {n} more window. Close it first, so that no work there is disturbed.',
    other: 'Sphalerite is open in {n} more windows. Close them first, so that no work there is disturbed.',
  },
  'version.notSaved': 'Not everything is saved yet. Try again in a moment.',

  'app.unforeseen':
    'Something went wrong that was not foreseen ({text}). Your work is saved as before; if the page behaves oddly, load it again.',
  'settings.unreadable': 'Your settings could not be read and stand at their beginnings. {why}',
  'poses.noClip': 'Choose or make a clip first; a pose is keyed in a clip.',
  'keys.none': 'No key is chosen, and none stands at this frame.',
  'keys.noClip': 'Choose or make a clip first; keys stand in clips.',
  'apart.selectPiece':
    'Select the cubes of a piece first: with a Select tool, or a click of Select piece or Select colour.',
  'apart.noPlane': 'Put the guide plane where the cut goes (Q, then [ and ] or its handle), then choose this again.',
  'apart.planeMisses':
    'The guide plane does not cross what is to be cut. Move it with [ and ], or take another piece in hand.',
  'colour.none': '“{text}” is not a colour. Write it as #rrggbb, or by a name such as teal.',
  'stamps.kept': 'The piece lies on the stamp shelf.',
  'selection.none': 'Nothing is selected. Select some cubes first.',
  'pieces.otherTool':
    'Pieces are painted with points, brushes, lines, boxes and fills. Take such a tool, or end painting first.',
  'shape.cutOff': 'Part of the shape lies outside the volume and was left out.',
  'stroke.nothing.add': 'Nothing was added: all these cells hold this swatch already, or the cutaway keeps them.',
  'stroke.nothing.erase': 'Nothing was erased: there is no cube of this layer.',
  'stroke.nothing.paint': 'Nothing was painted: no cube of this layer is there, or all have this swatch already.',
  'fill.letGo': 'The part has changed meanwhile; the fill was let go. Click again.',
  'hollow.takes': 'It takes {cubes} away: those in red.',
  'hollow.nothing': {
    one: 'Nothing lies deeper than walls of {n} cube; nothing was hollowed. Select more, or a thicker part.',
    other: 'Nothing lies deeper than walls of {n} cubes; nothing was hollowed. Choose thinner walls.',
  },
  'tidy.none': 'There is nothing of that kind.',
  'tidy.noneAlike': 'No two colours here are almost equal.',
  'volume.size': 'A part is 1 to {most} cubes along each axis; {size} is not.',
  'take.noClip': 'This shot shows no clip. Take the pose from Animate first, or choose “turn”.',
  'take.noClips': 'There are no clips in this project yet. Make one in Animate, or take the shot’s own pose.',
  'take.sceneStands':
    'Nothing moves in this scene. Give a figure that stands in it a clip, in Stage, or choose “path”.',
  'take.writing': 'writing…',
  'take.notKept':
    'There is no room in this browser for the pictures that are made. They are made all the same; keep this page open until they are saved.',
  'picture.cost': 'about {time}, {size} of memory',
  'picture.largeCost': 'about {time}; kept as it comes, {size} of storage',
  'picture.noMemory': 'There is no memory for a picture of {width}×{height} pixels. Choose a smaller one.',
  'readyRig.saved': '“{name}” is a ready rig now: new projects can begin with it.',
  'alternates.dropOnPart': 'Drop it on a part of the figure: it is tried in the place of that one.',
  'limb.made': 'It bends {bend}. Pull its goal to try it; “Bend the other way” stands with the foot or hand.',
  'bin.in': '“{name}” is in the bin.',
  'demo.unreachable': 'The demo projects could not be loaded. You can begin a project of your own all the same.',
  'save.leaving':
    'The last of your work could not be saved in this browser yet. Stay and save the project as a file (Ctrl+Shift+S), or leave without it.',
  'bring.needsProject': 'Open the project it is meant for, then bring it in there.',
  'bring.needsPart': 'Choose the part it is meant for in Build, then bring it in there.',
  'bring.tooLarge': '“{name}” is {megabytes} MB; a file may have up to 512.',
  'bring.unknown': '“{name}” is nothing that can be brought in. {known} can.',
  'bring.cannotHere': '“{title}” cannot be used here. {why}',
  'again.gone': 'What “{part}” was made of is not kept. Bring the file in once more.',
  'again.unknown': '“{part}” was made in a way that is not known here any more. Bring the file in once more.',
  'bring.notKept': '{name} is larger than {megabytes} MB and is not kept, so this cannot be made again from here.',
  'bring.onShelf': '“{title}” stands on the shelf.{told}',
  'save.done': 'Saved. Every change is saved by itself, too.',
  'shortcuts.noJson': '“{name}” is not a file of shortcuts: it is no JSON. Choose one that was saved from this sheet.',
  'shortcuts.noFile': '“{name}” is not a file of shortcuts. Choose one that was saved from this sheet.',
  'shelf.gone': 'This project is no longer on the shelf.',
  'storage.lastDamaged': 'The last state of this project is damaged in the browser’s storage; it opens at “{label}”.',
  'storage.missing': 'What is stored of this project is damaged: {what} of it cannot be found.',
  'readyRigs.unreachable': 'The ready rigs could not be loaded. Begin with an empty volume, or try again.',
  'readyRig.gone': 'The ready rig “{name}” is no longer kept here.',
  'readyRig.unreachable': 'The ready rig “{name}” could not be loaded. Try again.',
  'storage.wrongForm': 'A part of it is not of the form it should have.',
  'storage.damaged': 'What is stored of this project is damaged. {why}',
  'shelf.held': '“{name}” is open in another window and cannot be {doing} here. Close it there, or take it over first.',
  'storage.takenOver': 'Another window has taken this project over. This one shows it without saving.',
  'storage.gone':
    'This project is no longer on the shelf. What you see is still here: put it back, or save it as a file.',
  'command.cannot': '“{title}” cannot be done now: {why}.',
  'session.lookingOnly': 'This project is open for looking only. Take it over to change it.',
  'session.letGo': 'The project has changed meanwhile; “{label}” was let go. Try again.',
  'save.full':
    'The browser has no room left to save in. Your work is still open here and saving is tried again: save the project as a file now, then make room.',
  'save.failed': 'Saving failed: {why} Your work is still open here, and saving is tried again.',
  'workers.crashed':
    'The background work stopped unexpectedly ({detail}). Nothing of the project was changed; try again.',
  'workers.broken':
    'Work in the background cannot be started in this browser ({detail}). Saving and small changes go on; load the page again to try anew.',

  'setting.unkept': 'A setting could not be kept ({why}). It counts until you leave the page.',
  'setting.noRoom': 'A setting could not be kept: this browser has no room left. It counts until you leave the page.',
  'palette.dropped': {
    one: '{n} unused swatch dropped. Undo brings it back.',
    other: '{n} unused swatches dropped. Undo brings them back.',
  },
  'bones.inBin': '“{bone}” is in the bin',
  'bones.andMore': { one: '“{bone}” and {n} more are in the bin', other: '“{bone}” and {n} more are in the bin' },
  'bones.alone': '{what}. It can be brought back.',
  'bones.withAll': '{what}, and with it: {list}. It can be brought back with all of it.',
  'bones.along': { one: 'with {n} bone that hangs on it', other: 'with {n} bones that hang on it' },
  'bones.partsLoose': { one: '{n} part comes loose', other: '{n} parts come loose' },
  'bones.constraints': { one: '{n} constraint', other: '{n} constraints' },
  'bones.attachments': { one: '{n} attachment point', other: '{n} attachment points' },
  'keys.pasteMirrored': { one: 'Paste a key mirrored', other: 'Paste {n} keys mirrored' },
  'clips.toCome': { one: 'one clip after another: {n} to come', other: 'one clip after another: {n} to come' },
  'clips.sealed': 'sealed with {rig}: its keys cannot be changed',
  'clip.without': ', without {list}',
  'clip.withoutMore': { one: ', without {list} and {n} more', other: ', without {list} and {n} more' },

  'rename.title': { one: 'Rename {n} of the {of}', other: 'Rename {n} {of}' },
  'rename.do': { one: 'Rename {n}', other: 'Rename {n}' },
  'rename.taken': '“{wanted}” is taken there, so it is called “{name}”.',
  'rig.allMounted': '{bones}, {parts}, all mounted',
  'rig.partsLoose': { one: '{n} part hangs on no bone', other: '{n} parts hang on no bone' },
  'rig.facesMeet': { one: '{n} face lies in that of {other}.', other: '{n} faces lie in those of {other}.' },
  'pieces.allInPlace': { one: 'in place of the one here', other: 'in place of the {n} here' },
  'curves.hint': {
    one: '{n} key. Drag it sideways in time, up and down in value.',
    other: '{n} keys. Drag one sideways in time, up and down in value; the two handles bend the way to the next.',
  },
  'keys.between': {
    one: 'At {n} moment keys stand between two frames now; “keys on whole frames” is off.',
    other: 'At {n} moments keys stand between two frames now; “keys on whole frames” is off.',
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
  'restore.deleted': {
    one: 'Deleted the restore point “{name}”.',
    other: 'Deleted {n} restore points, “{name}” first.',
  },
  'restore.before': 'Before: {label}',
  'files.written': {
    one: 'Wrote {name} ({size}) to the browser’s downloads.',
    other: 'Wrote {name} and others, {n} files in all ({size}), to the browser’s downloads.',
  },
  'folder.written': 'Shipped into “{folder}”: {fresh} new, {changed} changed, {same} as they were.',
  'folder.foreign': {
    one: '{name} stands in “{folder}” already and is not from here: it was left as it is. Rename what you ship, or move it away.',
    other:
      '{n} files, {name} among them, stand in “{folder}” already and are not from here: they were left as they are. Rename what you ship, or move them away.',
  },
  'folder.noPermission':
    'The browser may not write into “{folder}” any more. Ship again and allow it, or link another folder.',
  'folder.locked':
    '{name} in “{folder}” is held by another program. Close it there and ship again; what was written before it stands.',
  'folder.gone': 'The folder “{folder}” is not where it was. Link it again, or another one.',
  'kind.make': 'Make it a {kind}',
  'kind.stays': 'Parts, bones, clips, seal and target sheet stay as they are. A restore point is made first.',
  'kind.character':
    'A character stands on the floor and walks: it is shipped with bones and clips, and wearables are tried on its attachment points.',
  'kind.creature':
    'A creature stands on the floor on legs of its own: it is shipped with bones and clips. Nothing is worn by it unless it has attachment points.',
  'kind.wearable':
    'A wearable hangs at an attachment point of another figure, by the joint of its first bone or the pivot of its part. Give it that place before it ships.',
  'kind.prop':
    'A prop is placed many times: it is shipped as one thing with a collider. Bones and clips go along where it has any.',
  'kind.scene': 'A scene is other things placed together. Its own parts stay, and can be placed in it too.',
  'kind.terrain cube': 'A terrain cube is six faces of texels, tiled.',
  'project.kind': 'This is a {kind} now; that goes along wherever it is shipped.',
  'mirror.stillOn': 'Mirror {axes} is still on: strokes in “{part}” change both sides.',
  'mirror.isOff': '“{part}” was alike on both sides until now; mirror X is off.',
  'floor.below': { one: 'reaches {n} below the floor', other: 'reaches {n} below the floor' },
  'linked.shows': { one: 'a change shows on {n} placement', other: 'a change shows on {n} placements' },
  'scene.alike': {
    one: '“{name}” is cube for cube another part ({n} placement): one linked part would do.',
    other: '“{name}” and what looks like it are cube for cube another part ({n} placements): one linked part would do.',
  },
  'scene.alikeGroups': {
    one: '{n} group holds what “{name}” does.',
    other:
      '{n} groups hold the same as “{name}”, each by itself: a change of one reaches no other. As one part, they could be linked.',
  },
  'scene.otherCubes': {
    one: '“{name}” ({n} placement) has cubes of {edge}, most others do not.',
    other: '“{name}” and others ({n} placements) have cubes of {edge}, most do not.',
  },
  'scene.floats': '“{name}” hangs in the air, {by} above what is below it.',
  'scene.within': {
    one: '“{name}” stands in “{other}” by {n} cube.',
    other: '“{name}” stands in “{other}” by {n} cubes.',
  },
  'assets.gone': '“{name}” came from a project that is no longer on the shelf. What stands here stays as it is.',
  'assets.same': '“{name}” is as its project is now.',
  'assets.fresh': '“{name}” is up to date. Changed: {what}.',
  'combine.size': '{size} cubes.',
  'combine.finer': 'They meet between cubes, so each is cut in {parts} along its edges.',
  'combine.resampled': {
    one: '{n} stands turned by no quarter or of other cubes, and is looked up cell by cell: {list}.',
    other: '{n} stand turned by no quarter or of other cubes, and are looked up cell by cell: {list}.',
  },
  'combine.tiles': { one: 'It comes as {n} part.', other: 'Larger than a part, it comes in {n} tiles.' },
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
} as const satisfies Readonly<Record<string, Entry>>;
