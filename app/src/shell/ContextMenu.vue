<script setup lang="ts">
import { ElDropdown, type DropdownInstance } from 'element-plus';
import 'element-plus/theme-chalk/el-dropdown.css';
import { computed, nextTick, onMounted, useTemplateRef, watch } from 'vue';
import MenuList from '../components/MenuList.vue';
import type { MenuItem } from '../components/menu';
import { type Command, findCommand, keysFor, runCommand, whyNot } from '../stores/commands';
import { useDialogs } from '../stores/dialogs';
import { useNotices } from '../stores/notices';

/** The menu at the pointer: commands, each as it is known elsewhere. */
const dialogs = useDialogs();
const notices = useNotices();
const dropdown = useTemplateRef<DropdownInstance>('dropdown');
const items = computed((): MenuItem[] =>
  (dialogs.menu?.commands ?? [])
    .map(findCommand)
    .filter((c): c is Command => c !== undefined)
    .map((c) => ({
      text: c.title,
      icon: c.icon,
      keys: keysFor(c)[0],
      why: whyNot(c) ?? undefined,
      run: () => void runCommand(c.id).catch(notices.fail),
    })),
);
const place = computed(() => {
  const { x, y } = dialogs.menu ?? { x: 0, y: 0 };
  return { getBoundingClientRect: () => DOMRect.fromRect({ x, y }) };
});
const open = (): void => void nextTick(() => dropdown.value?.handleOpen());
onMounted(open);
watch(() => dialogs.menu, open);
</script>

<template>
  <el-dropdown
    ref="dropdown"
    :virtual-ref="place as never"
    virtual-triggering
    trigger="contextmenu"
    placement="bottom-start"
    :show-arrow="false"
    popper-class="menu"
    :popper-options="{ modifiers: [{ name: 'offset', options: { offset: [0, 2] } }] }"
    @visible-change="(on: boolean) => on || (dialogs.menu = null)"
  >
    <template #dropdown><menu-list :items="items" label="What can be done here" /></template>
  </el-dropdown>
</template>
