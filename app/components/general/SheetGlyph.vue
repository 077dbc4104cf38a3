<script setup lang="ts">
/** A document as a small sheet: filled when filed, dashed when there is none, brick-edged when it failed. */
const { kind, state } = defineProps<{
  kind: string;
  state: 'none' | 'preparing' | 'rendered' | 'filed' | 'failed';
}>();
const SAID = {
  none: 'none yet',
  preparing: 'being prepared',
  rendered: 'being filed',
  filed: 'filed',
  failed: 'failed',
};
const word = computed(() => kind.charAt(0).toUpperCase() + kind.slice(1));
</script>

<template>
  <span v-tooltip.top="`${word}: ${SAID[state]}`" class="glyph">
    <svg width="20" height="22" viewBox="0 0 20 22" :class="state" aria-hidden="true">
      <path class="paper" d="M4 2h8l4 4v14H4z" stroke-width="1.3" />
      <path v-if="state === 'filed'" class="mark" d="M7 10h6M7 13h6M7 16h4" fill="none" stroke-width="1.1" />
      <path v-if="state === 'failed'" class="mark" d="M10 9v5M10 16.5v.1" stroke-width="1.6" />
    </svg>
    <small aria-hidden="true">{{ word }}</small>
    <span class="visually-hidden">{{ word }}: {{ SAID[state] }}</span>
  </span>
</template>

<style scoped>
.glyph {
  display: inline-flex;
  flex-direction: column;
  align-items: center;
}
small {
  color: var(--ink-quiet);
  font-size: 10px;
  line-height: 11px;
}
.paper {
  fill: var(--paper);
  stroke: var(--ink);
}
.mark {
  stroke: var(--verdigris);
}
.none .paper {
  fill: none;
  stroke: var(--stone-400);
  stroke-dasharray: 2 2;
}
.preparing .paper,
.rendered .paper {
  fill: var(--verdigris-100);
  stroke: var(--verdigris);
}
.failed .paper {
  fill: var(--brick-50);
  stroke: var(--brick);
}
.failed .mark {
  stroke: var(--brick);
}
</style>
