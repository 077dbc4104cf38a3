<script setup lang="ts">
/** A field of a form with its label above it and, where need be, a hint below. */
const { id, label, type, autofocus } = defineProps<{
  id: string;
  label: string;
  type?: 'text' | 'email' | 'password' | 'url';
  autocomplete?: string;
  hint?: string;
  placeholder?: string;
  required?: boolean;
  autofocus?: boolean;
}>();
const value = defineModel<string>({ required: true });
const shown = ref(false);
const field = useTemplateRef<{ $el: HTMLInputElement }>('field');
onMounted(() => autofocus && field.value?.$el.focus());
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <div class="line">
      <InputText
        :id="id"
        ref="field"
        v-model="value"
        :type="shown ? 'text' : (type ?? 'text')"
        :autocomplete="autocomplete ?? 'off'"
        :required="required"
        :autofocus="autofocus"
        :placeholder="placeholder"
        :aria-describedby="hint ? `${id}-hint` : undefined"
        spellcheck="false"
      />
      <button v-if="type === 'password'" type="button" :aria-pressed="shown" @click="shown = !shown">
        {{ shown ? 'Hide' : 'Show' }}<span class="visually-hidden"> {{ label }}</span>
      </button>
    </div>
    <p v-if="hint" :id="`${id}-hint`" class="quiet">{{ hint }}</p>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: 3px;
}
label {
  font-weight: 500;
}
.line {
  display: flex;
  background: var(--sheet);
  border: 1px solid var(--ink-off);
  border-radius: 3px;
}
.line:focus-within {
  border-color: var(--verdigris);
  outline: 1px solid var(--verdigris);
}
input {
  flex: 1;
  min-width: 0;
  background: none;
  border: 0;
  outline: none;
}
button {
  padding: 0 9px;
  background: none;
  border: 0;
  color: var(--verdigris);
  font-size: 12px;
  cursor: pointer;
}
p {
  font-size: 12px;
  line-height: 16px;
}
</style>
