<script setup lang="ts">
import type { Use } from '#core/template/where-used';

/** In how many places something is used: a click leads to the only one, or lists them. */
const { uses, formula } = defineProps<{ uses: readonly Use[]; formula: string }>();
const sheet = useSheetStore();
const list = useTemplateRef<{ toggle(event: Event): void; hide(): void }>('list');
const only = computed(() => (uses.length === 1 ? uses[0]!.block : undefined));
function show(event: Event): void {
  if (only.value === undefined) list.value!.toggle(event);
  else sheet.chooseValue(only.value, formula);
}
</script>

<template>
  <button
    v-if="uses.length > 0"
    v-tooltip.right="'Show where it is used'"
    type="button"
    :aria-label="`Used in ${uses.length === 1 ? 'one place' : `${uses.length} places`}: show where`"
    :aria-haspopup="only === undefined ? 'dialog' : undefined"
    @click="show"
  >
    <span>{{ uses.length }}</span>
  </button>
  <span v-else class="none"></span>
  <LazyPopover v-if="uses.length > 0 && only === undefined" ref="list" aria-label="Where it is used">
    <WhereUsed :uses="uses" :formula="formula" @go="list?.hide()" />
  </LazyPopover>
</template>

<style scoped>
button {
  flex: none;
  width: 30px;
  padding: 2px 0;
  background: none;
  border: 0;
  cursor: pointer;
}
span {
  display: inline-block;
  min-width: 15px;
  padding: 0 4px;
  border-radius: 8px;
  background: var(--verdigris-100);
  color: var(--ink);
  font-size: 10.5px;
  line-height: 15px;
}
button:hover span {
  background: var(--verdigris);
  color: var(--sheet);
}
.none {
  flex: none;
  width: 30px;
  padding: 0;
  background: none;
}
</style>
