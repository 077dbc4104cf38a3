<script setup lang="ts">
import type { Answer } from '~/composables/api';

/** How Lumbix reaches the CRM. The secret can be set, and is never shown. */
const loaded = useLoaded(() => api('GET /connection'));
const url = ref('');
const clientId = ref('');
const secret = ref('');
const { busy, problem, attempt } = useAttempt();
const told = ref('');
const types = shallowRef<Answer<'POST /connection/test'>['types']>();

async function load(): Promise<void> {
  await loaded.reload();
  const connection = loaded.value.value;
  if (connection) [url.value, clientId.value, secret.value] = [connection.url, connection.clientId, ''];
}
void load();
const changed = computed(() => {
  const kept = loaded.value.value;
  return !!kept && (url.value !== kept.url || clientId.value !== kept.clientId || secret.value !== '');
});

async function save(): Promise<void> {
  [told.value, types.value] = ['', undefined];
  await attempt(async () => {
    await api('PUT /connection', {
      body: { url: url.value.trim(), clientId: clientId.value.trim(), secret: secret.value || undefined },
    });
    await load();
    told.value = 'The CRM let Lumbix in. The connection is kept.';
  });
}

async function test(): Promise<void> {
  [told.value, types.value] = ['', undefined];
  await attempt(async () => {
    ({ types: types.value } = await api('POST /connection/test'));
    told.value = 'The CRM answers.';
  });
}
</script>

<template>
  <ProblemNote v-if="loaded.problem.value" :problem="loaded.problem.value" @again="load" />
  <div v-else class="connection">
    <form @submit.prevent="save">
      <h2>The CRM</h2>
      <LabelledField
        id="crm-url"
        v-model="url"
        label="Address"
        type="url"
        hint="Where its OData service and its tokens are asked for."
        required
      />
      <LabelledField id="crm-client" v-model="clientId" label="Client" required />
      <LabelledField
        id="crm-secret"
        v-model="secret"
        label="Secret"
        type="password"
        autocomplete="new-password"
        placeholder="kept, and not shown"
        hint="Sealed with a key that is not in the database. Leave it empty to keep the one that is there."
      />
      <RefusedNote :problem="problem" />
      <p v-if="told" role="status">{{ told }}</p>
      <div class="act">
        <Button type="submit" label="Test and save" :disabled="!changed" :loading="busy" />
        <Button label="Test now" severity="secondary" outlined :disabled="busy" @click="test" />
        <span v-if="loaded.value.value" class="quiet"
          >{{ loaded.value.value.byPerson ? 'Set here' : 'Set by the start command' }}
          {{ momentText(loaded.value.value.changedAt) }}</span
        >
      </div>
    </form>
    <section v-if="types">
      <h2>What it has</h2>
      <ul>
        <li v-for="type in types" :key="type.name">
          <b>{{ type.label }}</b> <span class="quiet">{{ type.fields }} fields</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.connection {
  display: grid;
  grid-template-columns: 460px 260px;
  gap: 24px;
  align-items: start;
  padding: 20px 24px 40px;
}
form,
section {
  display: grid;
  gap: 14px;
  padding: 18px 22px 22px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
}
h2 {
  font: 600 14px/18px var(--serif);
}
.act {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
section ul {
  display: grid;
  gap: 5px;
}
section b {
  font-weight: 500;
}
</style>
