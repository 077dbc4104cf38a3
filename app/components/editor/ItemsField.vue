<script setup lang="ts">
import { writeCondition } from '#core/condition/condition';
import { readItems } from '#core/condition/read';

/** A list, and which of its items: chosen where its formula is of that shape, else written. */
const { source, label } = defineProps<{ source: string | undefined; label: string; list?: string }>();
const emit = defineEmits<{ write: [source: string] }>();

const { groups } = useOfferedSubjects(() => undefined);
const lists = computed(() => groups.value.flatMap(({ subjects }) => subjects.filter(({ kind }) => kind === 'records')));
/** The list as a rule about it has it: with what its items have to be. */
const rule = computed(() => readItems(source ?? ''));
const isOffered = computed(() => lists.value.some(({ formula }) => formula === rule.value?.subject));
const asFormula = ref(false);
const options = computed(() => lists.value.map(({ formula, label: words }) => ({ value: formula, label: words })));
const filter = computed(() => rule.value?.where && writeCondition(rule.value.where));
const write = (list: string, condition: string | undefined) =>
  emit('write', condition === undefined ? list : `${list}[${condition}]`);
</script>

<template>
  <template v-if="rule && isOffered && !asFormula">
    <PickOne :label="label" :value="rule.subject" :options="options" @choose="write($event, undefined)" />
    <span class="quiet">{{ filter ? 'only those of which' : '' }}</span>
    <ConditionBuilder
      :source="filter"
      :label="`Which of ${label.toLowerCase()}`"
      :list="rule.subject"
      optional
      @write="write(rule!.subject, $event)"
    />
  </template>
  <template v-else>
    <FormulaField :source="source" :label="label" :list="list" @write="$event && emit('write', $event)" />
    <button v-if="asFormula" type="button" class="in-words" @click="asFormula = false">Choose from a list</button>
  </template>
</template>
