<script setup lang="ts">
import type { AutoCompleteCompleteEvent, AutoCompleteOptionSelectEvent } from 'primevue/autocomplete';

/** Chooses a record of a type by a few letters of whatever it is found by. Nothing is loaded before somebody looks. */
const { type, name, label } = defineProps<{
  type: string;
  /** What the record is called that is chosen now. */
  name: string;
  label: string;
}>();
const emit = defineEmits<{ choose: [id: string] }>();

interface Offer {
  id: string;
  name: string;
  account: string;
}
const OFFERED = 20;
const typed = ref<string | Offer>(name);
const offers = ref<Offer[]>([]);
const trouble = ref('');
/** Whether the cursor is in it: what comes after it left opens nothing. */
let isHere = false;
function enter({ target }: Event): void {
  isHere = true;
  (target as HTMLInputElement).select();
}
function leave(): void {
  isHere = false;
  reset();
}
const reset = () => (typed.value = name);
watch(() => name, reset);

async function offer({ query }: AutoCompleteCompleteEvent): Promise<void> {
  // Opened as it is, it offers those that are likely to show what a template did not think of.
  const search = query === name || query === '' ? undefined : query;
  const order = search === undefined ? ({ sort: 'awkward', descending: true } as const) : ({ sort: 'name' } as const);
  try {
    const found = await api('GET /records/{type}', {
      parameters: { type },
      query: { search, ...order, top: OFFERED },
    });
    if (!isHere) return;
    offers.value = found.records;
    trouble.value = '';
  } catch (thrown) {
    if (!isHere) return;
    offers.value = [];
    trouble.value = asProblem(thrown).detail;
  }
}
const choose = ({ value }: AutoCompleteOptionSelectEvent) => emit('choose', (value as Offer).id);
</script>

<template>
  <AutoComplete
    v-model="typed"
    :suggestions="offers"
    option-label="name"
    :aria-label="label"
    :min-length="0"
    dropdown
    complete-on-focus
    :delay="150"
    :pt="{ dropdown: { 'aria-label': `${label}: show all` } }"
    size="small"
    :empty-search-message="trouble || 'Nothing has these words'"
    @complete="offer"
    @option-select="choose"
    @blur="leave"
    @focus="enter"
  >
    <template #option="{ option }">
      <span class="name">{{ option.name }}</span>
      <span class="quiet">{{ option.account }}</span>
    </template>
  </AutoComplete>
</template>

<style scoped>
.name {
  margin-right: 8px;
  font-weight: 500;
}
</style>
