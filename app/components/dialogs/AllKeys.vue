<script setup lang="ts">
/** All keys that do something, in a dialog. */
const open = defineModel<boolean>('open', { required: true });
const keys = [
  ['Ctrl K', 'Find a record, a document or a template'],
  ['Ctrl Enter', 'The dark button of the page: Produce, File'],
  ['[  ]', 'Previous and next record of the list'],
  ['/', 'Search the list'],
  ['↑ ↓ Enter', 'Choose a row of a list'],
  ['R', 'Refresh the record'],
  ['Ctrl P', 'Print the proof, with all of its pages'],
  ['Ctrl Z', 'Undo the last change; in an input, the last typing'],
  ['Ctrl Y', 'Redo it'],
  ['=[', 'On a sheet: bring in a value'],
  ['Ctrl F', 'On a sheet: find and replace'],
  ['Alt ↑ ↓', 'On a sheet: move the block'],
  ['Ctrl D', 'On a sheet: duplicate the block'],
  ['Esc', 'Close what is open; on a sheet, choose the block around'],
  ['?', 'All keys'],
];
</script>

<template>
  <Dialog v-model:visible="open" modal header="Keys" :style="{ width: '400px' }">
    <dl class="keys">
      <template v-for="[key, meaning] in keys" :key="key">
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ meaning }}</dd>
      </template>
    </dl>
  </Dialog>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: 100px 1fr;
  gap: 6px 12px;
}
</style>
