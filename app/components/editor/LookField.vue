<script setup lang="ts">
import type { LookExample } from '#core/sheet/looks';

/** The look of a value, chosen from what it would print for the record. */
const { value, formula, list, label } = defineProps<{
  label: string;
  value: string | undefined;
  formula: string;
  list?: string;
}>();
const emit = defineEmits<{ choose: [format: string | undefined] }>();
const workshop = useWorkshop();
const figures = useFiguresStore();
const USUAL = '-';
const looks = shallowRef<LookExample[]>([]);
watch(
  () => [formula, list, figures.page] as const,
  async ([source, items]) => (looks.value = await workshop.looks(source, items)),
  { immediate: true },
);
const options = computed(() =>
  looks.value.map(({ format, example }) => ({ value: format ?? USUAL, label: example.replaceAll('\n', ' / ') })),
);
</script>

<template>
  <PickOne
    v-if="options.length > 1"
    :label="label"
    :value="value ?? USUAL"
    :options="options"
    @choose="emit('choose', $event === USUAL ? undefined : $event)"
  />
  <p v-else class="quiet">{{ options[0]?.label ?? 'as it is' }}</p>
</template>
