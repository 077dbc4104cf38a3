<script setup lang="ts">
/** A small choice beside a list: "Stage: any". */
defineProps<{ label: string; value: string; options: readonly string[] }>();
defineEmits<{ choose: [value: string | undefined] }>();
</script>

<template>
  <label class="choice">
    <span>{{ label }}:</span>
    <select
      :value="value"
      :aria-label="label"
      @change="$emit('choose', ($event.target as HTMLSelectElement).value || undefined)"
    >
      <option value="">any</option>
      <option v-for="option in options" :key="option" :value="option">{{ option }}</option>
    </select>
  </label>
</template>

<style scoped>
.choice {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  height: 26px;
  padding: 0 2px 0 9px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 3px;
  font-size: 12px;
  font-weight: 500;
}
select {
  max-width: 120px;
  padding: 0;
  background: none;
  border: 0;
  font-weight: 500;
}
.choice:focus-within {
  outline: 2px solid var(--verdigris);
  outline-offset: 1px;
}
select:focus {
  outline: none;
}
</style>
