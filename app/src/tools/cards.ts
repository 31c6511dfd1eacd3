import { BoxTool } from './box-tool';
import { ExtrudeTool } from './extrude-tool';
import { PointTool } from './point-tool';
import type { Reach, Tool, ToolCard } from './tool';

/** The cards that lie ready on the bench, on the number keys. */
export const READY_CARDS: readonly ToolCard[] = [
  { name: 'Add box', verb: 'add', reach: 'box', face: 'face' },
  { name: 'Add point', verb: 'add', reach: 'point', face: 'face' },
  { name: 'Extrude', verb: 'add', reach: 'extrude', face: 'face' },
  { name: 'Erase box', verb: 'erase', reach: 'box', face: 'face' },
  { name: 'Erase point', verb: 'erase', reach: 'point', face: 'face' },
  { name: 'Paint point', verb: 'paint', reach: 'point', face: 'face' },
  { name: 'Paint box', verb: 'paint', reach: 'box', face: 'face' },
  { name: 'Extrude hue', verb: 'add', reach: 'extrude', face: 'colour' },
];

export function makeTool(reach: Reach): Tool {
  switch (reach) {
    case 'point': return new PointTool();
    case 'box': return new BoxTool();
    case 'extrude': return new ExtrudeTool();
  }
}
