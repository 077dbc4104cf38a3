<script setup lang="ts">
import { DOCUMENT_KINDS, type DocumentKind } from '#core/template/document-kinds';
import type { Answer } from '~/composables/api';
import { useRecordTypesStore } from '~/stores/record-types';

/** Begins a template: from what a document of its kind needs, from another template, or with an empty sheet. */
const { templates } = defineProps<{ templates: readonly Pick<Answer<'GET /templates'>[number], 'id' | 'name'>[] }>();
const open = defineModel<boolean>('open', { required: true });
const emit = defineEmits<{ file: [] }>();
const types = useRecordTypesStore();

const WAYS = [
  {
    value: 'starter',
    label: 'A starter',
    about: 'Address, greeting, table, totals and signature, as the kind asks for.',
  },
  { value: 'copy', label: 'A copy of another template', about: 'With its figures, languages and files.' },
  { value: 'empty', label: 'An empty sheet', about: 'The house style’s header and footer, and a line to write on.' },
] as const;

const name = ref('');
const kind = ref<DocumentKind>('quote');
const recordType = ref<string>();
const way = ref<(typeof WAYS)[number]['value']>('starter');
const copied = ref<string>();
const { busy, problem, attempt } = useAttempt();
const chosenType = computed(() => recordType.value ?? types.types?.[0]?.name);
const isWhole = computed(
  () => name.value.trim() !== '' && (way.value === 'copy' ? !!copied.value : !!chosenType.value),
);

watch(open, (isOpen) => {
  if (!isOpen) return;
  void types.load();
  [name.value, way.value, copied.value] = ['', 'starter', templates[0]?.id];
});

async function begin(): Promise<void> {
  if (!isWhole.value || busy.value) return;
  await attempt(async () => {
    const { id } = way.value === 'copy' ? await copy() : await begun(way.value);
    open.value = false;
    await navigateTo(`/templates/${id}`);
  });
}
const begun = (from: 'starter' | 'empty') =>
  api('POST /drafts/new', {
    body: { name: name.value.trim(), kind: kind.value, recordType: chosenType.value!, from },
  });
async function copy() {
  const { template } = await api('GET /templates/{id}/draft', { parameters: { id: copied.value! } });
  return api('POST /drafts', { body: { template: { ...template, name: name.value.trim() } } });
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="New template" :style="{ width: '520px' }" :draggable="false">
    <form class="new" @submit.prevent="begin">
      <LabelledField
        id="new-template-name"
        v-model="name"
        label="Name"
        required
        autofocus
        placeholder="such as Spring offer"
      />
      <fieldset>
        <legend>Begin with</legend>
        <label v-for="{ value, label, about } in WAYS" :key="value" class="way" :class="{ chosen: way === value }">
          <input v-model="way" type="radio" name="way" :value="value" />
          <span
            ><strong>{{ label }}</strong> <span class="quiet">{{ about }}</span></span
          >
        </label>
      </fieldset>
      <div v-if="way === 'copy'" class="choice">
        <span>Template</span>
        <PickOne
          label="Template"
          :value="copied"
          :options="templates.map((each) => ({ value: each.id, label: each.name }))"
          @choose="copied = $event"
        />
      </div>
      <template v-else>
        <div class="choice">
          <span>Kind of document</span>
          <PickOne
            label="Kind of document"
            :value="kind"
            :options="DOCUMENT_KINDS.map((each) => ({ value: each, label: each }))"
            @choose="kind = $event"
          />
        </div>
        <div v-if="(types.types?.length ?? 0) > 1" class="choice">
          <span>Filled from</span>
          <PickOne
            label="Filled from"
            :value="chosenType"
            :options="(types.types ?? []).map((each) => ({ value: each.name, label: each.label }))"
            @choose="recordType = $event"
          />
        </div>
      </template>
      <RefusedNote :problem="problem ?? types.problem" />
      <footer>
        <Button
          type="button"
          label="Import a file instead"
          severity="secondary"
          text
          class="file"
          @click="
            open = false;
            emit('file');
          "
        />
        <Button type="button" label="Cancel" severity="secondary" text @click="open = false" />
        <Button type="submit" label="Begin" :disabled="!isWhole" :loading="busy" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
.new {
  display: grid;
  gap: 14px;
}
fieldset {
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  border: 0;
}
legend,
.choice > span {
  padding: 0;
  font-weight: 500;
}
.way {
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding: 7px 10px;
  border: 1px solid var(--hairline);
  border-radius: 3px;
  cursor: pointer;
}
.way.chosen {
  border-color: var(--verdigris);
  background: var(--verdigris-50);
}
.way .quiet {
  display: block;
  font-size: 12px;
}
.choice {
  display: grid;
  gap: 3px;
}
.file {
  margin-right: auto;
}
</style>
