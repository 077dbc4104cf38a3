<script setup lang="ts">
/** Changes one’s password. */
const current = ref('');
const chosen = ref('');
const told = ref('');
const { busy, problem, attempt } = useAttempt();

async function change(): Promise<void> {
  told.value = '';
  await attempt(async () => {
    await api('PUT /me/password', { body: { current: current.value, new: chosen.value } });
    [current.value, chosen.value] = ['', ''];
    told.value = 'Changed. Every other place where you were signed in is signed out.';
  });
}
</script>

<template>
  <form @submit.prevent="change">
    <h2>Password</h2>
    <LabelledField
      id="current"
      v-model="current"
      label="Your password now"
      type="password"
      autocomplete="current-password"
      required
    />
    <LabelledField
      id="chosen"
      v-model="chosen"
      label="The new one"
      type="password"
      autocomplete="new-password"
      hint="At least 12 characters; four or five words that have nothing to do with each other are good."
      required
    />
    <RefusedNote :problem="problem" />
    <p v-if="told" role="status">{{ told }}</p>
    <div><Button type="submit" label="Change it" size="small" :loading="busy" /></div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
}
</style>
