<script setup lang="ts">
import Papa from 'papaparse';
import { sampleRecord, type Sample } from '#core/template/sample-record';
import { sampleFromJson, sampleFromRows } from '#core/template/sample-text';

/** The made-up record that is kept with a template: typed or pasted as JSON or CSV. */
const open = defineModel<boolean>('open', { required: true });
const emit = defineEmits<{ use: [] }>();
const draft = useDraftStore();
const figures = useFiguresStore();
const workshop = useWorkshop();
const text = ref('');
const beginning = shallowRef<{ schema: object; sample: Sample }>();
const trouble = ref('');

const inJson = (value: object) => JSON.stringify(value, undefined, 2);
/** The real record that is shown, to begin with. */
const real = computed(() => (figures.isSample ? undefined : figures.shown?.record));

onMounted(async () => {
  text.value = draft.template?.sample ? inJson(draft.template.sample) : '';
  try {
    beginning.value = await workshop.sampleFor(toRaw(draft.template!), toRaw(real.value));
    text.value ||= inJson(beginning.value.sample);
  } catch {
    trouble.value = 'A formula of the template cannot be read yet, so it is not known which fields are needed.';
  }
});

const read = computed((): { sample?: Sample; faults: string[] } => {
  const source = text.value.trim();
  if (source === '' || !draft.opened) return { faults: [] };
  const { schema } = draft.opened;
  const { type } = draft.template!.record;
  const given = /^[[{]/.test(source)
    ? sampleFromJson(source)
    : { sample: sampleFromRows(Papa.parse<string[]>(source, { skipEmptyLines: 'greedy' }).data, schema, type) };
  if ('refused' in given) return { faults: [given.refused] };
  const { faults } = sampleRecord(given.sample, schema, type);
  return { sample: given.sample, faults };
});
const schemaAddress = useObjectUrl(
  computed(() => beginning.value && new Blob([inJson(beginning.value.schema)], { type: 'application/json' })),
);

function begin(): void {
  if (beginning.value) text.value = inJson(beginning.value.sample);
}
async function takeFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const [file] = input.files ?? [];
  if (file) text.value = await file.text();
  input.value = '';
}
function keep(sample: Sample | undefined, words: string): void {
  // As it will be read again: without what only a program would see.
  const kept = sample && (JSON.parse(JSON.stringify(sample)) as Sample);
  const { sample: _, ...rest } = draft.template!;
  draft.change(kept ? { ...rest, sample: kept } : rest, { words });
  open.value = false;
}
function use(): void {
  if (!read.value.sample || read.value.faults.length > 0) return;
  keep(read.value.sample, draft.template?.sample ? 'Sample record changed' : 'Sample record added');
  emit('use');
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="Sample record" :style="{ width: '640px' }" :draggable="false">
    <form @submit.prevent="use">
      <p>
        A made-up record that is kept with the template. Values are shown for it and a trial can be opened; nothing is
        ever filed from it. Write JSON, or paste a table (CSV) whose first row names the fields, such as
        <code>name, account.name, lines.name, lines.quantity</code>, with one line item in each row.
      </p>
      <Textarea
        v-model="text"
        aria-label="Fields of the sample record"
        rows="14"
        fluid
        spellcheck="false"
        autofocus
        :invalid="read.faults.length > 0"
      />
      <p class="ways">
        <button v-if="real" type="button" class="in-words" :disabled="!beginning" @click="begin">
          Begin with the record that is shown
        </button>
        <label class="in-words file">
          Choose a file…
          <input type="file" accept=".json,.csv,.txt" class="visually-hidden" @change="takeFile" />
        </label>
        <a v-if="schemaAddress" class="in-words" :href="schemaAddress" download="sample-record.schema.json"
          >JSON Schema of its fields</a
        >
      </p>
      <ul v-if="read.faults.length > 0 || trouble" role="alert" class="faults">
        <li v-if="trouble">{{ trouble }}</li>
        <li v-for="fault in read.faults" :key="fault">{{ fault }}</li>
      </ul>
      <footer>
        <button
          v-if="draft.template?.sample"
          type="button"
          class="in-words delete"
          @click="keep(undefined, 'Sample record deleted')"
        >
          Delete it
        </button>
        <Button type="button" label="Cancel" severity="secondary" text @click="open = false" />
        <Button type="submit" label="Show the values for it" :disabled="!read.sample || read.faults.length > 0" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
}
textarea {
  font: 12px/17px var(--mono);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
}
.file:focus-within {
  outline: 1px solid var(--verdigris);
}
.faults {
  color: var(--brick);
}
.delete {
  margin-inline-end: auto;
  color: var(--brick);
}
</style>
