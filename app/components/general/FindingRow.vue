<script setup lang="ts">
import type { Finding } from '#core/production/findings/finding';

/** One finding: its mark, which shows the place, what is wrong, and below it the ways out. */
const { finding, number } = defineProps<{ finding: Finding; number: number; skipped?: boolean }>();
defineEmits<{ show: [] }>();
</script>

<template>
  <li class="finding" :class="{ skipped }">
    <button
      type="button"
      class="mark"
      :class="finding.severity"
      :aria-label="`Show finding ${number} on the page`"
      @click="$emit('show')"
    >
      {{ number }}
    </button>
    <div>
      <h3>{{ finding.title }}</h3>
      <p class="quiet">
        {{ finding.sentence }}<template v-if="finding.severity === 'stops'"> This stops filing.</template>
      </p>
      <slot />
    </div>
  </li>
</template>

<style scoped>
.finding {
  display: grid;
  grid-template-columns: 24px 1fr;
  padding: 11px 14px;
  border-bottom: 1px solid var(--hairline);
}
h3 {
  font: 500 13px/18px var(--sans);
}
.mark {
  width: 17px;
  height: 17px;
  padding: 0;
  border: 0;
  border-radius: 50%;
  background: var(--slate);
  color: var(--on-colour);
  font: 600 10.5px/17px var(--sans);
  cursor: pointer;
}
.mark.stops {
  background: var(--brick);
}
.mark.warns {
  background: var(--brass-text);
}
.skipped h3,
.skipped .quiet {
  opacity: 0.75;
}
</style>
