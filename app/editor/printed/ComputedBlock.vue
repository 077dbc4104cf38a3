<script setup lang="ts">
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3';
import { panelOf } from '../kinds/panels';
import PrintedBlocks from './PrintedBlocks.vue';

/** A block that is computed as a whole, as it prints for the record that is shown. */
const props = defineProps(nodeViewProps);
const figures = useFiguresStore();
const id = computed(() => props.node.attrs.id as string);
const blocks = computed(() => figures.page?.blocks[id.value]);
/** As one text, so that nothing is drawn anew where they are the same. */
const faults = computed(() =>
  (figures.page?.faults ?? [])
    .filter(({ block }) => block === id.value)
    .slice(0, 3)
    .map(({ sentence }) => sentence)
    .join('\n'),
);
const label = computed(() => panelOf(props.node.type.name)?.label ?? '');
</script>

<template>
  <NodeViewWrapper
    class="computed"
    :class="{ chosen: selected }"
    :data-id="id"
    :data-kind="node.type.name"
    data-drag-handle
  >
    <hr v-if="node.type.name === 'divider'" class="divider" />
    <div v-else-if="node.type.name === 'space'" :style="{ height: `${node.attrs.height}pt` }"></div>
    <div v-else-if="node.type.name === 'pageBreak'" class="page-break"><span>next page</span></div>
    <PrintedBlocks v-else-if="blocks && blocks.length > 0" :blocks="blocks" />
    <p v-else class="nothing">{{ blocks ? `${label}: nothing for this record` : label }}</p>
    <p v-if="faults" class="fault">{{ faults }}</p>
  </NodeViewWrapper>
</template>
