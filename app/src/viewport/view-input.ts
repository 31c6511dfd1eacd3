import type { Viewport, WorldRay } from './viewport';

export interface ViewPointer {
  readonly ray: WorldRay;
  readonly x: number;
  readonly y: number;
  readonly shift: boolean;
  readonly alt: boolean;
  readonly ctrl: boolean;
}

/** What a screen does with the pointer; it says whether a press was meant for it. */
export interface PointerUser {
  /** Gives true when the press is work, not for the camera. */
  down(p: ViewPointer): boolean;
  /** @param settle – false for the samples between two places of a quick stroke: nothing needs to be shown yet */
  move(p: ViewPointer, settle: boolean): void;
  up(p: ViewPointer): void;
  /** A press that was not work and did not move: a plain click. */
  click?(p: ViewPointer): void;
  /** A double click on what is no work. */
  open?(p: ViewPointer): void;
  leave(): void;
  /** Gives true when a turn of the wheel was meant for it. */
  wheel?(p: { readonly by: number; readonly alt: boolean; readonly ctrl: boolean }): boolean;
  cancel(): void;
}

/** Pixels between two samples of a quick stroke, so that it leaves no gaps. */
const STEP = 4;

/**
 * Pointer and wheel over the view: left on cubes works, left on empty ground or with Space orbits, with Shift
 * too pans, the wheel zooms to the cursor; the right button orbits and the middle one pans anywhere.
 */
export class ViewInput {
  private mode: 'none' | 'work' | 'orbit' | 'pan' = 'none';
  private last = { x: 0, y: 0 };
  private start = { x: 0, y: 0 };
  private space = false;
  private readonly touches = new Map<number, { x: number; y: number }>();
  private readonly off: (() => void)[] = [];

  /** @param onMenu – a right click that did not turn the view */
  constructor(
    private readonly view: Viewport,
    private readonly user: () => PointerUser | null,
    private readonly onMenu: (e: PointerEvent) => void,
  ) {
    const c = view.canvas;
    c.style.touchAction = 'none';
    this.on(c, 'pointerdown', (e) => this.down(e));
    this.on(c, 'pointermove', (e) => this.move(e));
    this.on(c, 'pointerup', (e) => this.up(e));
    this.on(c, 'pointercancel', (e) => this.abort(e));
    // Else a double click would mark words all over the page.
    this.on(c, 'mousedown', (e) => e.preventDefault());
    this.on(c, 'dblclick', (e) => this.user()?.open?.(this.pointer(e)));
    this.on(c, 'pointerleave', () => this.mode === 'none' && this.user()?.leave());
    this.on(c, 'wheel', (e) => this.wheel(e));
    this.on(c, 'contextmenu', (e) => e.preventDefault());
    this.on(window, 'keydown', (e) => {
      // On a button Space presses it, as everywhere.
      if (e.code === 'Space' && (e.target === document.body || e.target === c)) {
        this.space = true;
        e.preventDefault();
      }
    });
    this.on(window, 'keyup', (e) => {
      if (e.code === 'Space') this.space = false;
    });
  }

  dispose(): void {
    for (const off of this.off) off();
  }

  private on<K extends keyof (HTMLElementEventMap & WindowEventMap)>(
    target: EventTarget,
    type: K,
    f: (e: (HTMLElementEventMap & WindowEventMap)[K]) => void,
  ): void {
    target.addEventListener(type, f as EventListener, { passive: false });
    this.off.push(() => target.removeEventListener(type, f as EventListener));
  }

  private pointer(e: MouseEvent, x = e.clientX, y = e.clientY): ViewPointer {
    return { ray: this.view.rayAt(x, y), x, y, shift: e.shiftKey, alt: e.altKey, ctrl: e.ctrlKey || e.metaKey };
  }

  private down(e: PointerEvent): void {
    this.view.canvas.focus({ preventScroll: true });
    if (e.pointerType === 'touch') {
      this.touches.set(e.pointerId, { x: e.clientX, y: e.clientY });
      if (this.touches.size === 2) {
        if (this.mode === 'work') this.user()?.cancel();
        this.mode = 'pan';
        return;
      }
    }
    if (this.mode !== 'none') return;
    this.view.canvas.setPointerCapture(e.pointerId);
    this.last = this.start = { x: e.clientX, y: e.clientY };
    if (e.button === 1) this.mode = 'pan';
    else if (e.button === 2) this.mode = 'orbit';
    else if (this.space) this.mode = e.shiftKey ? 'pan' : 'orbit';
    else if (this.user()?.down(this.pointer(e))) this.mode = 'work';
    else this.mode = e.shiftKey ? 'pan' : 'orbit';
    e.preventDefault();
  }

  private move(e: PointerEvent): void {
    if (this.touches.has(e.pointerId) && this.touches.size === 2) {
      this.pinch(e);
      return;
    }
    const dx = e.clientX - this.last.x,
      dy = e.clientY - this.last.y;
    if (this.mode === 'orbit') {
      this.view.camera.turn(dx, dy);
      this.view.invalidate();
    } else if (this.mode === 'pan') {
      this.view.camera.pan(dx, dy, this.view.size.height);
      this.view.invalidate();
    } else {
      const steps = this.mode === 'work' ? Math.min(200, Math.max(1, Math.ceil(Math.hypot(dx, dy) / STEP))) : 1;
      for (let i = 1; i <= steps; i++) {
        this.user()?.move(this.pointer(e, this.last.x + (dx * i) / steps, this.last.y + (dy * i) / steps), i === steps);
      }
    }
    this.last = { x: e.clientX, y: e.clientY };
  }

  private up(e: PointerEvent): void {
    this.touches.delete(e.pointerId);
    const still = Math.hypot(e.clientX - this.start.x, e.clientY - this.start.y) < 4;
    if (this.mode === 'work') this.user()?.up(this.pointer(e));
    else if (this.mode === 'orbit' && still && e.button === 0) this.user()?.click?.(this.pointer(e));
    else if (this.mode === 'orbit' && still && e.button === 2) this.onMenu(e);
    this.mode = 'none';
  }

  private abort(e: PointerEvent): void {
    this.touches.delete(e.pointerId);
    if (this.mode === 'work') this.user()?.cancel();
    this.mode = 'none';
  }

  private pinch(e: PointerEvent): void {
    const other = [...this.touches].find(([id]) => id !== e.pointerId)![1];
    const before = this.touches.get(e.pointerId)!;
    const d0 = Math.hypot(before.x - other.x, before.y - other.y),
      d1 = Math.hypot(e.clientX - other.x, e.clientY - other.y);
    this.view.camera.pan((e.clientX - before.x) / 2, (e.clientY - before.y) / 2, this.view.size.height);
    if (d1 > 0) this.view.camera.zoom(d0 / d1);
    this.touches.set(e.pointerId, { x: e.clientX, y: e.clientY });
    this.view.invalidate();
  }

  private wheel(e: WheelEvent): void {
    e.preventDefault();
    if (this.user()?.wheel?.({ by: e.deltaY, alt: e.altKey, ctrl: e.ctrlKey })) return;
    const box = this.view.canvas.getBoundingClientRect();
    const u = ((e.clientX - box.left) / box.width) * 2 - 1,
      v = 1 - ((e.clientY - box.top) / box.height) * 2;
    this.view.camera.zoom(Math.exp(Math.max(-60, Math.min(60, e.deltaY)) * 0.0022), u, v, this.view.aspect);
    this.view.invalidate();
  }
}
