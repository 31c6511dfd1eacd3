<script setup lang="ts">
import { IconFolderOpen, IconFolderOff } from '@tabler/icons-vue';
import { EXPORTERS, optionFields, optionsOf } from '@sphalerite/core/files';
import { partsInUse, sideSuffix } from '@sphalerite/core/model';
import { TILES } from '@sphalerite/core/paint';
import { setProjectEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import CommandButton from '../../components/CommandButton.vue';
import FoldSection from '../../components/FoldSection.vue';
import FormRow from '../../components/FormRow.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import SliderField from '../../components/SliderField.vue';
import TextField from '../../components/TextField.vue';
import { choices, group } from '../../components/choices';
import { useSession } from '../../stores/session';
import OptionsForm from './OptionsForm.vue';
import PicturePreview from './PicturePreview.vue';
import { useFacePicking } from './face-picking';
import { useLinkedFolder } from './linked-folder';
import { useLooking } from './looking';
import { useShip } from './ship-state';

const session = useSession();
const ship = useShip();
const folder = useLinkedFolder();
const picking = useFacePicking();
const looking = useLooking();
const p = computed(() => ship.profile!);

const WHOLE = 'whole';
const only = computed({
  get: () => (ship.only ? `${ship.only.of} ${ship.only.id}` : WHOLE),
  set: (v) => {
    const [of, id] = v.split(' ');
    ship.only = v === WHOLE ? null : { of: of as 'part' | 'scene', id: id! };
  },
});
const subjects = computed(() => [
  { value: WHOLE, text: 'everything on the rig' },
  ...group(
    'a scene',
    (session.project?.scenes ?? []).map((s) => ({ value: `scene ${s.id}`, text: s.name })),
  ),
  ...group(
    'one part',
    partsInUse(session.project?.parts ?? []).map((o) => ({ value: `part ${o.id}`, text: o.name + sideSuffix(o.side) })),
  ),
]);
const when = computed(() => {
  if (!folder.at) return 'nothing from here in it yet';
  const days = Math.floor((Date.now() - folder.at) / 86_400_000);
  const n = ship.made?.delivered.files.length ?? 0;
  return `over ${n} ${n === 1 ? 'file' : 'files'} of ${days === 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`}`;
});
/** Formats of this delivery that have options of their own. */
const forms = computed(() =>
  EXPORTERS.filter((e) => p.value.formats.includes(e.id)).flatMap((e) => {
    const fields = optionFields(e.options);
    return fields.length > 0
      ? [{ e, fields, values: optionsOf(e, p.value.options[e.id]) as Record<string, unknown> }]
      : [];
  }),
);
function setOption(exporter: string, key: string, value: unknown): void {
  const mine = { ...p.value.options[exporter], [key]: value as string };
  ship.change({ options: { ...p.value.options, [exporter]: mine } });
}
const prints = computed(() => p.value.formats.some((f) => f === 'stl' || f === '3mf'));
/** Pictures that repeat, for each slot that shows. */
const slots = computed(() => looking.facts?.slots ?? []);
const slotName = (material: string): string => {
  const palette = session.project?.palettes[0]?.name ?? '';
  return material === palette ? '' : material.replace(/ transparent$/, '');
};
const tileOf = (slot: string): string => {
  const t = p.value.tiles.find((o) => o.slot === slot);
  return t?.blob ? `blob ${t.blob}` : (t?.picture ?? 'none');
};
const tileChoices = computed(() => [
  { value: 'none', text: 'plain colour' },
  ...choices(TILES),
  ...group(
    'reference pictures',
    (session.project?.references ?? []).map((r) => ({ value: `blob ${r.blob}`, text: r.name })),
  ),
]);
function setTile(slot: string, value: string): void {
  const others = p.value.tiles.filter((t) => t.slot !== slot);
  const blob = value.startsWith('blob ') ? value.slice(5) : null;
  const picture = blob || value === 'none' ? null : value;
  ship.change({ tiles: picture || blob ? [...others, { slot, picture, blob }] : others });
}
const cm = computed(() => (session.project?.metresPerUnit ?? 0) * 100);
</script>

<template>
  <template v-if="session.project && ship.profile">
    <section class="panel-section">
      <CommandButton id="ship.save" label look="primary" />
      <p v-if="folder.handle" class="quiet into">
        into <b>{{ folder.handle.name }}</b>, {{ when }}
        <action-button look="link" tip="Ship to the browser’s downloads again" @click="folder.unlink()"
          ><IconFolderOff aria-hidden="true" />unlink</action-button
        >
      </p>
      <p v-else-if="folder.possible" class="quiet into">
        to the browser’s downloads, or
        <action-button look="link" tip="Files are written there, over those of last time" @click="folder.link()"
          ><IconFolderOpen aria-hidden="true" />link a folder</action-button
        >
      </p>
      <SelectField v-model="only" label="What is shipped" :choices="subjects" />
    </section>

    <section class="panel-section">
      <fold-section id="ship mesh" title="Mesh" open>
        <form-row label="merge" stacked
          ><choice-field
            label="Merge flat faces"
            wide
            :model-value="p.mesh.merge"
            :choices="[
              { value: 'colour', text: 'colour', tip: 'Faces of one colour' },
              { value: 'slot', text: 'slot', tip: 'Faces of one material slot, in its commonest colour' },
              { value: 'all', text: 'all', tip: 'All of a slot, with the colours in a picture' },
            ]"
            @change="(merge) => ship.change({ mesh: { merge } })"
        /></form-row>
        <form-row label="as" stacked
          ><choice-field
            label="Meshes are"
            wide
            :model-value="p.mesh.as"
            :choices="[
              { value: 'parts', text: 'parts', tip: 'A mesh for each part' },
              { value: 'bones', text: 'bones', tip: 'The parts of a bone as one mesh' },
              { value: 'skin', text: 'skin', tip: 'One mesh that follows its bones as a rigid skin' },
              { value: 'one', text: 'one', tip: 'One object without bones' },
            ]"
            @change="(as) => ship.change({ mesh: { as } })"
        /></form-row>
        <div class="checks">
          <check-field
            :model-value="p.mesh.watertight"
            tip="No open edge and no gap where colours meet"
            @change="
              (watertight) => ship.change({ mesh: watertight ? { watertight, dropHidden: false } : { watertight } })
            "
            >Watertight</check-field
          >
          <check-field
            :model-value="p.mesh.dropHidden"
            tip="Leaves out faces that nobody sees in any clip; the mesh is open then, so not watertight"
            @change="
              (dropHidden) => ship.change({ mesh: dropHidden ? { dropHidden, watertight: false } : { dropHidden } })
            "
            >Drop hidden</check-field
          >
          <check-field
            :model-value="p.mesh.weld"
            tip="One vertex for each position and texture coordinate; readers shade flat by themselves"
            @change="(weld) => ship.change({ mesh: { weld } })"
            >Weld</check-field
          >
        </div>
      </fold-section>
    </section>

    <section class="panel-section">
      <fold-section id="ship slots" title="Material slots">
        <p class="quiet">Picked faces first, then the swatch’s own slot, then the way a face looks.</p>
        <form-row v-for="way in ['floors', 'walls', 'ceilings'] as const" :key="way" :label="way"
          ><text-field
            :label="`Slot of ${way}`"
            :model-value="p.mesh[way]"
            placeholder="as the swatch"
            @change="(name) => ship.change({ mesh: { [way]: name } })"
        /></form-row>
        <CommandButton id="ship.pickFaces" label />
        <template v-if="picking.on">
          <form-row label="slot"><text-field v-model="picking.slot" label="Slot that faces are picked for" /></form-row>
          <choice-field
            v-model="picking.reach"
            label="What a click takes"
            wide
            :choices="[
              { value: 'one', text: 'one', tip: 'The face of one cube' },
              { value: 'colour', text: 'colour', tip: 'The flat face of one colour' },
              { value: 'face', text: 'flat face', tip: 'The whole flat face' },
            ]"
          />
          <check-field v-model="picking.away" tip="Back to what swatches and directions say">Give back</check-field>
        </template>
      </fold-section>
    </section>

    <section class="panel-section">
      <fold-section id="ship texture" title="Texture" open>
        <picture-preview />
        <choice-field
          label="Texture layout"
          wide
          :model-value="p.picture.layout"
          :choices="[
            { value: 'strip', text: 'strip', tip: 'A texel for each swatch' },
            { value: 'atlas', text: 'atlas', tip: 'Pictures packed side by side; alike ones once' },
            { value: 'tiling', text: 'tiling', tip: 'Coordinates in whole cubes, for pictures that repeat' },
          ]"
          @change="(layout) => ship.change({ picture: { layout } })"
        />
        <template v-if="p.picture.layout === 'tiling'">
          <number-field
            label="cubes a picture"
            name="Cubes a picture is long"
            :model-value="p.picture.cubes"
            :min="0.25"
            @change="(cubes) => ship.change({ picture: { cubes } })"
          />
          <form-row v-for="s in slots" :key="s.name" :label="s.name" stacked
            ><select-field
              :label="`Picture on ${s.name}`"
              :model-value="tileOf(slotName(s.name))"
              :choices="tileChoices"
              @change="(v: string) => setTile(slotName(s.name), v)"
          /></form-row>
        </template>
        <div v-else-if="p.picture.layout === 'atlas' || p.mesh.merge === 'all'" class="pair">
          <number-field
            label="pad"
            name="Padding in texels"
            :model-value="p.picture.padding"
            :min="0"
            :max="32"
            @change="(v) => ship.change({ picture: { padding: Math.round(v) } })"
          />
          <number-field
            label="max"
            name="Longest edge of the picture"
            :model-value="p.picture.most"
            :min="16"
            :max="8192"
            :step="16"
            @change="(v) => ship.change({ picture: { most: Math.round(v) } })"
          />
        </div>
        <div class="checks">
          <check-field
            v-if="p.picture.layout !== 'tiling'"
            :model-value="p.picture.powersOfTwo"
            @change="(powersOfTwo) => ship.change({ picture: { powersOfTwo } })"
            >Powers of two</check-field
          >
          <check-field
            :model-value="p.picture.second"
            tip="A second set of coordinates without overlaps, for baked light"
            @change="(second) => ship.change({ picture: { second } })"
            >Second set</check-field
          >
        </div>
        <form-row label="see-through" stacked
          ><choice-field
            label="See-through"
            wide
            :model-value="p.looks.seeThrough"
            :choices="choices(['blend', 'mask'] as const)"
            @change="(seeThrough) => ship.change({ looks: { seeThrough } })"
        /></form-row>
        <form-row v-if="session.project.colourways.length > 0" label="colourways" stacked
          ><choice-field
            label="Colourways"
            wide
            :model-value="p.looks.colourways"
            :choices="choices(['variants', 'files', 'none'] as const)"
            @change="(colourways) => ship.change({ looks: { colourways } })"
        /></form-row>
      </fold-section>
    </section>

    <section class="panel-section">
      <fold-section id="ship collider" title="Collider" open>
        <choice-field
          label="Collider"
          wide
          :model-value="p.collider.shape"
          :choices="[
            { value: 'one box', text: 'box', tip: 'One box around it' },
            { value: 'boxes', text: 'boxes', tip: 'Few boxes within the tolerance' },
            { value: 'convex', text: 'convex', tip: 'Convex pieces within the tolerance' },
            { value: 'exact', text: 'exact', tip: 'Its own surface; for what stands still' },
            { value: 'none', text: 'none' },
          ]"
          @change="(shape) => ship.change({ collider: shape === 'exact' ? { shape, moves: 'static' } : { shape } })"
        />
        <template v-if="p.collider.shape !== 'none'">
          <form-row v-if="p.collider.shape === 'boxes' || p.collider.shape === 'convex'" label="within"
            ><slider-field
              label="Tolerance in cubes"
              :model-value="p.collider.tolerance"
              :min="0"
              :max="4"
              :step="0.5"
              @change="(tolerance) => ship.change({ collider: { tolerance } })"
            /><span class="figures unit">{{ p.collider.tolerance.toFixed(1) }} vx</span></form-row
          >
          <choice-field
            label="Whether physics moves it"
            wide
            :model-value="p.collider.moves"
            :choices="[
              { value: 'static', text: 'static' },
              {
                value: 'moving',
                text: 'moving',
                tip:
                  p.collider.shape === 'exact'
                    ? 'Physics moves no exact collider; convex pieces are taken instead'
                    : '',
              },
            ]"
            @change="
              (moves) =>
                ship.change({
                  collider: moves === 'moving' && p.collider.shape === 'exact' ? { moves, shape: 'convex' } : { moves },
                })
            "
          />
          <choice-field
            label="What colliders are of"
            wide
            :model-value="p.collider.of"
            :choices="[
              { value: 'parts', text: 'each part' },
              { value: 'whole', text: 'the whole' },
            ]"
            @change="(of) => ship.change({ collider: { of } })"
          />
        </template>
      </fold-section>
    </section>

    <section class="panel-section">
      <fold-section id="ship names" title="Names and place" open>
        <form-row label="origin" stacked
          ><choice-field
            label="Origin"
            wide
            :model-value="p.place.origin"
            :choices="choices(['base', 'pivot', 'centre', 'corner'] as const)"
            @change="(origin) => ship.change({ place: { origin } })"
        /></form-row>
        <div class="pair">
          <select-field
            label="Axis that points up"
            :model-value="p.place.up"
            :choices="choices(['+y', '+z'] as const, (a) => `${a.toUpperCase()} up`)"
            @change="
              (up) =>
                ship.change({
                  place: p.place.forward[1] === up[1] ? { up, forward: up === '+z' ? '-y' : '+z' } : { up },
                })
            "
          />
          <select-field
            label="Axis it faces along"
            :model-value="p.place.forward"
            :choices="
              choices(
                (['+z', '-z', '+x', '-x', '+y', '-y'] as const).filter((a) => a[1] !== p.place.up[1]),
                (a) => `faces ${a.toUpperCase()}`,
              )
            "
            @change="(forward) => ship.change({ place: { forward } })"
          />
        </div>
        <div class="pair">
          <number-field
            label="units / m"
            name="Units a metre"
            :model-value="p.place.unitsPerMetre"
            :min="0.001"
            @change="(unitsPerMetre) => ship.change({ place: { unitsPerMetre } })"
          />
          <number-field
            label="1 cube"
            name="Size of a cube in centimetres"
            unit="cm"
            :model-value="cm"
            :min="0.1"
            :step="0.1"
            @change="(v) => session.apply(setProjectEdit, { metresPerUnit: v / 100 })"
          />
        </div>
        <form-row label="prefix"
          ><text-field
            label="Prefix of names"
            :model-value="p.names.prefix"
            @change="(prefix) => ship.change({ names: { prefix } })"
        /></form-row>
        <form-row label="letters"
          ><select-field
            label="How names are spelt"
            :model-value="p.names.letters"
            :choices="choices(['as they are', 'small_letters', 'small-letters', 'JoinedWords'] as const)"
            @change="(letters) => ship.change({ names: { letters } })"
        /></form-row>
        <form-row label="sides"
          ><div class="pair">
            <text-field
              label="Behind names of the left side"
              :model-value="p.names.left"
              @change="(left) => ship.change({ names: { left } })"
            /><text-field
              label="Behind names of the right side"
              :model-value="p.names.right"
              @change="(right) => ship.change({ names: { right } })"
            /></div
        ></form-row>
        <form-row label="colliders"
          ><text-field
            label="Names of colliders"
            :model-value="p.names.collider"
            @change="(collider) => ship.change({ names: { collider } })"
        /></form-row>
      </fold-section>
    </section>

    <section class="panel-section">
      <fold-section id="ship budget" title="Budget">
        <number-field
          v-for="[key, label] in [
            ['triangles', 'triangles'],
            ['bones', 'bones'],
            ['draws', 'draw calls'],
            ['texture', 'texels'],
            ['kilobytes', 'KB'],
          ] as const"
          :key="key"
          :label="label"
          :name="`Budget of ${label}`"
          :model-value="p.budget[key]"
          :min="0"
          @change="(v) => ship.change({ budget: { [key]: Math.round(v) } })"
        />
        <p class="quiet">0 is no limit.</p>
      </fold-section>
    </section>

    <section v-if="prints" class="panel-section">
      <fold-section id="ship print" title="Print" open>
        <number-field
          label="height"
          name="Height in millimetres"
          unit="mm"
          :model-value="p.print.height"
          :min="0"
          @change="(height) => ship.change({ print: { height } })"
        />
        <number-field
          label="thinnest wall"
          name="Thinnest wall in millimetres"
          unit="mm"
          :step="0.1"
          :model-value="p.print.wall"
          :min="0"
          @change="(wall) => ship.change({ print: { wall } })"
        />
      </fold-section>
    </section>

    <section v-for="f in forms" :key="f.e.id" class="panel-section">
      <fold-section :id="`ship ${f.e.id}`" :title="f.e.name">
        <options-form :fields="f.fields" :values="f.values" @change="(k, v) => setOption(f.e.id, k, v)" />
      </fold-section>
    </section>
  </template>
</template>

<style scoped>
:deep(.form-row) {
  grid-template-columns: 66px minmax(0, 1fr);
}
.into {
  margin: 6px 0 8px;
}
.into :deep(svg) {
  width: 15px;
  height: 15px;
  margin-right: 3px;
}
.checks {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.unit {
  min-width: 52px;
  text-align: right;
}
</style>
