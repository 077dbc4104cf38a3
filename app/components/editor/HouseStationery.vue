<script setup lang="ts">
import PrintedBlocks from '~/editor/printed/PrintedBlocks.vue';

/** What the house style prints along the pages, where the template has nothing of its own. */
const { part } = defineProps<{ part: 'header' | 'footer' }>();
const figures = useFiguresStore();
const sheet = useSheetStore();
const blocks = computed(() => figures.page?.letterhead[part] ?? []);
</script>

<template>
  <div v-if="blocks.length > 0" class="stationery" :class="part" :aria-label="`The house style’s ${part}`">
    <PrintedBlocks :blocks="blocks" />
    <button v-if="sheet.editor?.isEditable" type="button" class="in-words own" @click="sheet.setOwn(part, true)">
      Write its own {{ part }}
    </button>
  </div>
</template>

<style scoped>
.own {
  position: absolute;
  right: 6mm;
  font: 500 8pt var(--sans);
  opacity: 0;
}
.stationery:hover .own,
.own:focus-visible {
  opacity: 1;
}
</style>
