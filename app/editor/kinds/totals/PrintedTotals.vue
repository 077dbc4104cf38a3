<script setup lang="ts">
import type { ComposedTotals } from '#core/template/blocks/totals';
import PrintedRuns from '../../printed/PrintedRuns.vue';

/** Totals as they print. */
defineProps<{ totals: ComposedTotals }>();
</script>

<template>
  <table class="totals">
    <tbody>
      <tr v-for="(row, at) in totals.rows" :key="at" :class="{ total: row.emphasis }">
        <td><PrintedRuns :runs="row.label" /></td>
        <td class="amount"><PrintedRuns :runs="row.value" /></td>
      </tr>
    </tbody>
  </table>
</template>
