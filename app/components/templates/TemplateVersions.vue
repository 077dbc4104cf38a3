<script setup lang="ts">
/** The versions of a template: who published each and when, and why where some records stop on it. */
const { templateId } = defineProps<{ templateId: string }>();
const open = defineModel<boolean>('open', { required: true });
const loaded = useLoaded(() => api('GET /templates/{id}/versions', { parameters: { id: templateId } }));
watch(open, (isOpen) => isOpen && loaded.reload());
</script>

<template>
  <Dialog v-model:visible="open" modal header="Versions" :style="{ width: '460px' }">
    <ProblemNote v-if="loaded.problem.value" :problem="loaded.problem.value" @again="loaded.reload" />
    <ol v-else>
      <li v-for="each in loaded.value.value ?? []" :key="each.versionId">
        <b>{{ each.version }}</b>
        <span>
          {{ each.publishedBy ? `Published by ${each.publishedBy}` : 'Came with Lumbix' }}
          <span class="quiet">{{ momentText(each.publishedAt) }}</span>
          <span v-if="each.note" class="note">{{ each.note }}</span>
          <span v-if="each.reason" class="reason">Stops on some records: {{ each.reason }}</span>
        </span>
        <span v-if="each.isCurrent" class="quiet">in use</span>
      </li>
    </ol>
    <NuxtLink class="in-words" :to="`/templates/${templateId}/versions`">Compare, or go back to one</NuxtLink>
  </Dialog>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 28px 1fr auto;
  gap: 8px;
  padding: 7px 0;
  border-top: 1px solid var(--hairline-soft);
}
b {
  font-weight: 600;
}
.note,
.reason {
  display: block;
}
.reason {
  color: var(--brass-text);
}
</style>
