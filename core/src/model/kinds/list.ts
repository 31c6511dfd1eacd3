import { assetKind } from './asset';
import { blobKind } from './blob';
import { clipKind } from './clip';
import { colourwayKind } from './colourway';
import { deliveryProfileKind } from './delivery-profile';
import { importKind } from './import';
import { paletteKind } from './palette';
import { partKind, stampKind } from './part';
import { poseKind } from './pose';
import { referenceKind } from './reference';
import { restorePointKind } from './restore-point';
import { sceneKind } from './scene';
import { shotKind } from './shot';
import { terrainSetKind } from './terrain-cube';

/** The kinds of record that stand in lists of the project, in the order in which files have them. */
export const RECORD_KINDS = [
  paletteKind,
  partKind,
  clipKind,
  poseKind,
  shotKind,
  stampKind,
  referenceKind,
  colourwayKind,
  sceneKind,
  terrainSetKind,
  assetKind,
  deliveryProfileKind,
  importKind,
  blobKind,
  restorePointKind,
] as const;
