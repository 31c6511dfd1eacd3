import type { Dragged } from '../components/drag';
import type { Component } from 'vue';
import type { Extent, Vec3 } from '@sphalerite/core/math';
import type { Project } from '@sphalerite/core/model';
import type { Pose } from '@sphalerite/core/rig';
import type { Overlay } from '../viewport/overlay';
import type { PointerUser, ViewPointer } from '../viewport/view-input';
import type { ViewScene } from '../viewport/viewport';
import type { Command } from '../stores/commands';

/** A live guide, shown as a chip under the line that says where one is. */
export interface Chip {
  readonly text: string;
  readonly tone: 'red' | 'green' | 'resin';
  readonly icon?: Component;
  /** A colour that it stands for. */
  readonly colour?: string;
  /** Makes the chip a button: what it does in a word or two. */
  readonly does?: string;
  run?(): unknown;
  /** A figure that can be typed in it. */
  readonly field?: {
    readonly label: string;
    readonly value: number;
    readonly step: number;
    change(value: number): void;
  };
  /** Words that can be typed in it. */
  readonly words?: { readonly label: string; readonly value: string; change(text: string): void };
}

/** A short text at a place of the world. */
export interface ViewLabel {
  readonly at: Vec3;
  readonly text: string;
  readonly tone: 'x' | 'y' | 'z' | 'ink';
  /** Beside its place instead of on it, where a handle stands. */
  readonly shift?: boolean;
}

/** What stands in the view, of which project. */
export interface ScreenScene extends Pick<
  ViewScene,
  'list' | 'styleOf' | 'besides' | 'hurry' | 'floor' | 'cube' | 'lamps'
> {
  readonly project: Project;
  /** How its bones stand. */
  readonly pose: Pose;
}

/** What a screen does with the shared view; all getters are watched. */
export interface ScreenControl {
  scene(): ScreenScene | null;
  overlay(): Overlay;
  labels?(): readonly ViewLabel[];
  readonly pointer: PointerUser;
  /** What is in hand here, to be framed: in the world. Null when nothing is. */
  inHand(): Extent | null;
  /** Where one is, from the whole to the smallest: the last is what is worked on. */
  trail(): readonly string[];
  chips(): readonly Chip[];
  /** Left and right halves of the readout. */
  readout(): { readonly left: readonly [string, string][]; readonly right: string };
  /** Whether the view takes what is dragged, and what becomes of it. */
  accepts?(what: Dragged): boolean;
  drop?(what: Dragged, p: ViewPointer): void;
  readonly commands: readonly Command[];
  /** More of them, fetched once the first picture stands. */
  laterCommands?(): Promise<readonly Command[]>;
  /** Commands that head the right-click menu of the view. */
  readonly menu?: readonly string[];
  /** Whether it says itself where the camera stands; else all there is comes into view when a project is opened. */
  readonly ownCamera?: boolean;
  /** Commands with a button of their own over the view. */
  readonly tools?: readonly string[];
  dispose?(): void;
}

/** What stands on the four sides of a screen and how it uses the view; its commands are those of its control. */
export interface ScreenPieces {
  readonly Tray: Component;
  readonly Properties: Component;
  readonly Bench: Component;
  /** Drawn over the view, for screens that show more than cubes. */
  readonly Over?: Component;
  control(): ScreenControl;
}

/**
 * A screen of the bench: all there is to say of it. One folder a screen, whose `index.ts` this is, and one line in
 * `screens/list.ts`. What it is made of is fetched when it is first shown.
 */
export interface Screen {
  /** As in its address. */
  readonly id: string;
  /** As on the job line, and as the history says where a step was made. */
  readonly title: string;
  readonly icon: Component;
  /** The step of the job line that it is opened from and goes back to; it has none of its own then. */
  readonly beside?: string;
  /** How many there are of what it is about; null when nothing is counted. */
  readonly count: ((p: Project) => number) | null;
  /** What still wants doing here; null when nothing does. */
  readonly wants: (p: Project) => string | null;
  /** Height of the bench in percent. */
  readonly benchSize: number;
  readonly help: {
    readonly title: string;
    readonly steps: readonly string[];
    /** Its part of the first steps that a new user is led through. */
    readonly lesson: { readonly title: string; readonly text: string };
  };
  readonly pieces: () => Promise<ScreenPieces>;
}
