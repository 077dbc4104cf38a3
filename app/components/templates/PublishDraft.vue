<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/**
 * Publishes a draft with a word on what is different in it, beside what prints for the records that it is proved on; asks once more
 * where some of them stop on it, or a newer version is there.
 */
const open = defineModel<boolean>('open', { required: true });
const draft = useDraftStore();
const ten = useTenProofsStore();
const note = ref('');
const problem = shallowRef<ApiProblem>();
const stopped = computed(() => (problem.value?.reason === 'stops' ? problem.value : undefined));
const newer = computed(() => (problem.value?.reason === 'template' ? problem.value.version?.versionId : undefined));
/** What a person has agreed to. */
let agreed: { reason?: string; over?: string } = {};
watch(open, (isOpen) => {
  if (!isOpen) return;
  problem.value = undefined;
  agreed = {};
  // What cannot be read now is told when it is published.
  ten.proveWhatIsNew().catch(() => undefined);
});

async function publish(more: typeof agreed = {}): Promise<void> {
  if (draft.busy) return;
  agreed = { ...agreed, ...more };
  problem.value = await draft.publish({ note: note.value.trim() || undefined, ...agreed });
  if (problem.value) return;
  note.value = '';
  open.value = false;
}
</script>

<template>
  <Dialog
    :visible="open && !stopped"
    modal
    header="Publish the draft"
    :style="{ width: '640px' }"
    :draggable="false"
    @update:visible="open = $event"
  >
    <form @submit.prevent="publish(newer === undefined ? {} : { over: newer })">
      <LabelledField
        id="publish-note"
        v-model="note"
        label="What is different (optional)"
        hint="It stands in the list of versions."
        autofocus
      />
      <ol v-if="ten.proofs.length > 0" class="ten" aria-label="Records that it is proved on">
        <li v-for="each in ten.proofs" :key="each.id" v-tooltip.top="[each.name, ...ten.stopsOf(each)].join(': ')">
          <FirstPage :pages="each.proof?.pages" />
          <span class="visually-hidden">{{ each.name }}</span>
          <span v-if="ten.stopsOf(each).length > 0" class="stops">stops</span>
        </li>
      </ol>
      <p>
        <b v-if="ten.isDone">{{ ten.proofs.length - ten.stopped.length }} of {{ ten.proofs.length }} can be filed. </b>
        <span role="status">{{ ten.summary }}</span>
      </p>
      <p class="quiet">
        <NuxtLink :to="`/templates/${draft.template?.id}/prove`">Look at all ten</NuxtLink>
        <template v-if="draft.opened?.version">
          or at
          <NuxtLink :to="`/templates/${draft.template?.id}/replay`">what would have been filed otherwise</NuxtLink>
        </template>
      </p>
      <p v-if="newer !== undefined" class="fault" role="alert">
        Somebody published another version since this draft began. Publishing replaces it; documents already filed stay
        as they are.
      </p>
      <p v-else-if="problem" class="fault" role="alert">
        <b>{{ problem.title }}.</b> {{ problem.detail }}
      </p>
      <footer>
        <Button type="button" label="Cancel" severity="secondary" text @click="open = false" />
        <Button type="submit" :label="newer === undefined ? 'Publish' : 'Replace it'" :loading="draft.busy" />
      </footer>
    </form>
  </Dialog>
  <StoppedRecords
    :problem="open ? stopped : undefined"
    :busy="draft.busy"
    @publish="publish({ reason: $event })"
    @close="open = false"
  />
</template>

<style scoped>
.ten {
  display: grid;
  grid-template-columns: repeat(10, minmax(0, 1fr));
  gap: 8px;
  margin: 14px 0 8px;
}
.ten li {
  position: relative;
}
.stops {
  position: absolute;
  right: 0;
  bottom: 0;
  left: 0;
  padding: 1px 0;
  background: var(--brick);
  color: var(--on-colour);
  font-size: 10.5px;
  text-align: center;
}
.fault {
  margin-top: 10px;
  color: var(--brick);
}
</style>
