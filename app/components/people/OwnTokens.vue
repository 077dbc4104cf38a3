<script setup lang="ts">
import type { Role } from '#core/contract/permissions';
import { useMeStore } from '~/stores/me';

/** One’s tokens for programs: made here, shown once, withdrawn here. */
const store = useMeStore();
const loaded = useLoaded(() => api('GET /me/tokens'));
void loaded.reload();
const making = ref(false);
const name = ref('');
const LIVES = [
  { value: 7, label: 'a week' },
  { value: 30, label: '30 days' },
  { value: 90, label: '90 days' },
  { value: 365, label: 'a year' },
];
const days = ref(90);
const roles = ref<Role[]>([]);
const token = ref('');
const { busy, problem, attempt } = useAttempt();
const act = useAct(loaded.reload);

watch(making, (isOpen) => {
  if (!isOpen) return;
  [name.value, days.value, token.value, problem.value] = ['', 90, '', undefined];
  roles.value = store.me!.roles.filter((role) => role !== 'administrator');
});

const make = () =>
  attempt(async () => {
    const body = { name: name.value.trim(), roles: roles.value, days: days.value };
    token.value = (await api('POST /me/tokens', { body })).token;
    await loaded.reload();
  });

const withdraw = (id: string, called: string) =>
  act(() => api('DELETE /me/tokens/{id}', { parameters: { id } }), `The token “${called}” does not work any more.`);
</script>

<template>
  <section class="tokens">
    <h2>Tokens for programs</h2>
    <p>
      A program that asks Lumbix for you brings a token. What it can ask is told under
      <NuxtLink to="/setup/programs">Programs</NuxtLink>.
    </p>
    <ul v-if="(loaded.value.value?.length ?? 0) > 0">
      <li v-for="each in loaded.value.value" :key="each.id">
        <span
          ><b>{{ each.name }}</b> <span class="quiet">{{ each.roles.join(', ') }}</span><br /><span class="quiet"
            >{{ each.lastUsedAt ? `last used ${momentText(each.lastUsedAt)}` : 'not used yet' }}, works until
            {{ momentText(each.expiresAt) }}</span
          ></span
        >
        <Button label="Withdraw" severity="secondary" text size="small" @click="withdraw(each.id, each.name)" />
      </li>
    </ul>
    <div><Button label="Create a token" size="small" severity="secondary" outlined @click="making = true" /></div>
    <Dialog
      v-model:visible="making"
      modal
      :header="token ? `The token “${name}”` : 'Create a token'"
      :style="{ width: '440px' }"
    >
      <div v-if="token" class="form"><OneTimeText :text="token" what="Token" /></div>
      <form v-else class="form" @submit.prevent="make">
        <LabelledField id="token-name" v-model="name" label="What it is for" required autofocus />
        <div class="days">
          Valid for <PickOne label="Valid for" :value="days" :options="LIVES" @choose="days = $event" />
        </div>
        <RoleChoice v-model="roles" :offered="store.me?.roles" />
        <RefusedNote :problem="problem" />
        <div><Button type="submit" label="Create token" :loading="busy" :disabled="roles.length === 0" /></div>
      </form>
    </Dialog>
  </section>
</template>

<style scoped>
.tokens,
.form {
  display: grid;
  gap: 10px;
}
.form {
  gap: 14px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--hairline-soft);
}
li b {
  font-weight: 600;
}
.days {
  display: flex;
  gap: 8px;
  align-items: center;
  font-weight: 500;
}
</style>
