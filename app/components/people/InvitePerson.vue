<script setup lang="ts">
import type { Role } from '#core/contract/permissions';

/** Invites a person, and shows the link that they come in by. */
const open = defineModel<boolean>('open', { required: true });
const emit = defineEmits<{ invited: [] }>();
const name = ref('');
const email = ref('');
const roles = ref<Role[]>(['producer']);
const { busy, problem, attempt } = useAttempt();
const link = ref('');

watch(open, (isOpen) => {
  if (!isOpen) return;
  [name.value, email.value, link.value, problem.value] = ['', '', '', undefined];
  roles.value = ['producer'];
});

const invite = () =>
  attempt(async () => {
    const made = await api('POST /people/invitations', {
      body: { name: name.value.trim(), email: email.value.trim(), roles: roles.value },
    });
    link.value = `${window.location.origin}${made.link}`;
    emit('invited');
  });
</script>

<template>
  <Dialog
    v-model:visible="open"
    modal
    :header="link ? `A link for ${name}` : 'Invite a person'"
    :style="{ width: '460px' }"
  >
    <div v-if="link" class="form">
      <p>Give this link to {{ name }}. It works once, for three days, and leads to where they choose a password.</p>
      <OneTimeText :text="link" what="Link" />
    </div>
    <form v-else class="form" @submit.prevent="invite">
      <LabelledField id="invite-name" v-model="name" label="Name" required autofocus />
      <LabelledField
        id="invite-email"
        v-model="email"
        label="E-mail address"
        type="email"
        hint="They sign in with it. Lumbix sends nothing there."
        required
      />
      <RoleChoice v-model="roles" />
      <RefusedNote :problem="problem" />
      <div><Button type="submit" label="Create the link" :loading="busy" :disabled="roles.length === 0" /></div>
    </form>
  </Dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 14px;
}
</style>
