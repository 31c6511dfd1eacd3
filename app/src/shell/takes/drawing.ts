import type { Project, Shot } from '@sphalerite/core/model';
import { isDrawn, shotDrawing } from '@sphalerite/core/render';
import { PictureDrawer } from '../../viewport/picture-drawer';
import { sharedPool } from '../../workers/pool';

/** Pictures of shots as a view draws them: drawn on the page one after another, put before their background and written by workers. */
export class Drawing {
  private readonly drawer = new PictureDrawer((grid, chunks) =>
    sharedPool().run('mesh', (sent) => ({ grid: sent.packGrid(grid), chunks })),
  );
  private last: Promise<unknown> = Promise.resolve();

  /** One picture as a PNG. @throws JobCancelled when it is stopped */
  async png(project: Project, shot: Shot, groundAlone: boolean, signal: AbortSignal): Promise<Uint8Array<ArrayBuffer>> {
    const { list, floor, ...light } = shotDrawing(project, shot);
    const ground = shot.stage.ground.kind;
    const drawn = this.last.then(() =>
      this.drawer.draw({
        ...{ list, ...light, groundAlone, camera: shot.camera, size: shot.output.size, guided: isDrawn(shot.grade) },
        glow: shot.light.glow.strength,
        floor: ground === 'none' ? null : floor,
      }),
    );
    this.last = drawn.catch(() => undefined);
    const film = await drawn;
    const plain = JSON.parse(JSON.stringify(shot)) as Shot;
    return sharedPool().run('drawnFrame', (sent) => ({ project: sent.packProject(project), shot: plain, film }), {
      signal,
    });
  }

  dispose(): void {
    void this.last.then(() => this.drawer.dispose());
  }
}
