<script setup lang="ts">
import { useDropZone } from '@vueuse/core';
import type { Block } from '#core/template/blocks';

/** A picture for one document: chosen or dropped here, kept on the server, and said in words for those who cannot see it. */
const picture = defineModel<Extract<Block, { type: 'picture' }>>();
/** In points; none is wider than the text around it, nor higher than half a page. */
const SIZES = [
  { value: 120, label: 'Small' },
  { value: 240, label: 'Medium' },
  { value: 2_000, label: 'As wide as the text' },
];
const HIGHEST = 400;

const zone = useTemplateRef<HTMLElement>('zone');
const { isOverDropZone } = useDropZone(zone, { onDrop: (files) => void take(files?.[0]), multiple: false });
const file = shallowRef<{ sha256: string; name: string }>();
const size = ref(240);
const alt = ref('');
const busy = ref(false);
const problem = ref('');
watchEffect(() => {
  picture.value =
    file.value && alt.value.trim()
      ? {
          type: 'picture',
          attrs: { id: 'picture', file: file.value.sha256, width: size.value, height: HIGHEST, alt: alt.value.trim() },
        }
      : undefined;
});

function choose(event: Event): void {
  const input = event.target as HTMLInputElement;
  void take(input.files?.[0]);
  input.value = '';
}

async function take(chosen: File | undefined): Promise<void> {
  if (!chosen) return;
  busy.value = true;
  const answer = await keepFile(
    chosen,
    'picture',
    'It can be joined to the end: under “This document”, “Join PDF files”.',
  );
  busy.value = false;
  problem.value = 'refused' in answer ? answer.refused : '';
  if ('kept' in answer) file.value = { sha256: answer.kept.sha256, name: chosen.name };
}
</script>

<template>
  <div class="picture">
    <label ref="zone" class="zone" :class="{ over: isOverDropZone }" :aria-busy="busy">
      <img v-if="file" :src="addressOf('GET /files/{sha256}', { parameters: { sha256: file.sha256 } })" alt="" />
      <span v-if="busy" class="quiet">Sending …</span>
      <span v-else-if="file"
        ><bdi>{{ file.name }}</bdi> <span class="in-words">Choose another</span></span
      >
      <span v-else
        ><span class="in-words">Choose a picture</span> or drop it here
        <span class="quiet kinds">PNG, JPEG or SVG, 20 MB at most</span></span
      >
      <input
        type="file"
        class="visually-hidden"
        accept="image/png,image/jpeg,image/svg+xml"
        aria-label="Picture"
        @change="choose"
      />
    </label>
    <p v-if="problem" role="alert" class="fault">{{ problem }}</p>
    <LabelledField
      id="picture-words"
      v-model="alt"
      label="In words, for those who cannot see it"
      placeholder="The site from the south-west"
    />
    <SelectButton
      v-model="size"
      :options="SIZES"
      option-value="value"
      option-label="label"
      :allow-empty="false"
      size="small"
      aria-label="Size"
    />
  </div>
</template>

<style scoped>
.picture {
  display: grid;
  gap: 12px;
  justify-items: start;
}
.picture > :not(.p-selectbutton) {
  width: 100%;
}
.zone {
  display: grid;
  gap: 8px;
  place-content: center;
  place-items: center;
  min-height: 132px;
  padding: 12px;
  border: 1px dashed var(--hairline);
  border-radius: 3px;
  text-align: center;
  cursor: pointer;
}
.zone:hover,
.zone.over,
.zone:focus-within {
  border-color: var(--verdigris);
}
.zone.over {
  background: var(--verdigris-50);
}
img {
  max-width: 100%;
  max-height: 160px;
}
.kinds {
  display: block;
}
.fault {
  color: var(--brick);
}
</style>
