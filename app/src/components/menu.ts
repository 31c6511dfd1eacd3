import type { Component } from 'vue';

/** A line of a menu. */
export interface MenuItem {
  readonly text: string;
  readonly icon?: Component | undefined;
  readonly keys?: string | undefined;
  /** Why it cannot be done now; without it, it can. */
  readonly why?: string | undefined;
  run(): unknown;
}
