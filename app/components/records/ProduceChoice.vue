<script setup lang="ts">
import type { Answer, ApiProblem } from '~/composables/api';
import { useMeStore } from '~/stores/me';

/** The templates that a document of a record can be made from: the likeliest as the page's own button, those that do not fit put away. */
const { templates, called } = defineProps<{
  templates: Answer<'GET /records/{type}/{id}/templates'> | undefined;
  problem: ApiProblem | undefined;
  /** What the record is called in a sentence: “deal”. */
  called: string;
}>();
const emit = defineEmits<{ produce: [template: string]; again: [] }>();
const store = useMeStore();
const fitting = computed(() => (templates ?? []).filter(({ unfit }) => unfit === null));
const others = computed(() => (templates ?? []).filter(({ unfit }) => unfit !== null));
const areOthersShown = ref(false);
</script>

<template>
  <div class="produce">
    <ProblemNote v-if="problem" :problem="problem" @again="emit('again')" />
    <PermittedButton
      v-for="(template, index) in fitting"
      :key="template.id"
      :label="index === 0 ? `Produce ${template.name}` : template.name"
      :severity="index === 0 ? undefined : 'secondary'"
      :outlined="index > 0"
      fluid
      :why-not="store.mayNot('prove')"
      @press="emit('produce', template.id)"
    />
    <p v-if="templates?.length === 0" class="quiet">
      There is no template for such a {{ called }} yet.
      <NuxtLink v-if="!store.mayNot('publish')" to="/templates">Make one on the shelf of templates</NuxtLink>
      <template v-else>Ask an author for one.</template>
    </p>
    <template v-if="others.length > 0">
      <button
        v-if="fitting.length > 0"
        type="button"
        class="more"
        :aria-expanded="areOthersShown"
        @click="areOthersShown = !areOthersShown"
      >
        {{ others.length === 1 ? 'One template does' : `${others.length} templates do` }} not fit this {{ called }}
      </button>
      <ul v-if="areOthersShown || fitting.length === 0" class="others">
        <li v-for="template in others" :key="template.id">
          <button
            type="button"
            class="name"
            :disabled="store.mayNot('prove') !== undefined"
            @click="emit('produce', template.id)"
          >
            {{ template.name }}
          </button>
          <span class="quiet">{{ template.unfit }}</span>
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.produce {
  display: grid;
  gap: 8px;
  margin-top: 8px;
}
.more,
.name {
  padding: 2px 0;
  background: none;
  border: 0;
  color: var(--verdigris);
  text-align: start;
  cursor: pointer;
}
.more:hover,
.name:hover:not(:disabled) {
  text-decoration: underline;
}
.others {
  display: grid;
  gap: 8px;
}
.others li {
  display: grid;
  font-size: 12px;
  line-height: 16px;
}
.name {
  font-size: 13px;
}
.name:disabled {
  color: var(--ink-quiet);
  cursor: default;
}
</style>
