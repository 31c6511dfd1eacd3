<script setup lang="ts">
import { ElButton } from 'element-plus';
import 'element-plus/theme-chalk/el-button.css';

/**
 * A button with a word on it. Its tooltip is the shared one (`shell/TipHost.vue`), which reads `data-tip` and `data-keys`.
 *
 * Looks: plain; `primary`, the one that goes on; `dark`, on the bench; `link`, a word in a sentence; `bare`, without a frame;
 * `row`, as wide as the list it stands in.
 */
withDefaults(
  defineProps<{
    look?: 'plain' | 'primary' | 'dark' | 'link' | 'bare' | 'row';
    /** Said when the pointer rests. */
    tip?: string | undefined;
    /** Its shortcut, as in "Ctrl+K". */
    keys?: string | undefined;
    /** Pressed or not, for switches; leave it out for what is only done. */
    on?: boolean | undefined;
    disabled?: boolean | undefined;
    submit?: boolean;
  }>(),
  { look: 'plain', tip: undefined, keys: undefined, on: undefined },
);
</script>

<template>
  <el-button
    size="small"
    :native-type="submit ? 'submit' : 'button'"
    :class="['action', look, { on }]"
    :disabled="disabled ?? false"
    :aria-pressed="on"
    :data-tip="tip"
    :data-keys="keys"
    ><slot
  /></el-button>
</template>

<style>
.action.el-button {
  --el-button-bg-color: var(--raised);
  --el-button-border-color: var(--line);
  --el-button-text-color: var(--ink);
  --el-button-hover-bg-color: var(--raised);
  --el-button-hover-border-color: var(--line-strong);
  --el-button-hover-text-color: var(--ink);
  --el-button-active-bg-color: var(--honey-soft);
  --el-button-active-border-color: var(--line-strong);
  --el-button-active-text-color: var(--ink);
  --el-button-disabled-bg-color: var(--raised);
  --el-button-disabled-border-color: var(--line);
  --el-button-disabled-text-color: var(--ink);
  --el-button-outline-color: var(--resin);
  min-height: 28px;
  height: auto;
  margin: 0;
  padding: 0 10px;
  font: inherit;
  font-weight: 500;
  border-radius: var(--radius);
  text-align: inherit;
}
.action.el-button.is-disabled {
  opacity: 0.45;
}
.action.el-button > span {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
}
.action.el-button svg {
  width: 18px;
  height: 18px;
  flex: none;
  stroke-width: 1.6;
}
.action.el-button.on {
  --el-button-bg-color: var(--honey-soft);
  --el-button-border-color: var(--honey);
  --el-button-hover-bg-color: var(--honey-soft);
  --el-button-hover-border-color: var(--honey);
}
.action.el-button.icon {
  width: 28px;
  padding: 0;
}
.action.el-button.primary {
  --el-button-bg-color: var(--resin);
  --el-button-border-color: var(--resin);
  --el-button-text-color: var(--resin-ink);
  --el-button-hover-bg-color: var(--resin);
  --el-button-hover-border-color: var(--honey);
  --el-button-hover-text-color: var(--resin-ink);
  --el-button-active-bg-color: var(--resin);
  --el-button-active-text-color: var(--resin-ink);
  --el-button-disabled-bg-color: var(--resin);
  --el-button-disabled-border-color: var(--resin);
  --el-button-disabled-text-color: var(--resin-ink);
}
.action.el-button.dark {
  --el-button-bg-color: var(--bar);
  --el-button-border-color: var(--bar);
  --el-button-text-color: var(--bar-strong);
  --el-button-hover-bg-color: var(--bar);
  --el-button-hover-border-color: var(--honey);
  --el-button-hover-text-color: var(--bar-strong);
  --el-button-active-bg-color: var(--bar);
  --el-button-active-text-color: var(--bar-strong);
  --el-button-disabled-bg-color: var(--bar);
  --el-button-disabled-text-color: var(--bar-strong);
}
.action.el-button.bare,
.action.el-button.row,
.action.el-button.link {
  --el-button-bg-color: transparent;
  --el-button-border-color: transparent;
  --el-button-disabled-bg-color: transparent;
  --el-button-disabled-border-color: transparent;
  --el-button-hover-bg-color: var(--honey-soft);
  --el-button-hover-border-color: transparent;
  --el-button-active-border-color: transparent;
}
.action.el-button.bare {
  --el-button-text-color: var(--quiet);
  --el-button-disabled-text-color: var(--quiet);
  min-height: 26px;
}
.action.el-button.bare.icon {
  width: 26px;
}
.action.el-button.bare.small {
  width: 22px;
  min-height: 22px;
}
.action.el-button.bare.small svg {
  width: 15px;
  height: 15px;
}
.action.el-button.bare.on {
  --el-button-bg-color: var(--honey-soft);
  --el-button-text-color: var(--resin);
  --el-button-hover-text-color: var(--resin);
}
.action.el-button.link {
  --el-button-text-color: var(--resin);
  --el-button-hover-text-color: var(--resin);
  --el-button-hover-bg-color: transparent;
  --el-button-active-bg-color: transparent;
  --el-button-active-text-color: var(--resin);
  --el-button-disabled-text-color: var(--quiet);
  min-height: 20px;
  padding: 0;
  border: 0;
  font-size: 12px;
  font-weight: 400;
  text-decoration: underline;
  text-underline-offset: 2px;
  white-space: normal;
}
.action.el-button.row {
  display: flex;
  justify-content: flex-start;
  width: 100%;
  min-width: 0;
  padding: 4px 8px;
  border: 0;
  font-weight: 400;
  text-align: left;
}
.action.el-button.row > span {
  flex: 1;
  gap: 8px;
}
</style>
