export { type MeshOptions, type MeshPart, type MeshBody, MESH_UNITS, meshOptions, meshSteps } from './mesh';
export { nodeWorlds } from './scene-frame';
export { type PointsBody, pointsSteps } from './points';
