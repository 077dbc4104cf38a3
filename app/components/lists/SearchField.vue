<script setup lang="ts">
/** The search of a list. It tells what was typed after a short pause; `/` brings the cursor to it. */
const { value, label } = defineProps<{ value: string; label: string }>();
const emit = defineEmits<{ search: [words: string] }>();
const words = ref(value);
const field = useTemplateRef<{ $el: HTMLInputElement }>('field');
watchDebounced(words, (typed) => typed !== value && emit('search', typed), { debounce: 180 });
// Filters that are cleared elsewhere empty it too, and Back brings back what was searched for.
watch(
  () => value,
  (now) => (words.value = now),
);
useKeys({ '/': () => field.value?.$el.focus() });
</script>

<template>
  <InputText
    ref="field"
    v-model="words"
    type="search"
    class="search"
    :aria-label="label"
    :placeholder="label"
    @keydown.esc="field?.$el.blur()"
  />
</template>

<style scoped>
.search {
  width: 190px;
  height: 26px;
  padding: 3px 9px;
  font-size: 12px;
}
</style>
