import { type ToolCard, makeCard } from './card';

/** Cards to take from when one wants another; each can be changed afterwards. */
export const MORE_CARDS: readonly ToolCard[] = [
  makeCard('Erase point', 'erase', 'point'),
  makeCard('Paint point', 'paint', 'point'),
  makeCard('Paint box', 'paint', 'box'),
  makeCard('Add brush', 'add', 'brush', { grow: true }),
  makeCard('Erase brush', 'erase', 'brush'),
  makeCard('Line', 'add', 'line', { size: 1, tip: 'cube' }),
  makeCard('Step line', 'add', 'line', { path: 'steps', size: 1, tip: 'cube' }),
  makeCard('Curve', 'add', 'line', { path: 'curve', size: 1, tip: 'cube' }),
  makeCard('Ball', 'add', 'ellipsoid', { equal: true }),
  makeCard('Ellipsoid', 'add', 'ellipsoid'),
  makeCard('Cylinder', 'add', 'cylinder'),
  makeCard('Cone', 'add', 'cylinder', { profile: 'cone' }),
  makeCard('Egg', 'add', 'cylinder', { profile: 'egg' }),
  makeCard('Tube', 'add', 'cylinder', { wall: 1 }),
  makeCard('Hollow box', 'add', 'box', { wall: 1, open: false }),
  makeCard('Extrude hue', 'add', 'extrude', { face: 'colour', grow: true }),
  makeCard('Window', 'add', 'opening'),
  makeCard('Door', 'add', 'opening', { sill: false }),
  makeCard('Stamp', 'add', 'stamp'),
  makeCard('Fill space', 'add', 'fill', { region: 'space' }),
  makeCard('Select piece', 'select', 'fill', { region: 'connected' }),
  makeCard('Select hue', 'select', 'fill', { region: 'all of colour' }),
  makeCard('Select brush', 'select', 'brush'),
  makeCard('Select face', 'select', 'fill', { region: 'face' }),
];
