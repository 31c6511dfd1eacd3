import type { Entry } from './speaker';

/**
 * Every sentence with which something is refused here, by key: what is in braces is filled in; where the form depends on how
 * many there are, `n` decides. Another language is another file like this one.
 */
export const EN = {
  // files/order.ts
  'order.unknownExporter': 'There is no kind of file called “{exporter}”.',
  'order.picture': 'A picture is saved where it was traced.',

  // files/palette-file.ts
  'paletteFile.tooMany': 'This file holds {count} colours; a palette holds at most {most}. Reduce them first.',
  'paletteFile.noColour':
    'Line {line}, “{text}”, is not a colour. Write it as #rrggbb, with a name behind it if you like.',
  'paletteFile.none': 'There are no colours in this file. A palette needs at least one.',
  'paletteFile.noPng': 'This is not a PNG picture.',
  'paletteFile.tooLarge':
    'The picture is {width} × {height} pixels, too large for a palette. Use one of up to 2,048 × 2,048.',
  'paletteFile.damaged': 'The picture is damaged and cannot be decoded.',
  'paletteFile.noJson': 'Line {line} is not valid JSON: {why}.',
  'paletteFile.line': 'Line {line}: {what} {why}.',
  'paletteFile.empty': 'The file is empty.',
  'paletteFile.neither': 'This is neither a PNG picture nor a text. Palettes come as hex lists, PNG strips and JSON.',

  // files/png.ts
  'codec.notPng': 'It is not a PNG picture.',
  'codec.notJpeg': 'It is not a JPEG picture.',
  'codec.damaged': 'It is damaged and cannot be decoded.',
  'codec.tooLarge':
    'It is {width}×{height} pixels; pictures up to 67 million pixels (8,192×8,192) can be worked with. Make it smaller first.',
  'codec.bomb': 'It packs far more than its size says and was not unpacked.',
  'codec.unknown': 'It is no picture that can be read here. Use PNG, JPEG, WebP, GIF or SVG.',
  'codec.browser': 'Pictures of this kind are decoded by browsers: bring it in there, or save it as PNG or JPEG first.',
  'codec.notRadiance': 'It is not a Radiance picture of red, green and blue.',
  // codec/mesh/
  'codec.noFaces': 'There are no faces in it that cubes could be made of.',
  'codec.manyTriangles': 'It has more than {most} triangles. Save a coarser version of it.',
  'codec.manyNodes': 'It has more than {most} nodes. Join some of them first.',
  'codec.deep': 'Its nodes hang below each other more than {most} deep. Flatten the tree first.',
  'codec.circle': 'Some of its nodes hang on themselves in a circle. Save it again with the program that made it.',
  'codec.gltfVersion': 'It is glTF of version {version}; only 2.0 can be read. Save it as glTF 2.0.',
  'codec.packed': 'It is packed with {name}, which cannot be read here. Save it without that compression.',
  'codec.needsFile': 'It names “{name}”, which was not given. Give both files together.',
  'codec.noPoint': 'Line {line} is no place: write x y z, or x y z r g b.',
  'codec.noPoints': 'There are no points in it.',
  'codec.manyPoints': 'It has more than {most} points, which is more than a part has cells.',
  'codec.notPly': 'It is not a PLY file.',
  'codec.cutShort': 'It ends early: it tells of {told} triangles, {is} are there. Save or download it again.',

  // importers/surroundings
  'surroundings.shape':
    '“{name}” is {width} × {height} pixels; a picture of all directions is twice as wide as high. Use such a one.',
  'surroundings.unreadable': '“{name}” cannot be read. {why}',

  // intake/picture.ts
  'sprites.many': 'There would be {count} sprites; a sheet may hold {most}. Say how many there are across and down.',
  'sprites.tooLarge':
    'A sheet of {frames} sprites would be longer than 16,384 pixels. Take fewer sides, fewer frames a second or fewer pixels a cube.',
  'sprites.cellTooLarge': 'A sprite would be larger than {most} pixels. Take fewer pixels a cube.',
  'sprites.noCell': 'These pictures were not made as sprites. Choose “sprites” and make them again.',
  'picture.nothing':
    'Nothing of the picture is left: everything is transparent or left out. Lower “Opaque from”, or leave out less.',
  'picture.noSwatch': 'None of the swatches that were asked for is in the palette. Choose others, or all.',
  'picture.tooHigh':
    'At {wide} cubes wide the picture would be {high} high; a part can be 256. Choose at most {most} wide, or cut some off.',
  'slices.none': 'There are no pictures in it.',
  'slices.text': '“{name}” does not say how its slices follow. Leave it out and choose the order yourself.',
  'slices.nothing': 'No pixel of it is a cube: all are empty.',
  'slices.sizes': 'Its slices are not of one size: {one} and {other}. Bring those of one size in together.',
  'slices.tiles': 'Tiles of {wide} × {high} do not fill its {picture} pixels. Choose another width and height.',
  'slices.tooLarge': 'It would be {wide} × {high} × {count} cubes; a part can be 256 along an edge.',
  'grown.noFile': '“{name}” is made up of its seed and takes no file. Leave the file out.',
  'mesh.nothing': 'Nothing of it became a cube. Choose more height, or “Keep thin”.',
  'mesh.tooLarge': 'It would be {wide} cubes along an edge; a part can be 256. Choose a height of at most {most}.',
  'mesh.trueTooLarge':
    'As large as it is it would be {wide} cubes along an edge; a part can be 256. Choose a height, or another unit.',
  'mesh.edge': 'A part of it is just more than 256 cubes along an edge. Choose a little less height.',
  'mesh.mess': 'Its triangles lie across each other so often that it cannot be worked out. Save a cleaner version.',
  'picture.tooThick': 'It would be {deep} cubes thick; a part can be 256. Choose less thickness or a lower relief.',
  'picture.noRoom': 'With an outline it would be more than 256 cubes. Choose at most {most}.',

  // intake/height-map.ts
  'heights.nothing':
    'Nothing of the field is left: everything counts as empty. Lower “Empty up to”, or give it a base.',
  'heights.allDropped': 'Every piece has fewer than {least} cubes and was left out. Lower “Drop below”.',
  'heights.tooLarge':
    'The field would be {width}×{depth} cubes; a part can be 256. Choose at most {most} wide, or split it into pieces or tiles.',
  'heights.fieldTooLarge': 'The field would be {width}×{depth} cubes; one can be 4,096. Choose at most {most} wide.',
  'heights.tooHigh': 'It would be {high} cubes high; a part can be 256. Choose less height or a thinner base.',
  'heights.noPiece': 'There are {most} pieces; “{pair}” names another. Name two of them, as in 1+2.',

  'png.none': '{what} is not a PNG picture.',
  'png.otherSize': '{what} is {isWidth}×{isHeight} pixels; the project says {width}×{height}.',
  'png.notIndexed': '{what} is not an indexed picture of 8 bits.',
  'png.damaged': '{what} is damaged and cannot be decoded.',
  'png.tooShort': '{what} ends too early.',

  // files/project-file.ts
  'projectFile.incomplete': 'The project file is incomplete: {what} ({file}) are missing.',
  'projectFile.cubeList': 'The project file is damaged: its list of cubes makes no sense.',
  'projectFile.unreadable': '{what} is damaged and cannot be read.',
  'projectFile.picture': 'The project file is damaged: one of its pictures is not what it says.',
  'projectFile.tooDeep': 'The project file is damaged: projects lie in it too deep to be read.',
  'projectFile.noIndex': 'This is not a Sphalerite project file: it holds no {index}.',
  'projectFile.indexNoJson': 'The project file is damaged: {index} is not JSON.',
  'projectFile.indexNoProject': 'The project file is damaged: {index} holds no project.',
  'projectFile.tooLarge': 'The project file is too large: it unpacks to more than {megabytes} MB or {most} files.',
  'projectFile.noZip': 'This is not a Sphalerite project file: it cannot be unpacked as a ZIP.',

  // model/check.ts
  'format.damaged': 'The project is damaged: {what}.',
  'format.noVersion': 'This is not a Sphalerite project: it does not say its format version.',
  'format.damagedAt': 'The project is damaged at {where}: {message}.',

  // model/upgrade.ts
  'format.recordDamaged': 'A {kind} of the project is damaged.',
  'format.recordUnreadable': 'The project is damaged: a {kind} cannot be read as format {v}.',
  'format.newer': 'This project is of format {from}; this program reads up to {to}. Open it with a newer Sphalerite.',
  'format.never': 'This project claims format {from}, which never existed.',

  // project/edit.ts
  'edit.unfit': '“{label}” cannot be done, since the project could not be read again: {why}',

  // model/records.ts
  'records.missing': 'There is no {what} “{id}” in this project.',

  // project/bin.ts
  'bin.notAlone': 'A {name} cannot be deleted by itself.',

  // project/blobs.ts
  'blobs.noPicture': '“{name}” is not a PNG, JPEG or WebP picture.',
  'blobs.tooLarge': '“{name}” is too large to keep in the project; {megabytes} MB is the most. Make it smaller first.',

  // project/bringing.ts
  'bringing.notAlone': 'A {name} cannot be brought in by itself.',
  'bringing.hangs': '“{name}” hangs on a {of}. Bring the whole rig in instead.',

  // project/joint.ts
  'joint.noLimb': 'Nothing is mounted on “{bone}”, so its joint has no limb to swing.',
  'joint.noBody': 'Nothing is mounted above “{bone}”, so its joint has no body to turn in.',

  // project/seal.ts
  'seal.bone': '“{bone}” is a bone of the sealed rig “{rig}”. Unseal it in Rig to change it.',
  'seal.boneKept':
    'The name, turn, size and place in the tree of “{bone}” belong to what is kept of the sealed rig “{rig}”. Unseal it in Rig to change it.',
  'seal.joint':
    'The joint of “{bone}” may move by {range} and no further: it is one of the sealed rig “{rig}”. Unseal it in Rig to change it.',
  'seal.steers': 'What steers the bones is part of the sealed rig “{rig}”. Unseal it in Rig to change it.',
  'seal.clip': '“{clip}” is a clip of the sealed rig “{rig}”. Unseal it in Rig to change it.',

  // voxel/voxel-grid.ts
  'grid.size': 'A volume of {size} cubes was asked for; each edge must be a whole number from 1 to {most}.',
  'grid.begin': 'A volume cannot begin at {list}; give whole numbers up to a million.',

  // files/ship/model-maker.ts
  'ship.noCubes': '“{title}” has no cubes to export. Add some in Build first.',
  'ship.hiddenAndWatertight':
    'A mesh without its hidden faces is open, so it cannot be watertight as well. Choose one of the two.',
  'ship.exactMoving':
    'Physics moves no exact collider: it takes convex ones. Choose convex pieces, or let it stand still.',
  'ship.atlasTooLarge':
    'The colours do not fit in a picture of {most} texels. Allow a larger one, take less padding, or merge by colour.',
  'ship.tooManySlots': 'There are more than 254 material slots. Give some faces the same one.',
  'ship.tooManyFaces':
    '“{title}” shows {now} faces of cubes; files are made of at most {most}. Hollow it out, or ship it in parts.',
  'ship.axes': 'A file cannot be {up} up and look along {forward}. Choose another way forward.',

  // project/edits/alternates.ts
  'alternates.unmounted': '“{part}” hangs on no bone, so nothing can be tried in its place. Mount it first.',
  'alternates.notOne': '“{part}” is not one of “{alternateSet}”.',
  'alternates.circle': '“{bone}” cannot hang at “{point}”, which is on a bone below it.',

  // project/edits/face-slots.ts
  'faceSlots.twin': '“{part}” follows its twin. Pick the faces there, or make it independent.',
  'faceSlots.tooMany': '“{part}” has 255 slots of its own already. Take some away first.',

  // project/edits/deliveries.ts
  'delivery.gone': 'That delivery is not there any more. Choose another.',
  'delivery.field': 'A delivery cannot have that as its {field}. Nothing was changed.',
  'delivery.damaged': '“{title}” is no delivery profile: {reason}. Choose a file that was saved from Ship.',
  'delivery.over.triangles': '{now} triangles are more than the {most} of the budget. See where the faces are.',
  'delivery.over.bones': '{now} bones are more than the {most} of the budget.',
  'delivery.over.draws':
    '{now} draw calls are more than the {most} of the budget. Join the meshes, or use fewer slots.',
  'delivery.over.texture': 'A picture of {now} texels is larger than the {most} of the budget.',
  'delivery.over.kilobytes': '{now} KB are more than the {most} of the budget.',
  'delivery.of.triangles': '{now} of {most} triangles',
  'delivery.of.bones': '{now} of {most} bones',
  'delivery.of.draws': '{now} of {most} draw calls',
  'delivery.of.texture': '{now} of {most} texels',
  'delivery.of.kilobytes': '{now} of {most} KB',
  'delivery.names': '“{one}” and “{other}” are both called “{name}” in the file',
  'delivery.loose': {
    one: '{n} cube of {part} hangs on nothing (pieces: {pieces})',
    other: '{n} cubes of {part} hang on nothing (pieces: {pieces})',
  },
  'delivery.coplanar': {
    one: '{n} face lies in one of another part and will flicker ({part} and {other})',
    other: '{n} faces lie in those of other parts and will flicker (most of {part} and {other})',
  },
  'delivery.loop': '“{clip}” should loop, but its last pose is not its first: look at “{bone}”',
  'delivery.floor': '{part} sinks {by} cubes in “{clip}”, frame {frame}',
  'delivery.clipsClose': { one: '{n} clip, closed where it loops', other: '{n} clips, closed where they loop' },
  'delivery.hidden': {
    one: '{n} face that nobody sees in any clip (most of {part})',
    other: '{n} faces that nobody sees in any clip (most of {part})',
  },
  'delivery.watertight': 'Watertight: every edge is shared by two triangles',
  'delivery.height': 'It is {high} m high; the target sheet says {wanted} m',
  'delivery.person': 'It is {high} m high beside a person of 1.8 m',
  'delivery.origin': 'Its origin lies well to one side of it',
  'delivery.noCollider': 'It has no collider: things will fall through it',
  'delivery.thin': {
    one: '{n} cube of “{body}” is in a wall thinner than {wall} mm',
    other: '{n} cubes of “{body}” are in walls thinner than {wall} mm',
  },
  'delivery.edges': {
    one: '{n} pair of cubes of “{body}” meets in an edge alone and will break',
    other: '{n} pairs of cubes of “{body}” meet in an edge alone and will break',
  },
  'delivery.bodies': 'It prints as {now} bodies that are not joined',
  'delivery.noFormat': 'Nothing is in this delivery. Tick a format first.',

  // project/edits/attachments.ts
  'name.length': 'A name needs 1 to 120 characters.',

  // project/edits/bring-in.ts
  'bringIn.noBones': '“{source}” has no bones. Bring its parts in one by one instead.',
  'placement.group': 'Group',
  'placement.cube': 'Terrain cube',
  'placement.partGone': 'a part in the bin',
  'placement.assetGone': 'a missing project',
  'bringIn.nothing': 'Nothing came of “{source}”.',
  'bringIn.rigged':
    '“{source}” has bones, so it comes to a scene as a project of its own. Bring it onto the shelf, and place it from there.',
  'bringIn.paletteFull':
    'Not all colours fit the palette “{palette}”: {now} find no free place. Take fewer colours, or give them a palette of their own.',
  'bringIn.turned':
    '“{part}” came back turned by less than a quarter, so its cubes lie on no cubes of it. Bring it in beside instead.',
  'bringIn.noNames': 'No part of “{source}” bears the name of one here. Rename them alike, or bring them in beside.',

  // project/edits/bring-pieces.ts
  'pieces.clipsNeedBones':
    'Clips move bones: let the bones of “{source}” come too, or take its clips over in Animate, from another figure.',

  // project/edits/make-again.ts
  'groups.none': 'There is no group “{group}” any more.',
  'groups.nothing': 'Choose at least one part.',
  'makeAgain.byHand': '“{part}” was made by hand, so there is nothing that it could be made of again.',
  'makeAgain.otherNames': 'Nothing that came bears the name under which “{part}” came first. Bring it in beside.',

  // project/edits/clips.ts
  'clips.lengthAndRate': 'A clip needs at least one frame and 1 to 240 frames per second.',
  'clips.floor': 'The ground of a clip is within 10,000 units of zero, and its steps have a length of 0 or more.',
  'clips.rate': 'Frames per second run from 1 to 240.',
  'clips.length': 'A clip needs at least one frame.',
  'clips.keyOutside': 'A key of “{clip}” stands between its start and its end.',
  'clips.handles': 'The handles of a curve stand between a key and its next.',
  'clips.timeScale': 'Keys are scaled in time by more than 0 and at most 100 times.',
  'clips.noBone': 'None of these keys has a bone in this rig.',
  'clips.notAlternate': 'That part is not one of these alternates.',
  'clips.noNames': 'No bone that moves in “{clip}” bears the name of one here. Rename the bones alike first.',

  // project/edits/constraints.ts
  'constraints.circle':
    '“{bone}” would steer itself in a circle: what it follows hangs on it, or follows it. Choose a bone that does not.',
  'constraints.noChain': '“{bone}” hangs on nothing, so no chain can bend. Choose the end of a limb.',
  'constraints.amount': 'A constraint counts from 0 to 100 %.',
  'constraints.limits': 'The lower limit of “{bone}” lies above the upper one.',
  'constraints.noFarEnd':
    '“{bone}” carries nothing whose end could be found. Mount a part on it, or make a bone at its end.',
  'constraints.shortLimb': '“{bone}” has {above} above it; a limb needs two, such as thigh and shin above a foot.',
  'constraints.hasLimb': '“{bone}” has a limb already.',
  'constraints.noBend': 'Only a limb has a side to bend to.',

  // project/edits/finishes.ts
  'finishes.aboveZero': '{what} needs to be more than zero.',
  'finishes.ramp': 'A ramp is made of swatches of the palette.',
  'finishes.reach': 'Occlusion reaches 1 to {most} cubes.',
  'finishes.joint': 'A joint cannot be thinner than nothing.',

  // project/edits/hand-over.ts
  'handOver.noWhole':
    '“{part}” was not taken from a whole with others, so there is no part beside it to give cubes to.',
  'handOver.noMate': 'These cubes of “{part}” touch no other part of the same whole. Begin at the cut.',
  'handOver.noLayer': '“{mate}” has no open layer to take the cubes. Show and unlock one.',
  'handOver.tooLarge': '“{mate}” would be {size}; a part holds at most {most} cubes along an axis.',

  // project/edits/join-parts.ts
  'joinParts.offGrid':
    '“{part}” stands turned, scaled or between the cubes of “{home}”, so their cubes would not meet. Set its place to whole cubes first.',
  'joinParts.setBack': 'Parts are set back by 0 to 16 whole cubes.',
  'joinParts.locked': 'Layer “{locked}” of “{part}” is locked. Unlock it first.',
  'joinParts.clear': '“{part}” stands clear of “{from}” already.',
  'joinParts.nothingLeft': 'Nothing would be left of “{part}”. Set it back by less.',
  'joinParts.two': 'Choose two parts or more to join.',
  'joinParts.unlike':
    '“{odd}” has other cubes or another palette than “{first}”; only parts with equal ones can be joined.',
  'joinParts.tooLarge': 'Joined, “{first}” would be {size}; a part holds at most {most} cubes along an axis.',

  // project/edits/joints.ts
  'joints.colour': '“{colour}” is not a colour; write it as #rrggbb.',
  'joints.carries':
    '“{bone}” carries parts, so it has to go into files. Only bones that steer others can stay at home.',
  'joints.swing': 'A pose test swings by more than 0 and at most 170 degrees.',
  'joints.nothingMounted': 'No part is mounted on a bone yet, so there is nothing to swing.',

  // project/edits/layers.ts
  'layers.tooMany': '“{part}” would have {count} layers; a part holds {most}. Merge some first.',
  'layers.lowest': '“{upper}” is the lowest layer; there is nothing below to merge it into.',
  'layers.only': '“{layer}” is the only layer of “{part}”. Delete the part, or clear the layer.',
  'layers.itself': '“{part}” cannot be laid over itself.',
  'layers.unlike':
    '“{other}” has other cubes or another palette than “{part}”; both must be alike to become layers of one part.',
  'layers.empty': '“{other}” is empty, so there is nothing to lay over.',
  'layers.noneOfLayer': 'The selection holds no cubes of layer “{layer}”. Choose the layer that has them.',
  'layers.follows':
    '“{part}” follows its other side, so cubes cannot leave it alone. Take them from the other side, or make it independent first.',
  'layers.noneOfPart':
    'The selection holds no cubes of “{part}” that can be taken. Select some, or unlock their layer.',

  // project/edits/mirror-rig.ts
  'branches.none': 'Choose a bone first.',
  'branches.apart':
    '“{bone}” and “{other}” hang on different bones, so no bone can stand above both. Hang them on one bone first.',
  'branches.count': 'From 1 to 64 copies are made at once.',
  'mirrorRig.noSide':
    'No bone is on the {from} side, so there is nothing to mirror. Say which side the bones are on first.',

  // project/edits/palettes.ts
  'palettes.unit': '{what} goes from 0 to 1.',
  'palettes.glow': 'Glow goes from 0 to 1,000.',
  'palettes.full': '“{palette}” is full: a palette holds 255 swatches. Drop the unused ones first.',
  'palettes.room': {
    one: '“{palette}” has room for {n} more swatch, and {left} of these would find no place. Drop unused ones first, or append fewer.',
    other:
      '“{palette}” has room for {n} more swatches, and {left} of these would find no place. Drop unused ones first, or append fewer.',
  },
  'palettes.noSwatch': '“{palette}” has no swatch {byte}.',
  'palettes.last': 'A palette keeps at least one swatch; “{palette}” would have none.',
  'palettes.moveTo': 'Cubes can only move to a swatch that stays in the palette.',
  'palettes.size': 'A palette holds 1 to 255 swatches.',
  'palettes.twice': 'Two swatches of the new palette have the same byte.',

  // project/edits/parts.ts
  'parts.cutsOff': {
    one: 'That size would cut off {n} cube of “{part}”. Confirm the cut, or choose a larger size.',
    other: 'That size would cut off {n} cubes of “{part}”. Confirm the cut, or choose a larger size.',
  },
  'parts.empty': '“{part}” is empty, so there is nothing to fit.',
  'parts.pivot': 'A pivot stands on half cubes: give whole numbers of half cubes.',
  'pivot.empty': '“{part}” is empty, so its pivot has no place to go to. Build something first.',
  'pivot.touchesNone':
    '“{part}” touches no other part where it stands. Move it, or put its pivot in the centre or by hand.',
  'pivot.noCut':
    '“{part}” was not taken off a whole and touches nothing above it. Put its pivot where it touches a neighbour, or by hand.',
  'parts.slightly': 'Slightly is from 50 to 150 %.',

  // project/edits/poses.ts
  'poses.none': 'No bone is turned or moved here, so there is no pose to keep.',

  // project/edits/restore-points.ts
  'restore.name': 'A restore point needs a name, so that it is found again.',

  // project/edits/project.ts
  'project.cube': 'A cube needs a size above zero metres.',
  'project.target': 'A target is a number of zero or more; zero means no limit.',

  // project/edits/ready-rigs.ts
  'readyRigs.noBones': 'There are no bones to seal yet. Make some in Rig first.',
  'readyRigs.range': 'How far joints may move is a number of zero or more.',

  // project/edits/references.ts
  'references.size': 'A reference picture needs a size above zero and an opacity from 0 to 1.',

  // project/edits/regions.ts
  'regions.gone': '“{part}” has no such piece any more.',
  'regions.taken': 'These cubes belong to a piece already, or there are none.',
  'regions.tooMany':
    'That would make {count} pieces; {most} are the most at once. Tidy loose cubes up first, or choose another way.',

  // project/edits/rig.ts
  'rig.circle': '“{bone}” cannot hang on “{parent}”, which already hangs on it.',
  'rig.place': '“{bone}” needs whole or decimal numbers for its place.',
  'rig.scale': 'The scale of “{bone}” must be above zero; mirror it instead of using a negative scale.',

  // project/edits/ring.ts
  'ring.sides': 'A ring has 3 to 64 sides.',
  'ring.hole':
    'The hole of a ring is more than nothing and at most 128 cubes from its middle. Choose longer bars, or fewer sides.',
  'ring.sizes': 'Thickness and depth of a ring are 1 to 128 whole cubes.',
  'ring.crossed': 'Bars can be crossed for an even number of sides only.',
  'ring.tooLong': 'Those bars would be longer than {most} cubes. Choose a smaller hole or more sides.',

  // project/edits/scene-making.ts
  'making.size': 'A block of {size} cubes is too large: {most} along an edge are the most.',
  // project/edits/assets.ts
  'assets.itself': '“{name}” cannot stand in its own scene. Place its figure or its parts instead.',
  'assets.empty': '“{name}” has no figure that could stand here: no part with cubes has a place in its rig.',
  'assets.stands': {
    one: '“{name}” stands in a scene {n} time. Take it out first.',
    other: '“{name}” stands in scenes {n} times. Take it out first.',
  },
  // project/edits/combine.ts
  'combine.two': 'Choose at least two things that have cubes.',
  'combine.figure': '“{name}” is a figure or another project, whose parts move. Combine parts of this project.',
  'combine.colours': {
    one: 'The palette “{palette}” has no room for {n} more colour. Drop unused swatches first.',
    other: 'The palette “{palette}” has no room for {n} more colours. Drop unused swatches first.',
  },
  'combine.far':
    'Together they would be {size} cubes, more than {most} pieces of a part’s size. Bring them nearer, or combine fewer.',
  'combine.nothing': 'Nothing would be left: they share no cube, or one covers the other.',
  'combine.twin': 'The part “{part}” follows its other side. Make it independent first.',
  'combine.tooLarge':
    'The part “{part}” would be {size} cubes; a part is {most} at most. Combine them in a scene, where they come in tiles.',
  'combine.onePiece': 'The cubes of “{part}” all hang together. Cut it apart first.',
  'combine.manyPieces': '“{part}” would fall into {count} pieces; {most} at once are the most. Find loose cubes first.',
  // project/edits/scenes.ts
  'scenes.tooMany': '“{scene}” would hold {count} placements; {most} is the most. Use repeats, or another scene.',
  'scenes.circle': 'A placement cannot hang on itself or on what hangs on it.',
  'scenes.nothing': 'Choose at least one placement.',
  'scenes.noPart': 'None of these shows a part of this project, so there is nothing to copy.',
  'scenes.twinAcross': 'The part “{part}” is an image across another axis already. Make it independent first.',
  'scenes.noImage':
    '“{name}” is a figure, and a figure of its own cannot be an image. Let the repeat stay, or mirror the figure in its project.',
  'scenes.manyLamps': '“{scene}” holds {most} lamps, which is the most. Let swatches glow instead.',
  'scenes.lastLayer': 'A scene has at least one layer. Add another one first.',
  'scenes.scale': 'A size is above zero; mirror the part instead.',

  // project/edits/shots.ts
  'shots.size': 'A picture can be 1 to 8,192 pixels along each edge.',
  'shots.samples': 'A picture takes 1 to 65,536 samples a pixel.',

  // project/edits/stamps.ts
  'stamps.empty': 'There are no cubes to make a stamp of. Select some first.',

  // project/edits/strokes.ts
  'strokes.locked': 'Layer “{layer}” of “{part}” is locked. Unlock it to change its cubes.',
  'strokes.hidden': 'Layer “{layer}” of “{part}” is hidden. Show it to change its cubes.',
  'strokes.noSwatch': 'Swatch {value} does not exist; bytes run from 1 to 255.',
  'strokes.tooLarge':
    '“{part}” would need {size} cubes; a part holds at most {most} along an axis. Draw smaller, or use a second part.',

  // project/edits/take-apart.ts
  'takeApart.plug': 'A plug goes in 0 to 32 whole cubes.',
  'takeApart.clearance': 'Clearance is 0 to 32 whole cubes.',
  'takeApart.noCubes': 'No piece holds a cube of “{part}”. Choose some cubes for each piece first.',
  'takeApart.coarser':
    '“{old}” has larger cubes than the whole it was taken from. Undo its coarsening, or delete it, and take the whole apart again.',

  // project/edits/standing.ts
  'standing.noCubes': 'Nothing stands here that has cubes. Draw something first.',

  // project/edits/twins.ts
  'twins.itself': '“{part}” cannot follow itself.',
  'twins.chain': '“{source}” follows another part already; choose that one, or make “{source}” independent first.',
  'twins.followed': 'Another part follows “{part}”; make that one independent first.',

  // project/edits/volumes.ts
  'volumes.tooLarge':
    '“{part}” would be {size}; a part holds at most {most} cubes along an axis. Shrink it to fit first, or choose a smaller size.',
  'volumes.empty': '“{part}” is empty, so there is nothing to centre.',
  'volumes.thin': '“{part}” is one cube wide there; its last row cannot be taken out.',
  'volumes.size': 'A size is whole cubes, 1 or more along each axis.',

  // files/importers/palette/index.ts
  'importPalette.refused': '“{title}” was not taken. {message}',

  // files/importers/reference/index.ts
  'importReference.unreadable': '“{name}” cannot be read as a picture. Use a PNG, JPEG or WebP file.',

  // project/checks.ts
  'checks.unmounted': '{part} hangs on no bone, so no clip moves it.',
  'checks.mountedTwice': '{part} hangs on {on} bones.',
  'checks.carriesNothing': '{bone} carries nothing.',
  'checks.otherSide': '{bone} stands on the other side: a character’s own left is +X.',
  'checks.farFromJoint': '{part} stands far from the joint of {bone}.',
  'checks.sidesDiffer': {
    one: '{part} has {n} cube, its other side {other}.',
    other: '{part} has {n} cubes, its other side {other}.',
  },
  'checks.tooManyBones': {
    one: '{n} bone; the target sheet allows {most}.',
    other: '{n} bones; the target sheet allows {most}.',
  },
  'checks.empty': '{part} is empty and stays out of the file.',
  'checks.noKeys': 'Clip “{clip}” has no keys and stays out of the file.',

  // Labels of edits that count
  'label.stroke.add': '{what} of {swatch}',
  'label.stroke.paint': '{what} painted {swatch}',
  'label.stroke.erase': '{what} erased',
  'label.shapes': { one: '{n} shape', other: '{n} shapes' },
  'label.cubes': { one: '{n} cube', other: '{n} cubes' },
  'label.cube': 'Cube',
  'label.brush': 'Brush',
  'label.shape.box': 'Box {size}',
  'label.shape.ellipsoid': 'Ellipsoid {size}',
  'label.profile.straight': 'Cylinder {size}',
  'label.profile.taper': 'Taper {size}',
  'label.profile.cone': 'Cone {size}',
  'label.profile.dome': 'Dome {size}',
  'label.profile.egg': 'Egg {size}',
  'label.shape.line': 'Line {size}',
  'label.shape.steps': 'Steps {size}',
  'label.shape.curve': 'Curve {size}',
  'label.deleteUnmounted': {
    one: 'Delete {n} part that hangs on no bone',
    other: 'Delete {n} parts that hang on no bone',
  },
  'label.removeKeys': { one: 'Remove a key', other: 'Remove {n} keys' },
  'label.moveKeys': { one: 'Move a key', other: 'Move {n} keys' },
  'label.retimeClip': 'Retime {clip} to {percent} %',
  'label.scaleKeys': { one: 'Scale a key in time by {percent} %', other: 'Scale {n} keys in time by {percent} %' },
  'label.pasteKeys': { one: 'Paste a key', other: 'Paste {n} keys' },
  'label.appendSwatches': { one: 'Append a swatch', other: 'Append {n} swatches' },
  'label.joinParts': { one: 'Join a part', other: 'Join {n} parts' },
  'label.standOnFloor': 'Stand everything on the floor',
  'label.shrinkParts': { one: 'Shrink a part to fit', other: 'Shrink {n} parts to fit' },
  'label.replaceParts': { one: 'Replace a part by that of {source}', other: 'Replace {n} parts by those of {source}' },
  'label.bringToScene': {
    one: 'Bring {name} into {scene}',
    other: 'Bring {name} into {scene}, {n} parts',
  },
  'label.bringParts': { one: 'Bring in {name}', other: 'Bring in {n} parts, {name} first' },
  'label.placeParts': { one: 'Move a part in the list', other: 'Move {n} parts in the list' },
  'label.groupParts': { one: 'Group a part', other: 'Group {n} parts' },
  'label.renamePartGroup': 'Rename the group {group} to {name}',
  'label.ungroupParts': 'Ungroup {group}',
  'label.removePlacements': { one: 'Take a placement out of {scene}', other: 'Take {n} placements out of {scene}' },
  'label.hangPlacements': {
    one: 'Hang a placement elsewhere in {scene}',
    other: 'Hang {n} placements elsewhere in {scene}',
  },
  'label.groupPlacements': { one: 'Group a placement in {scene}', other: 'Group {n} placements in {scene}' },
  'label.duplicatePlacements': {
    one: 'Duplicate a placement in {scene}',
    other: 'Duplicate {n} placements in {scene}',
  },
  'label.ownParts': { one: 'A part of its own in {scene}', other: 'Parts of their own in {scene}' },
  'label.swapPlacements': { one: 'Swap a placement in {scene}', other: 'Swap {n} placements in {scene}' },
  'label.newPartHere': 'New part {name} in {scene}',
  'label.addBlock': 'New block in {scene}',
  'label.addRoom': 'New room in {scene}',
  'label.addGround': 'New ground in {scene}',
  'label.refit': 'Refit to the cubes of {scene}',
  'label.addLamp': 'New lamp in {scene}',
  'label.changeLamps': { one: 'Change {n} lamp in {scene}', other: 'Change {n} lamps in {scene}' },
  'label.removeLamps': { one: 'Remove {n} lamp from {scene}', other: 'Remove {n} lamps from {scene}' },
  'label.embedProject': 'Take {name} into the project',
  'label.refreshAsset': 'Bring {name} up to date',
  'label.removeAsset': 'Let {name} go',
  'label.placeStamp': 'Place the stamp {name}',
  'label.keepAsStamp': 'Keep {name} as a stamp',
  'label.sortStampsByName': 'Sort stamps by name',
  'label.sortStampsBySize': 'Sort stamps by size',
  'label.linkParts': { one: 'Link {n} part with {name}', other: 'Link {n} parts with {name}' },
  'label.unite': 'Unite in {where}',
  'label.subtract': 'Subtract in {where}',
  'label.intersect': 'Intersect in {where}',
  'label.carve': 'Cut overlaps in {where}',
  'label.split': 'Split into pieces in {where}',
  'label.repeat': 'Repeat in {scene}',
  'label.placeRepeated': 'Place along a stroke in {scene}',
  'label.endRepeat': 'Repeat no more in {scene}',
  'label.repeatException': 'One copy apart in {scene}',
  'label.clearExceptions': 'No exceptions in {scene}',
  'label.breakRepeat': 'Break a repeat in {scene}',
  'label.addSceneLayer': 'New layer {name}',
  'label.changeSceneLayer': 'Change a layer of {scene}',
  'label.removeSceneLayer': 'Remove a layer of {scene}',
  'label.bringPieces': 'Take from {source}',
  'label.makeAgain': 'Make {part} again',
  'label.takeHome': 'Take home {source}',
  'label.mountParts': { one: 'Mount a part', other: 'Mount {n} parts' },

  // files/notes.ts
  'note.noPalette': 'There is no palette here to match; its own colours were taken.',
  'note.fileMissing': '“{about}” was not given; drop it too and it is used.',
  'note.pictureUnread': 'The picture “{about}” cannot be decoded and was left out.',
  'note.trianglesLost': {
    one: 'A triangle was nowhere and was left out.',
    other: '{n} triangles were nowhere and were left out.',
  },
  'note.partHidden': '“{about}” is hidden and was left out.',
  'note.partEmpty': '“{about}” is empty and was left out.',
  'note.layersHidden': 'Hidden layers of “{about}” were left out.',
  'note.panelAsSpot': 'Light of a panel has no form in this format; it was written as a spot.',
  'note.placementsHidden': { one: '{n} hidden placement was left out.', other: '{n} hidden placements were left out.' },
  'note.cubesLeft': {
    one: '{n} terrain cube was left out; it ships with its set.',
    other: '{n} terrain cubes were left out; they ship with their set.',
  },
  'note.squared':
    '“{about}” leans under uneven scaling, which files of this kind cannot hold; it stands square in the file.',
  'note.clipsLost': { one: '{n} clip is not in this kind of file.', other: '{n} clips are not in this kind of file.' },
  'note.clipsJoined': {
    one: 'One object has no bones, so {n} clip was left out.',
    other: 'One object has no bones, so {n} clips were left out.',
  },
  'note.bodiesApart': {
    one: 'One body: every part’s cubes meet those of the others.',
    other:
      '{n} bodies, since not every part’s cubes meet those of the others: some are turned, scaled or half a cube aside.',
  },
  'note.clipEmpty': 'Clip “{about}” has no keys and was left out.',
  'note.controlsLeft': {
    one: '{n} bone that only steers others was left out; what it does is in the clips.',
    other: '{n} bones that only steer others were left out; what they do is in the clips.',
  },
  'note.entriesSpare': {
    one: '{n} file in the project file belongs to nothing and was left out.',
    other: '{n} files in the project file belong to nothing and were left out.',
  },
  'note.surfacesLost': {
    one: 'Gloss, metal and glow of {n} swatch are not in this kind of file.',
    other: 'Gloss, metal and glow of {n} swatches are not in this kind of file.',
  },
} as const satisfies Readonly<Record<string, Entry>>;
