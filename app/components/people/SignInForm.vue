<script setup lang="ts">
import type { Me } from '~/stores/me';

/** Signs in: name and password, then a one-time code where the person has them; or an account of the demo, with a click. */
const { email: known } = defineProps<{
  /** Of whoever was signed in before. */
  email?: string;
}>();
const emit = defineEmits<{ in: [me: Me] }>();

const email = ref(known ?? '');
const password = ref('');
const code = ref('');
const needsCode = ref(false);
const { busy, problem, attempt } = useAttempt();
const demo = useLoaded(() => callServer('GET /sign-in'));
void demo.reload();

async function signIn(): Promise<void> {
  const body = { email: email.value.trim(), password: password.value, code: needsCode.value ? code.value : undefined };
  await attempt(async () => emit('in', await callServer('POST /sign-in', { body })));
  code.value = '';
  if (problem.value?.reason !== 'code' || needsCode.value) return;
  // No mistake: the next question.
  needsCode.value = true;
  problem.value = undefined;
}

const signInToDemo = (id: string) =>
  attempt(async () => emit('in', await callServer('POST /sign-in/demo', { body: { id } })));

/** What is offered is shown at once, so that nothing jumps. */
const isReady = computed(() => demo.value.value !== undefined || demo.problem.value !== undefined);
const accounts = computed(() => demo.value.value?.demo ?? []);
</script>

<template>
  <div v-if="isReady">
    <section v-if="accounts.length > 0" class="demo" aria-labelledby="demo">
      <h2 id="demo">Try the demo</h2>
      <ul>
        <li v-for="(account, index) in accounts" :key="account.id">
          <button type="button" :class="{ whole: index === 0 }" :disabled="busy" @click="signInToDemo(account.id)">
            <b>{{ account.name }}</b> <span>{{ account.roles.join(', ') }}</span>
          </button>
        </li>
      </ul>
    </section>
    <form :class="{ second: accounts.length > 0 }" @submit.prevent="signIn">
      <h2>{{ accounts.length > 0 ? 'Or sign in with your own account' : 'Sign in' }}</h2>
      <template v-if="!needsCode">
        <LabelledField
          id="email"
          v-model="email"
          label="E-mail address"
          type="email"
          autocomplete="username"
          required
          :autofocus="accounts.length === 0"
        />
        <LabelledField
          id="password"
          v-model="password"
          label="Password"
          type="password"
          autocomplete="current-password"
          required
        />
      </template>
      <LabelledField
        v-else
        id="code"
        v-model="code"
        label="One-time code"
        autocomplete="one-time-code"
        hint="Six digits from your app, or one of your recovery codes."
        required
        autofocus
      />
      <RefusedNote :problem="problem" />
      <div class="act">
        <Button type="submit" :label="needsCode ? 'Go on' : 'Sign in'" :loading="busy" />
        <Button
          v-if="needsCode"
          label="Back"
          severity="secondary"
          text
          @click="
            needsCode = false;
            problem = undefined;
          "
        />
        <span v-else class="quiet">Forgotten your password? Ask an administrator for a link.</span>
      </div>
    </form>
  </div>
</template>

<style scoped>
h2 {
  margin-bottom: 10px;
  font: 600 14px/18px var(--serif);
}
.demo {
  padding: 18px 0 20px;
}
.demo ul {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.demo button {
  display: grid;
  align-content: start;
  width: 100%;
  height: 100%;
  padding: 8px 11px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 3px;
  text-align: start;
  cursor: pointer;
}
.demo button:hover {
  background: var(--verdigris-50);
  border-color: var(--verdigris);
}
.demo .whole {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--on-colour);
}
.demo .whole:hover {
  background: var(--stone-800);
  border-color: var(--stone-800);
}
.demo b {
  font-weight: 600;
}
.demo span {
  color: var(--ink-quiet);
}
.whole span {
  color: var(--stone-300);
}
form {
  display: grid;
  gap: 12px;
  padding: 18px 0 28px;
}
form h2 {
  margin: 0;
}
.second {
  border-top: 1px solid var(--hairline);
}
.act {
  display: flex;
  align-items: center;
  gap: 12px;
}
</style>
