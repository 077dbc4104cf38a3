<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/** What a template file would change here: a person replaces the template, puts the file in as a new one, or leaves it. */
const { problem, busy } = defineProps<{ problem: ApiProblem | undefined; busy: boolean }>();
const emit = defineEmits<{ decide: [as: 'replacement' | 'new']; close: [] }>();
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
    <p>{{ problem?.detail }} Documents already filed stay as they are.</p>
    <TemplateChanges :changes="problem?.templateChanges ?? []" />
    <footer>
      <Button label="Cancel" severity="secondary" text @click="emit('close')" />
      <Button label="As a new template" severity="secondary" :disabled="busy" @click="emit('decide', 'new')" />
      <Button label="Replace" autofocus :loading="busy" @click="emit('decide', 'replacement')" />
    </footer>
  </Dialog>
</template>
