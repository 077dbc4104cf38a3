<script setup lang="ts">
import type { ComposedPicture } from '#core/template/blocks/picture';

/** A picture as it prints: drawn here where its source is at hand, asked for by its hash otherwise. */
const { picture } = defineProps<{ picture: ComposedPicture }>();
const figures = useFiguresStore();
const source = computed(() => {
  const drawing = figures.page?.drawings[picture.picture];
  if (drawing !== undefined) return `data:image/svg+xml,${encodeURIComponent(drawing)}`;
  return addressOf('GET /files/{sha256}', { parameters: { sha256: picture.picture } });
});
</script>

<template>
  <div class="picture" :data-align="picture.align">
    <img :src="source" :alt="picture.alt" :style="{ width: `${picture.width}pt` }" draggable="false" />
  </div>
</template>
