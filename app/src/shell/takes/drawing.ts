import type { Project, Shot } from '@sphalerite/core/model';
import { type DrawnFilm, type FilmLight, isDrawn, shotDrawing } from '@sphalerite/core/render';
import { PictureDrawer } from '../../viewport/picture-drawer';
import type { SentBricks } from '../../workers/packed';
import { sharedPool } from '../../workers/pool';
import { JobCancelled } from '../../workers/protocol';

const order = (project: Project, shot: Shot, film: DrawnFilm) => (sent: SentBricks) => ({
  project: sent.packProject(project),
  shot: JSON.parse(JSON.stringify(shot)) as Shot,
  film,
});

/** Pictures of shots as a view draws them: drawn on the page one after another, put before their background and written by workers. */
export class Drawing {
  private readonly drawer = new PictureDrawer((grid, chunks) =>
    sharedPool().run('mesh', (sent) => ({ grid: sent.packGrid(grid), chunks })),
  );
  private last: Promise<unknown> = Promise.resolve();

  /** One picture as a PNG. @throws JobCancelled when it is stopped */
  async png(project: Project, shot: Shot, groundAlone: boolean, signal: AbortSignal): Promise<Uint8Array<ArrayBuffer>> {
    const film = await this.drawn(project, shot, groundAlone, signal);
    return sharedPool().run('drawnFrame', order(project, shot, film), { signal });
  }
  /** One as a film, not graded yet. @throws JobCancelled when it is stopped */
  async film(project: Project, shot: Shot, signal: AbortSignal): Promise<FilmLight> {
    const film = await this.drawn(project, shot, false, signal);
    return sharedPool().run('drawnFilm', order(project, shot, film), { signal });
  }

  private drawn(project: Project, shot: Shot, groundAlone: boolean, signal: AbortSignal): Promise<DrawnFilm> {
    const { list, floor, ...light } = shotDrawing(project, shot);
    const ground = shot.stage.ground.kind;
    const drawn = this.last.then(() => {
      // What was stopped while it waited is not drawn for nothing.
      if (signal.aborted) throw new JobCancelled();
      return this.drawer.draw({
        ...{ list, ...light, groundAlone, camera: shot.camera, size: shot.output.size, guided: isDrawn(shot.grade) },
        glow: shot.light.glow.strength,
        floor: ground === 'none' ? null : floor,
      });
    });
    this.last = drawn.catch(() => undefined);
    return drawn;
  }

  dispose(): void {
    void this.last.then(() => this.drawer.dispose());
  }
}
