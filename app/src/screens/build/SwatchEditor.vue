<script setup lang="ts">
import { type Swatch, readHex } from '@sphalerite/core/palette';
import { editSwatchEdit } from '@sphalerite/core/project';
import { onClickOutside } from '@vueuse/core';
import { ElPopover } from 'element-plus';
import { computed, ref, watch } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';

const props = defineProps<{ anchor: HTMLElement; palette: string; swatch: Swatch }>();
const emit = defineEmits<{ close: [] }>();
const session = useSession();
const notices = useNotices();
const hex = ref('');
const name = ref('');
watch(() => props.swatch, (s) => {
  hex.value = s.colour;
  name.value = s.name;
}, { immediate: true });
const change = (more: Partial<Omit<Swatch, 'byte'>>): unknown => session.apply(editSwatchEdit, { palette: props.palette, byte: props.swatch.byte, change: more });
function setHex(text: string): void {
  const colour = readHex(text);
  if (colour) change({ colour });
  else {
    notices.say(`“${text}” is not a colour. Write it as #rrggbb, or by a name such as teal.`, { kind: 'error' });
    hex.value = props.swatch.colour;
  }
}
const root = ref<HTMLElement>();
onClickOutside(root, () => emit('close'), { ignore: [computed(() => props.anchor)] });
</script>

<template>
  <el-popover :visible="true" virtual-triggering :virtual-ref="anchor" placement="top-start" :width="262">
  <div ref="root" class="edit" @keydown.esc="emit('close')" @keydown.stop>
            <label>Name<input v-model="name" class="text" maxlength="120" @change="change({ name })" /></label>
            <div class="row"><input type="color" :value="swatch.colour" aria-label="Colour" @change="(e) => setHex((e.target as HTMLInputElement).value)" /><input v-model="hex" class="text figures" aria-label="Colour as hex" @change="setHex(hex)" /></div>
            <div class="row"><NumberField label="glow" :model-value="swatch.emissive" :min="0" :max="100" :step="0.5" @change="(v) => change({ emissive: v })" /><NumberField label="rough" :model-value="swatch.roughness" :min="0" :max="1" :step="0.1" @change="(v) => change({ roughness: v })" /></div>
            <div class="row"><NumberField label="metal" :model-value="swatch.metalness" :min="0" :max="1" :step="0.1" @change="(v) => change({ metalness: v })" /><NumberField label="solid" name="Opacity" :model-value="swatch.opacity" :min="0" :max="1" :step="0.1" @change="(v) => change({ opacity: v })" /></div>
            <label class="helper"><input type="checkbox" :checked="swatch.helper" @change="change({ helper: !swatch.helper })" />helper: a spacer or mark, never counted or shipped</label>
          </div>
  </el-popover>
</template>

<style scoped>
.edit { display: grid; gap: 8px; }
.edit label { display: grid; gap: 3px; }
.text { height: 28px; width: 100%; padding: 0 8px; border: 1px solid var(--line); border-radius: var(--radius); background: var(--raised); }
input[type='color'] { width: 44px; height: 28px; padding: 0; border: 1px solid var(--line); border-radius: var(--radius); background: none; flex: none; }
.edit .helper { display: flex; gap: 6px; align-items: center; }
</style>
