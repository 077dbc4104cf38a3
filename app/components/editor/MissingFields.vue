<script setup lang="ts">
import { fieldsOfCalled } from '~/editor/fields-of';

/** Fields that the draft reads and that the CRM has no longer: each with its places, and what to read instead, in one act. */
const draft = useDraftStore();
const figures = useFiguresStore();
const chosen = ref<Record<string, string>>({});
const opened = ref<string>();
const options = (owner: string) => fieldsOfCalled(draft.opened!.schema, draft.template!.record, owner);
async function replace(field: (typeof figures.missing)[number], by: string | undefined): Promise<void> {
  if (by !== undefined) await figures.replaceField(field, by);
}
</script>

<template>
  <section
    v-if="figures.missing.length > 0 && draft.opened"
    class="missing"
    role="alert"
    aria-label="Fields that are gone"
  >
    <div v-for="field in figures.missing" :key="`${field.owner} ${field.name}`" class="one">
      <span
        >The {{ field.owner }} has no field <b>{{ field.name }}</b>. It is read in
        <button
          type="button"
          class="in-words"
          :aria-expanded="opened === field.name"
          @click="opened = opened === field.name ? undefined : field.name"
        >
          {{ field.places.length === 1 ? 'one place' : `${field.places.length} places` }}</button>.</span
      >
      <span class="act"
        >Replace by
        <PickOne
          :label="`In place of ${field.name}`"
          :value="chosen[field.name] ?? field.likely"
          :options="options(field.owner)"
          placeholder="choose"
          @choose="chosen = { ...chosen, [field.name]: $event }"
        />
        <Button
          label="Replace everywhere"
          size="small"
          :disabled="(chosen[field.name] ?? field.likely) === undefined"
          @click="replace(field, chosen[field.name] ?? field.likely)"
        />
      </span>
      <ul v-if="opened === field.name">
        <li v-for="place in field.places" :key="place">{{ place }}</li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.missing {
  flex: none;
  padding: 6px 16px;
  background: var(--brick-50);
  border-bottom: 1px solid var(--hairline);
}
.one {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
}
.act {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-left: auto;
}
ul {
  width: 100%;
  max-height: 120px;
  overflow: auto;
}
li::before {
  color: var(--ink-quiet);
  content: '· ';
}
</style>
