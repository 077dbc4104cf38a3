<script setup lang="ts">
import type { DocumentChange } from '#core/production/document-change';
import type { Proof } from '~/stores/proof';

/** The PDF files that are joined to the end of a document: its template’s, its record’s, and those that are joined to this one alone. */
const { proof, make } = defineProps<{
  proof: Proof;
  frozen: boolean;
  /** Gives whether it was done. */
  make: (change: DocumentChange, label: string) => Promise<boolean>;
}>();
const busy = ref(false);
const problems = ref<string[]>([]);
/** Files that were joined to this document alone: whether their pages count. */
const own = computed(
  () => new Map(proof.changes.flatMap(({ change }) => (change.type === 'join' ? [[change.file, change.counted]] : []))),
);
const pages = (count: number) => (count === 1 ? '1 page' : `${count} pages`);

async function join(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const chosen = [...(input.files ?? [])];
  input.value = '';
  problems.value = [];
  busy.value = true;
  for (const file of chosen) {
    const answer = await keepFile(file, 'PDF', 'Add it below a block of the page instead.');
    if ('refused' in answer) problems.value.push(answer.refused);
    else await make({ type: 'join', file: answer.kept.sha256, counted: false }, file.name.slice(0, 300));
  }
  busy.value = false;
}
</script>

<template>
  <ul v-if="proof.annexes.length > 0">
    <li v-for="{ label, sha256, pages: count } in proof.annexes" :key="sha256">
      <a
        :href="addressOf('GET /files/{sha256}', { parameters: { sha256 } })"
        target="_blank"
        rel="noopener"
        :aria-label="`Open ${label}`"
        ><bdi>{{ label }}</bdi></a
      ><span class="quiet">, {{ pages(count) }}</span>
      <span v-if="own.has(sha256)" class="counts">
        <Checkbox
          :model-value="own.get(sha256)"
          binary
          :input-id="`counts-${sha256}`"
          :disabled="frozen"
          @update:model-value="make({ type: 'join', file: sha256, counted: $event }, label)"
        />
        <label :for="`counts-${sha256}`"
          >count its pages<span class="visually-hidden"> ({{ label }})</span></label
        >
      </span>
    </li>
  </ul>
  <label v-if="!frozen" class="in-words">
    {{ busy ? 'Joining …' : 'Join PDF files' }}
    <input
      type="file"
      class="visually-hidden"
      accept="application/pdf"
      multiple
      :disabled="busy"
      aria-label="Join PDF files"
      @change="join"
    />
  </label>
  <p v-for="problem in problems" :key="problem" role="alert" class="fault">{{ problem }}</p>
</template>

<style scoped>
li {
  margin-bottom: 4px;
}
.counts {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.in-words:focus-within {
  outline: 2px solid var(--verdigris);
  outline-offset: 1px;
}
.fault {
  color: var(--brick);
}
</style>
