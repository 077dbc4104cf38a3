<script setup lang="ts">
import { ROLES, ROLE_WORDS, type Role } from '#core/contract/permissions';

/** Which roles somebody or something has, each with what it is for. */
const { offered = ROLES } = defineProps<{ offered?: readonly Role[] }>();
const chosen = defineModel<Role[]>({ required: true });
const id = useId();
</script>

<template>
  <fieldset>
    <legend>Roles</legend>
    <label v-for="role in offered" :key="role" :for="`${id}-${role}`">
      <Checkbox v-model="chosen" :input-id="`${id}-${role}`" :value="role" />
      <span
        ><b>{{ role }}</b> <span class="quiet">{{ ROLE_WORDS[role] }}</span></span
      >
    </label>
  </fieldset>
</template>

<style scoped>
fieldset {
  display: grid;
  gap: 7px;
  margin: 0;
  padding: 0;
  border: 0;
}
legend {
  margin-bottom: 5px;
  padding: 0;
  font-weight: 500;
}
label {
  display: flex;
  gap: 9px;
  align-items: flex-start;
}
b {
  font-weight: 600;
}
b::first-letter {
  text-transform: uppercase;
}
label > span > b {
  display: inline-block;
}
label > span > span {
  display: block;
  font-size: 12px;
  line-height: 16px;
}
</style>
