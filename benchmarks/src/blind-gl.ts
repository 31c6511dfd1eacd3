/**
 * A graphics card that draws nothing and answers at once, so that what a frame costs the page itself can be timed without a
 * browser: three takes it for a WebGL 2 context.
 */
export function blindContext(): { canvas: HTMLCanvasElement; context: WebGL2RenderingContext; drawn: () => number } {
  let drawn = 0;
  const answers: Record<string, (...args: never[]) => unknown> = {
    getContextAttributes: () => ({ alpha: true, antialias: true }),
    getExtension: () => null,
    getSupportedExtensions: () => [],
    getShaderPrecisionFormat: () => ({ precision: 23, rangeMin: 127, rangeMax: 127 }),
    getProgramParameter: (_program: never, what: never) => (what === LINK_STATUS ? true : 0),
    getShaderParameter: () => true,
    getProgramInfoLog: () => '',
    getShaderInfoLog: () => '',
    getParameter: (what: never) => PARAMETERS.get(what) ?? 16,
    getAttribLocation: () => 0,
    checkFramebufferStatus: () => 0x8cd5,
    isContextLost: () => false,
    drawElements: () => void drawn++,
    drawElementsInstanced: () => void drawn++,
  };
  const made = { id: 0 };
  const context = new Proxy(
    {},
    {
      get: (_, name: string) => {
        if (name === 'canvas') return canvas;
        if (/^[A-Z0-9_]+$/.test(name)) return name === 'LINK_STATUS' ? LINK_STATUS : nameNumber(name);
        return answers[name] ?? (name.startsWith('create') ? () => ({ ...made }) : () => undefined);
      },
    },
  ) as WebGL2RenderingContext;
  const canvas = {
    width: 1280,
    height: 800,
    style: {},
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
    getContext: () => context,
  } as unknown as HTMLCanvasElement;
  return { canvas, context, drawn: () => drawn };
}

const LINK_STATUS = 0x8b82;
const VERSION = 0x1f02;
const PARAMETERS = new Map<number, unknown>([
  [VERSION, 'WebGL 2.0'],
  [0x8b8c, 'WebGL GLSL ES 3.00'],
  [0x0c10, [0, 0, 1280, 800]],
  [0x0ba2, [0, 0, 1280, 800]],
]);
const NAMES: Record<string, number> = {
  VERSION,
  SHADING_LANGUAGE_VERSION: 0x8b8c,
  SCISSOR_BOX: 0x0c10,
  VIEWPORT: 0x0ba2,
  FRAMEBUFFER_COMPLETE: 0x8cd5,
};
/** A number of its own for every constant that is asked for. */
const nameNumber = (name: string): number => (NAMES[name] ??= 0x10000 + Object.keys(NAMES).length);
