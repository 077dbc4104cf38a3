<script setup lang="ts">
import type { Run } from '#core/template/composed';

/** Running text as it prints. */
defineProps<{ runs: readonly Run[] }>();
const lookOf = (run: Extract<Run, { kind: 'text' }>) => ({
  color: run.colour === 'accent' ? 'var(--accent)' : run.colour,
  fontWeight: run.bold ? 600 : undefined,
  fontStyle: run.italic ? 'italic' : undefined,
  textDecoration: run.underline ? 'underline' : undefined,
});
</script>

<template>
  <template v-for="(run, at) in runs" :key="at"
    ><br v-if="run.kind === 'break'" /><span
      v-else-if="run.kind === 'text'"
      :class="{ value: run.value, quiet: run.quiet }"
      :data-fault="run.fault"
      :style="lookOf(run)"
      >{{ run.text }}</span
    ><span v-else>1</span></template
  >
</template>
