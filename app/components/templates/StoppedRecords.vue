<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/** Records that a template would stop on: nothing is published until somebody says why it is right all the same. */
const { problem, busy } = defineProps<{ problem: ApiProblem | undefined; busy: boolean }>();
const emit = defineEmits<{ publish: [reason: string]; close: [] }>();
const reason = ref('');
const records = computed(() => problem?.records ?? []);
const given = computed(() => reason.value.trim());
watch(
  () => problem,
  (stopped) => {
    if (!stopped) reason.value = '';
  },
);

function publish(): void {
  if (given.value && !busy) emit('publish', given.value);
}
</script>

<template>
  <Dialog
    :visible="problem !== undefined"
    modal
    :header="problem?.title"
    :style="{ width: '620px' }"
    :draggable="false"
    @update:visible="emit('close')"
  >
    <p>
      Nothing was published yet. The template was tried on records that differ most from each other;
      {{ records.length === 1 ? 'this one' : `these ${records.length}` }} could not be filed with it:
    </p>
    <ul>
      <li v-for="record in records" :key="record.id">
        <NuxtLink :to="recordPath(record.type, record.id)" target="_blank">{{ record.name }}</NuxtLink>
        <p v-for="sentence in record.sentences.slice(0, 3)" :key="sentence" class="quiet">{{ sentence }}</p>
        <p v-if="record.sentences.length > 3" class="quiet">And {{ record.sentences.length - 3 }} more.</p>
      </li>
    </ul>
    <form @submit.prevent="publish">
      <label for="stops-reason">Why publish it all the same</label>
      <InputText id="stops-reason" v-model="reason" fluid autofocus maxlength="500" placeholder="because …" />
      <p class="quiet note">The reason and the records are kept with the version.</p>
      <footer>
        <Button type="button" label="Back" severity="secondary" text @click="emit('close')" />
        <Button type="submit" label="Publish" :disabled="!given" :loading="busy" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
ul {
  max-height: 320px;
  margin: 12px 0 16px;
  padding: 0;
  overflow: auto;
  border-top: 1px solid var(--hairline);
  list-style: none;
}
li {
  padding: 8px 0;
  border-bottom: 1px solid var(--hairline);
}
label {
  display: block;
  margin-bottom: 4px;
  font-weight: 600;
}
.note {
  margin-top: 6px;
}
</style>
