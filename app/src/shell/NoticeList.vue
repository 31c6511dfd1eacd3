<script setup lang="ts">
import { IconX } from '@tabler/icons-vue';
import { useNotices } from '../stores/notices';

const notices = useNotices();
</script>

<template>
  <div class="notices" aria-live="polite" role="status">
    <div v-for="n in notices.list" :key="n.id" class="notice" :class="n.kind">
      <span>{{ n.text }}</span>
      <button v-if="n.action" type="button" class="act" @click="n.action.run()">{{ n.action.label }}</button>
      <button type="button" class="close" aria-label="Close" @click="notices.dismiss(n.id)">
        <IconX aria-hidden="true" />
      </button>
    </div>
  </div>
</template>

<style scoped>
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
.notice {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 7px 8px 7px 14px;
  border-radius: var(--radius);
  background: var(--bar);
  color: var(--bar-strong);
  box-shadow: var(--shadow);
  border-left: 4px solid var(--honey);
}
.notice.error {
  border-left-color: var(--danger);
}
.act {
  font-weight: 600;
  color: var(--bar-honey);
  text-decoration: underline;
}
.close {
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  color: var(--bar-ink);
}
.close svg {
  width: 16px;
  height: 16px;
}
</style>
