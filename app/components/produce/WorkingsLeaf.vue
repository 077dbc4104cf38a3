<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router';
import type { Workings } from '#core/sheet/workings';
import type { BridgeStep } from '#core/production/bridge';
import type { PrintedFigure } from '#core/production/composition';

/** How a number came to its value; each figure it was made from can be opened in turn. */
const {
  shown,
  figures,
  bridge,
  hint = 'Click a value on the page to see how it came about.',
} = defineProps<{
  shown: Workings | undefined;
  figures: readonly PrintedFigure[];
  bridge: readonly BridgeStep[] | null;
  hint?: string;
  /** Where an author changes the figure that is shown. */
  figureTo?: RouteLocationRaw;
}>();
const emit = defineEmits<{ open: [id: string | undefined] }>();
</script>

<template>
  <section v-if="shown" class="workings">
    <button v-if="figures.length > 0" type="button" class="back" @click="emit('open', undefined)">All figures</button>
    <h3>
      {{ shown.label }}<span v-if="shown.place" class="quiet"> · {{ shown.place }}</span>
    </h3>
    <p class="sentence" :class="{ failed: shown.failed }">{{ shown.sentence }}</p>
    <template v-if="shown.steps.some(({ text }) => !shown!.sentence.includes(text)) || shown.rounding">
      <h4>Step by step</h4>
      <ol class="steps">
        <li v-for="step in shown.steps" :key="step.text">
          <span>{{ step.text }}</span> <strong>{{ step.result }}</strong>
        </li>
        <li v-if="shown.rounding">
          <span>rounded to</span> <strong>{{ shown.rounding.after }}</strong>
        </li>
      </ol>
    </template>
    <h4>Formula</h4>
    <p class="formula mono">{{ shown.formula }}</p>
    <NuxtLink v-if="figureTo" :to="figureTo">Open the figure</NuxtLink>
    <template v-if="shown.inputs.length > 0">
      <h4>Made from</h4>
      <table>
        <tbody>
          <tr v-for="input in shown.inputs" :key="input.formula">
            <td>
              <button v-if="input.figure" type="button" class="figure" @click="emit('open', input.figure)">
                {{ input.label }}
              </button>
              <template v-else>{{ input.label }}</template>
              <small v-if="input.path" class="mono quiet">{{ input.formula }}</small>
            </td>
            <td class="amount">{{ input.value }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
  <section v-else class="workings">
    <LazyPriceBridge v-if="bridge" :steps="bridge" @open="emit('open', $event)" />
    <p class="quiet hint">{{ hint }}</p>
    <table>
      <tbody>
        <tr v-for="figure in figures" :key="figure.name">
          <td>
            <button type="button" class="figure" @click="emit('open', figure.workings)">{{ figure.label }}</button>
          </td>
          <td class="amount" :class="{ failed: figure.failed }">
            {{ figure.failed ? 'error' : figure.result }}
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.workings {
  padding: 12px 14px;
}
h3 {
  margin: 8px 0 4px;
  font: 600 15px/20px var(--serif);
}
h3 span {
  font: 400 13px/18px var(--sans);
}
h4 {
  margin: 14px 0 4px;
  color: var(--ink-quiet);
  font: 400 12px/16px var(--sans);
}
.sentence {
  overflow-wrap: anywhere;
}
.formula {
  padding: 8px 10px;
  background: var(--stone-50);
  border: 1px solid var(--hairline);
  border-radius: 3px;
  overflow-wrap: anywhere;
}
table {
  width: 100%;
  border-collapse: collapse;
}
td {
  padding: 5px 0;
  border-bottom: 1px solid var(--hairline-soft);
  vertical-align: top;
}
td.amount {
  padding-left: 12px;
  white-space: normal;
}
small {
  display: block;
  overflow-wrap: anywhere;
}
.figure {
  padding: 0;
  background: none;
  border: 0;
  border-bottom: 3px double var(--brass);
  color: var(--ink);
  text-align: start;
  cursor: pointer;
}
.back {
  padding: 0;
  background: none;
  border: 0;
  color: var(--verdigris);
  cursor: pointer;
}
.failed {
  color: var(--brick);
}
.steps li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 4px 0;
  border-bottom: 1px solid var(--hairline-soft);
}
.steps span {
  overflow-wrap: anywhere;
}
.steps strong {
  font-weight: 600;
  white-space: nowrap;
}
.hint {
  margin-bottom: 8px;
}
</style>
