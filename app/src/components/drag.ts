import { type Directive, shallowReactive } from 'vue';

/** Things on their way from one place of the interface to another. */
export interface Dragged {
  readonly kind:
    'part' | 'bone' | 'layer' | 'colourway' | 'tool' | 'placement' | 'asset' | 'stamp' | 'project' | 'shot';
  readonly ids: readonly string[];
  /** Said beside the pointer. */
  readonly label: string;
}
/** Where beside a row it would come to lie, or on it. */
export type Place = 'before' | 'on' | 'after';
export interface DropTarget {
  /** What is not accepted here goes to what stands around. */
  accepts(what: Dragged, place: Place): boolean;
  /** Whether one can drop between rows; else everything is dropped on them. */
  readonly between?: boolean;
  /** With `between`: whether one can drop on the row too. */
  readonly on?: boolean;
  drop(what: Dragged, at: { readonly place: Place; readonly clientX: number; readonly clientY: number }): void;
}

/** What is dragged now, and over what. One hand drags one thing: this is of the whole page. */
export const drag = shallowReactive<{
  what: Dragged | null;
  x: number;
  y: number;
  over: HTMLElement | null;
  place: Place;
}>({ what: null, x: 0, y: 0, over: null, place: 'on' });

/** Pixels after which a press is a drag. */
const SLACK = 5;
/** Milliseconds a finger rests before it takes hold; sooner, it scrolls. */
const HOLD = 350;
const targets = new WeakMap<Element, DropTarget>();
const sources = new WeakMap<Element, () => Dragged | null>();

function placeIn(el: Element, target: DropTarget, y: number): Place {
  if (!target.between) return 'on';
  const { top, height } = el.getBoundingClientRect();
  const at = (y - top) / height;
  if (target.on === false) return at < 0.5 ? 'before' : 'after';
  return at < 0.28 ? 'before' : at > 0.72 ? 'after' : 'on';
}
/** The innermost target under a point that takes what is dragged. */
function targetAt(what: Dragged, x: number, y: number): { el: HTMLElement; target: DropTarget; place: Place } | null {
  for (let el = document.elementFromPoint(x, y); el; el = el.parentElement) {
    const target = targets.get(el);
    if (!target) continue;
    const place = placeIn(el, target, y);
    if (target.accepts(what, place)) return { el: el as HTMLElement, target, place };
  }
  return null;
}
function show(el: HTMLElement | null, place: Place): void {
  if (drag.over !== el) drag.over?.removeAttribute('data-over');
  drag.over = el;
  drag.place = place;
  el?.setAttribute('data-over', place);
}

/** Follows a press until it is let go; a drag begins once it has moved, or a finger has rested. */
function press(e: PointerEvent, source: () => Dragged | null): void {
  const touch = e.pointerType === 'touch';
  const timer = touch ? setTimeout(() => begin(), HOLD) : undefined;
  function begin(): void {
    const what = source();
    if (!what) {
      end();
      return;
    }
    drag.what = what;
    drag.x = e.clientX;
    drag.y = e.clientY;
    document.documentElement.classList.add('dragging');
  }
  function move(m: PointerEvent): void {
    if (m.pointerId !== e.pointerId) return;
    if (!drag.what) {
      if (Math.hypot(m.clientX - e.clientX, m.clientY - e.clientY) < SLACK) return;
      if (touch) end();
      else begin();
    }
    if (!drag.what) return;
    drag.x = m.clientX;
    drag.y = m.clientY;
    const there = targetAt(drag.what, m.clientX, m.clientY);
    show(there?.el ?? null, there?.place ?? 'on');
  }
  function up(m: PointerEvent): void {
    if (m.pointerId !== e.pointerId) return;
    const what = drag.what;
    const there = what && targetAt(what, m.clientX, m.clientY);
    end();
    if (!what) return;
    // The click that follows was not meant.
    addEventListener('click', stop, { capture: true, once: true });
    setTimeout(() => removeEventListener('click', stop, { capture: true }));
    there?.target.drop(what, { place: there.place, clientX: m.clientX, clientY: m.clientY });
  }
  const key = (k: KeyboardEvent): void => {
    if (k.key !== 'Escape' || !drag.what) return;
    k.stopPropagation();
    end();
  };
  const scroll = (t: TouchEvent): void => {
    if (drag.what && t.cancelable) t.preventDefault();
  };
  function end(): void {
    clearTimeout(timer);
    show(null, 'on');
    drag.what = null;
    document.documentElement.classList.remove('dragging');
    removeEventListener('pointermove', move);
    removeEventListener('pointerup', up);
    removeEventListener('pointercancel', end);
    removeEventListener('keydown', key, { capture: true });
    removeEventListener('touchmove', scroll);
  }
  addEventListener('pointermove', move);
  addEventListener('pointerup', up);
  addEventListener('pointercancel', end);
  addEventListener('keydown', key, { capture: true });
  addEventListener('touchmove', scroll, { passive: false });
}
const stop = (e: Event): void => {
  e.stopPropagation();
  e.preventDefault();
};
function down(e: PointerEvent): void {
  const source = sources.get(e.currentTarget as Element);
  // A drag that begins in a field is for the text in it.
  if (source && e.button === 0 && !(e.target instanceof HTMLInputElement)) press(e, source);
}

/** Makes an element draggable by mouse, pen and finger: `v-drag="() => ({ kind, ids, label })"`. */
export const vDrag: Directive<HTMLElement, () => Dragged | null> = {
  mounted(el, { value }) {
    sources.set(el, value);
    el.addEventListener('pointerdown', down);
    // A picture in it would be dragged by the browser, as a file.
    el.addEventListener('dragstart', stop);
  },
  updated: (el, { value }) => void sources.set(el, value),
  unmounted(el) {
    el.removeEventListener('pointerdown', down);
    el.removeEventListener('dragstart', stop);
  },
};
/** Makes an element take what is dragged: `v-drop="target"`. */
export const vDrop: Directive<HTMLElement, DropTarget> = {
  mounted: (el, { value }) => void targets.set(el, value),
  updated: (el, { value }) => void targets.set(el, value),
  unmounted: (el) => void targets.delete(el),
};
