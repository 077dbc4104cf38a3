<script setup lang="ts">
import { calledRecord } from '#core/record/layout';

/** The records that a template is proved on: chosen by a person, or those that differ most. They are kept with the template. */
const open = defineModel<boolean>('open', { required: true });
const emit = defineEmits<{ chosen: [] }>();
const draft = useDraftStore();
const proofs = useProofRecordsStore();
const MOST = 20;
const chosen = ref(proofs.records.map(({ id, name }) => ({ id, name })));
const type = computed(() => draft.template!.record.type);
const trouble = ref('');

async function add(id: string): Promise<void> {
  if (chosen.value.some((each) => each.id === id) || chosen.value.length >= MOST) return;
  try {
    const { record, schema } = await api('GET /records/{type}/{id}', { parameters: { type: type.value, id } });
    chosen.value = [...chosen.value, { id, name: calledRecord(record, schema) }];
    trouble.value = '';
  } catch (thrown) {
    trouble.value = asProblem(thrown).detail;
  }
}
function remove(id: string): void {
  chosen.value = chosen.value.filter((each) => each.id !== id);
}
function keep(ids: string[] | undefined): void {
  const { proofRecords: _, ...rest } = draft.template!;
  draft.change({ ...rest, ...(ids && { proofRecords: ids }) }, { words: 'Proof records chosen' });
  open.value = false;
  emit('chosen');
}
</script>

<template>
  <Dialog v-model:visible="open" header="Records to prove on" modal :style="{ width: '480px' }">
    <div class="choose">
      <p class="quiet">Take awkward ones: many lines, other currencies and languages, what is blank.</p>
      <ul>
        <li v-for="{ id, name } in chosen" :key="id">
          <span
            >{{ name }} <span class="quiet">{{ id }}</span></span
          >
          <button type="button" class="in-words" :aria-label="`Leave ${name} out`" @click="remove(id)">
            Leave out
          </button>
        </li>
      </ul>
      <RecordPicker
        v-if="chosen.length < MOST"
        :key="chosen.length"
        :type="type"
        name=""
        label="Add a record"
        @choose="add"
      />
      <p v-if="trouble" class="fault" role="alert">{{ trouble }}</p>
      <div class="acts">
        <button type="button" class="in-words" @click="keep(undefined)">Take those that differ most</button>
        <Button label="Cancel" type="button" size="small" severity="secondary" text @click="open = false" />
        <Button
          label="Prove on these"
          size="small"
          :disabled="chosen.length === 0"
          @click="keep(chosen.map(({ id }) => id))"
        />
      </div>
    </div>
  </Dialog>
</template>

<style scoped>
.choose {
  display: grid;
  gap: 10px;
}
ul {
  max-height: 300px;
  overflow: auto;
  border-block: 1px solid var(--hairline);
}
li {
  display: flex;
  gap: 10px;
  justify-content: space-between;
  padding: 4px 0;
}
.acts {
  display: flex;
  gap: 8px;
  align-items: center;
}
.acts .in-words {
  margin-right: auto;
}
.fault {
  color: var(--brick);
}
</style>
