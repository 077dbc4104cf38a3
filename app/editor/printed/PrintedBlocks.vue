<script setup lang="ts">
import type { ComposedBlock } from '#core/template/blocks';
import PrintedPicture from '../kinds/picture/PrintedPicture.vue';
import PrintedSignature from '../kinds/signature/PrintedSignature.vue';
import PrintedTable from '../kinds/line-table/PrintedTable.vue';
import PrintedTotals from '../kinds/totals/PrintedTotals.vue';
import PrintedRuns from './PrintedRuns.vue';

/** Blocks as they print, for reading. */
defineProps<{ blocks: readonly ComposedBlock[] }>();
</script>

<template>
  <template v-for="(block, at) in blocks" :key="at">
    <p v-if="block.kind === 'paragraph'" :data-look="block.look" :data-align="block.align">
      <PrintedRuns :runs="block.runs" />
    </p>
    <component :is="`h${block.level}`" v-else-if="block.kind === 'heading'"
      ><PrintedRuns :runs="block.runs"
    /></component>
    <component :is="block.start === undefined ? 'ul' : 'ol'" v-else-if="block.kind === 'list'" :start="block.start">
      <li v-for="(runs, item) in block.items" :key="item"><PrintedRuns :runs="runs" /></li>
    </component>
    <PrintedTable v-else-if="block.kind === 'table'" :table="block" />
    <PrintedTotals v-else-if="block.kind === 'totals'" :totals="block" />
    <PrintedSignature v-else-if="block.kind === 'signature'" :signature="block" />
    <PrintedPicture v-else-if="block.kind === 'picture'" :picture="block" />
    <div v-else-if="block.kind === 'columns'" class="columns">
      <div v-for="(inner, column) in block.columns" :key="column" :style="{ flex: `${block.widths[column]} 1 0` }">
        <PrintedBlocks :blocks="inner" />
      </div>
    </div>
    <div v-else-if="block.kind === 'section' || block.kind === 'keep'"><PrintedBlocks :blocks="block.blocks" /></div>
    <div v-else-if="block.kind === 'space'" :style="{ height: `${block.height}pt` }"></div>
    <hr v-else-if="block.kind === 'divider'" class="divider" />
  </template>
</template>
