<script setup lang="ts">
import { BarChart } from 'echarts/charts';
import { AriaComponent, GridComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import VChart from 'vue-echarts';
import type { BridgeStep } from '#core/production/bridge';

/** From list price to what is paid, step by step; each step leads to its workings. */
const { steps } = defineProps<{ steps: readonly BridgeStep[] }>();
const emit = defineEmits<{ open: [workings: string] }>();
use([BarChart, GridComponent, AriaComponent, SVGRenderer]);

const INK = 'var(--ink)';
const ROW = 27;
/** Binary numbers are for the lengths of bars alone; every figure is printed from its own text. */
const bars = computed(() =>
  steps.map(({ kind, value, after }) => {
    const [change, end] = [Number(value), Number(after)];
    const start = kind === 'level' ? 0 : end - change;
    return { start: Math.min(start, end), length: Math.abs(end - start), kind, falls: kind === 'change' && change < 0 };
  }),
);
const option = computed(() => ({
  animation: false,
  aria: {
    enabled: true,
    label: { description: `Price bridge: ${steps.map(({ label, text }) => `${label} ${text}`).join(', ')}.` },
  },
  grid: { left: 96, right: 104, top: 2, bottom: 2 },
  xAxis: { type: 'value', show: false },
  yAxis: {
    type: 'category',
    inverse: true,
    data: steps.map(({ label }) => label),
    axisTick: { show: false },
    axisLine: { show: false },
    triggerEvent: true,
    axisLabel: { color: INK, fontFamily: 'IBM Plex Sans', fontSize: 12, width: 90, overflow: 'truncate', margin: 8 },
  },
  series: [
    {
      type: 'bar',
      stack: 'bridge',
      silent: true,
      itemStyle: { color: 'transparent' },
      data: bars.value.map(({ start, kind }) => (kind === 'level' ? 0 : start)),
    },
    {
      type: 'bar',
      stack: 'bridge',
      barWidth: 13,
      cursor: 'pointer',
      data: bars.value.map(({ length, kind, falls }) => ({
        value: length,
        itemStyle: { color: kind === 'level' ? INK : falls ? 'var(--brass)' : 'var(--slate)' },
      })),
    },
  ],
}));

function chosen({
  dataIndex,
  value,
  componentType,
}: {
  dataIndex?: number;
  value?: unknown;
  componentType?: string;
}): void {
  const step = componentType === 'yAxis' ? steps.find(({ label }) => label === value) : steps[dataIndex ?? -1];
  if (step) emit('open', step.workings);
}
</script>

<template>
  <figure class="bridge">
    <VChart
      class="chart"
      :option="option"
      :style="{ height: `${steps.length * ROW + 4}px` }"
      autoresize
      @click="chosen"
    />
    <ol class="values">
      <li v-for="step in steps" :key="step.workings" :class="step.kind">
        <button
          type="button"
          :aria-label="`${step.label}, ${step.text}: workings`"
          @click="emit('open', step.workings)"
        >
          {{ step.text }}
        </button>
      </li>
    </ol>
  </figure>
</template>

<style scoped>
.bridge {
  position: relative;
  margin: 0 -4px 10px;
}
.chart {
  width: 100%;
}
.values {
  position: absolute;
  inset: 2px 4px 2px auto;
  width: 100px;
  display: grid;
}
.values button {
  width: 100%;
  height: 100%;
  padding: 0;
  background: none;
  border: 0;
  font-size: 12px;
  text-align: end;
  white-space: nowrap;
  cursor: pointer;
}
.level button {
  font-weight: 600;
}
</style>
