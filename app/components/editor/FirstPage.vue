<script setup lang="ts">
import { drawnWithPaths, glyphsOf } from '#core/production/page-drawing';
import type { ProofPages } from '~/composables/proof-drawings';

/** The upper part of the first page of a proof as a picture: nothing on it is pressed. A blank sheet until it is there. */
const { pages } = defineProps<{ pages: ProofPages | undefined }>();
const glyphs = computed(() => glyphsOf(pages?.glyphs ?? ''));
const drawing = computed(() => {
  const [first] = pages?.pages ?? [];
  return first?.drawing === undefined ? undefined : drawnWithPaths(first.drawing, glyphs.value.outlines);
});
/** Links of a picture lead nowhere. */
const picture = computed(() => drawing.value?.replaceAll(/<a\b/g, '<g').replaceAll('</a>', '</g>'));
</script>

<template>
  <!-- eslint-disable vue/no-v-html -- the typesetter's own SVG -->
  <span class="first-page on-paper" aria-hidden="true">
    <svg class="glyphs" v-html="glyphs.others" />
    <span v-if="picture !== undefined" v-html="picture"></span>
  </span>
</template>

<style scoped>
.first-page {
  position: relative;
  display: block;
  aspect-ratio: 1 / 1.2;
  overflow: hidden;
  background: var(--paper);
  box-shadow: var(--sheet-shadow);
  pointer-events: none;
}
.first-page :deep(span > svg) {
  display: block;
  width: 100%;
  height: auto;
}
.glyphs {
  position: absolute;
  width: 0;
  height: 0;
}
</style>
