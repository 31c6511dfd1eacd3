<script setup lang="ts">
import { ElAlert } from 'element-plus';
import 'element-plus/theme-chalk/el-alert.css';
import ActionButton from '../components/ActionButton.vue';
import { type Notice, useNotices } from '../stores/notices';

const notices = useNotices();
function act(n: Notice): void {
  notices.dismiss(n.id);
  n.action?.run();
}
</script>

<template>
  <div
    class="notices"
    aria-live="polite"
    role="status"
    @pointerenter="notices.hold(true)"
    @pointerleave="notices.hold(false)"
    @focusin="notices.hold(true)"
    @focusout="notices.hold(false)"
  >
    <el-alert
      v-for="n in notices.list"
      :key="n.id"
      class="notice"
      :class="[n.kind, { long: n.text.length > 90 }]"
      :type="n.kind"
      role="note"
      @close="notices.dismiss(n.id)"
    >
      <template #title>
        <span>{{ n.text }}</span>
        <b v-if="n === notices.list.at(-1) && notices.list.length > 1" class="more">+{{ notices.list.length - 1 }}</b>
        <action-button v-if="n.action" look="link" @click="act(n)">{{ n.action.label }}</action-button>
      </template>
    </el-alert>
  </div>
</template>

<style>
.notices {
  position: fixed;
  left: 50%;
  bottom: 40px;
  transform: translateX(-50%);
  display: grid;
  gap: 6px;
  z-index: 4000;
  max-width: min(620px, 90vw);
}
.notice.el-alert {
  --el-alert-padding: 7px 36px 7px 14px;
  --el-alert-bg-color: var(--bar);
  --el-alert-border-radius-base: var(--radius);
  --el-alert-close-font-size: 15px;
  background: var(--bar);
  color: var(--bar-strong);
  box-shadow: var(--shadow);
  border-left: 4px solid var(--honey);
}
.notice.el-alert.error {
  border-left-color: var(--danger);
}
.notice .el-alert__title {
  display: flex;
  align-items: center;
  gap: 12px;
  font-size: 13px;
  line-height: 19px;
  color: var(--bar-strong);
}
.notice .action.el-button.link {
  --el-button-text-color: var(--bar-honey);
  --el-button-hover-text-color: var(--bar-honey);
  font-weight: 600;
}
.notice .el-alert__close-btn {
  color: var(--bar-ink);
}
.notices.here {
  position: relative;
  left: auto;
  bottom: auto;
  transform: none;
  display: flex;
  flex-direction: column-reverse;
  gap: 0;
  flex: none;
  max-width: 70%;
  height: 26px;
  white-space: normal;
  font-family: var(--text);
}
/* The newest in the line, those before it above when one points at it. */
.notices.here .notice.el-alert {
  --el-alert-padding: 0 30px 0 10px;
  flex: none;
  min-height: 26px;
  box-shadow: none;
  border-radius: 0;
}
.notices.here:not(:hover, :focus-within) .notice:not(:last-child) {
  display: none;
}
.notices.here .notice {
  order: -1;
}
.notices.here:not(:hover, :focus-within) .notice.long .el-alert__title {
  font-size: 11.5px;
  line-height: 13px;
  max-height: 26px;
}
.notices.here:not(:hover, :focus-within) .notice.long .el-alert__title > span {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
/* How many more there are, seen when one points at it. */
.notice .more {
  display: none;
}
.notices.here:not(:hover, :focus-within) .more {
  display: inline;
  color: var(--bar-honey);
  font-size: 11.5px;
}
.notices.here .action.el-button {
  white-space: nowrap;
}
.notices.here .el-alert__close-btn {
  top: 6px;
}
</style>
