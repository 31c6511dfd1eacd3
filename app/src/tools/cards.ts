import type { Reach } from './card';
import { DabTool } from './dab-tool';
import { ExtrudeTool } from './extrude-tool';
import { FillTool } from './fill-tool';
import { LineTool } from './line-tool';
import { OpeningTool } from './opening-tool';
import { SolidTool } from './solid-tool';
import { StampTool } from './stamp-tool';
import type { Tool } from './tool';

export function makeTool(reach: Reach): Tool {
  switch (reach) {
    case 'point':
    case 'brush':
      return new DabTool();
    case 'line':
      return new LineTool();
    case 'box':
    case 'ellipsoid':
    case 'cylinder':
      return new SolidTool();
    case 'extrude':
      return new ExtrudeTool();
    case 'fill':
      return new FillTool();
    case 'stamp':
      return new StampTool();
    case 'opening':
      return new OpeningTool();
  }
}
