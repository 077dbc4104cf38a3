<script setup lang="ts">
import { useMeStore } from '~/stores/me';

definePageMeta({ layout: 'plain' });
useHead({ title: 'Join – Lumbix' });
const store = useMeStore();
/** The part of the address that no server sees. */
const token = ref('');
const password = ref('');
const name = ref('');
const email = ref('');
const { busy, problem, attempt } = useAttempt();
const loaded = useLoaded(() => callServer('POST /invitation', { body: { token: token.value } }));

onMounted(() => {
  token.value = window.location.hash.slice(1);
  void loaded.reload();
});

async function accept(): Promise<void> {
  const invited = loaded.value.value!;
  const isIn = await attempt(async () => {
    const body = {
      token: token.value,
      password: password.value,
      name: invited.name ? undefined : name.value.trim(),
      email: invited.email ? undefined : email.value.trim(),
    };
    store.me = await callServer('POST /invitation/accept', { body });
  });
  if (isIn) void navigateTo('/');
}
</script>

<template>
  <div class="join">
    <section v-if="loaded.problem.value" role="alert">
      <h2>{{ loaded.problem.value.title }}</h2>
      <p>{{ loaded.problem.value.detail }}</p>
      <NuxtLink to="/sign-in">To the sign-in page</NuxtLink>
    </section>
    <form v-else-if="loaded.value.value" @submit.prevent="accept">
      <h2 v-if="!loaded.value.value.isNew">A new password for {{ loaded.value.value.name }}</h2>
      <h2 v-else-if="loaded.value.value.name">Welcome, {{ loaded.value.value.name }}</h2>
      <h2 v-else>Welcome: you are the first here</h2>
      <p v-if="loaded.value.value.email">
        You sign in as <b>{{ loaded.value.value.email }}</b>, with the
        {{ loaded.value.value.roles.length === 1 ? 'role' : 'roles' }} {{ loaded.value.value.roles.join(', ') }}.
      </p>
      <p v-else>You look after people and the connection, and invite the others.</p>
      <LabelledField
        v-if="!loaded.value.value.name"
        id="name"
        v-model="name"
        label="Your name"
        autocomplete="name"
        required
      />
      <LabelledField
        v-if="!loaded.value.value.email"
        id="email"
        v-model="email"
        label="E-mail address"
        type="email"
        autocomplete="username"
        required
      />
      <input
        v-else
        class="visually-hidden"
        :value="loaded.value.value.email"
        autocomplete="username"
        tabindex="-1"
        aria-hidden="true"
        readonly
      />
      <LabelledField
        id="password"
        v-model="password"
        label="Password"
        type="password"
        autocomplete="new-password"
        :autofocus="!!loaded.value.value.name"
        hint="At least 12 characters. Four or five words that have nothing to do with each other are easy to keep and hard to guess."
        required
      />
      <RefusedNote :problem="problem" />
      <div><Button type="submit" label="Join" :loading="busy" /></div>
    </form>
  </div>
</template>

<style scoped>
.join {
  padding: 20px 36px 30px;
}
form,
section {
  display: grid;
  gap: 12px;
}
h2 {
  font: 600 16px/22px var(--serif);
}
</style>
