import { PLAIN_PROFILE, gatherShipped } from '@sphalerite/core/files';
import { composite } from '@sphalerite/core/model';
import Module from 'manifold-3d';
import { describe, expect, it } from 'vitest';
import { DEMOS } from '.';

describe('every demo project, watertight', () => {
  it.each(['tamsin', 'oswin-rigged', 'lamp-post', 'row-boat'])(
    'parts of %s are solids as large as their cubes, whatever is merged, to an independent geometry library',
    async (name) => {
      const lib = await Module();
      lib.setup();
      const project = DEMOS[name]!();
      for (const merge of ['colour', 'slot', 'all'] as const) {
        const model = gatherShipped(
          project,
          { of: 'rig' },
          {
            ...PLAIN_PROFILE,
            mesh: { ...PLAIN_PROFILE.mesh, merge, watertight: true },
            collider: { ...PLAIN_PROFILE.collider, shape: 'none' },
          },
        );
        for (const { part: id, pieces } of model.meshes) {
          const part = project.parts.find((p) => p.id === id)!;
          const cube = (part.cell * project.metresPerUnit) ** 3;
          const helpers = new Set(
            project.palettes.flatMap((p) => p.swatches.filter((s) => s.helper).map((s) => s.byte)),
          );
          let cubes = 0;
          composite(part).forEach((_x, _y, _z, v) => (cubes += helpers.has(v) ? 0 : 1));
          let volume = 0;
          // Solid and see-through are bodies of their own.
          for (const clear of [false, true]) {
            const positions: number[] = [],
              triangles: number[] = [];
            for (const { shape, material } of pieces) {
              if ((model.materials[material]!.transparent !== null) !== clear) continue;
              const first = positions.length / 3;
              positions.push(...model.shapes[shape]!.positions);
              triangles.push(...[...model.shapes[shape]!.indices].map((i) => i + first));
            }
            if (triangles.length === 0) continue;
            const mesh = new lib.Mesh({
              numProp: 3,
              vertProperties: Float32Array.from(positions),
              triVerts: Uint32Array.from(triangles),
            });
            mesh.merge();
            const solid = new lib.Manifold(mesh);
            expect(solid.status(), `${part.name} ${merge}`).toBe('NoError');
            volume += solid.volume();
          }
          // Of a thousandth: the library joins corners that touch.
          expect(volume / cube / cubes, `${part.name} ${merge}`).toBeCloseTo(1, 3);
        }
      }
    },
  );
});
