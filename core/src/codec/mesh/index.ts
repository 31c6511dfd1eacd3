export * from './mesh-scene';
export { readGltf, isGlb } from './gltf';
export { readObj } from './obj';
export { mtlSurfaces, type MtlSurface } from './mtl';
export { type Points, type PlyContent, readPly, isPly } from './ply';
export { readStl } from './stl';
export { Scanner } from './scanner';
export { looksLikePoints, readXyz } from './xyz';
