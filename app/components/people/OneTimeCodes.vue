<script setup lang="ts">
import type { Answer } from '~/composables/api';
import { useMeStore } from '~/stores/me';

/** Turns one-time codes at sign-in on and off. */
const store = useMeStore();
const password = ref('');
const code = ref('');
const begun = shallowRef<Answer<'POST /me/codes'>>();
const recoveryCodes = shallowRef<readonly string[]>();
const isEnding = ref(false);
const { busy, problem, attempt } = useAttempt();

const begin = () =>
  attempt(async () => {
    begun.value = await api('POST /me/codes', { body: { password: password.value } });
    password.value = '';
  });

const confirm = () =>
  attempt(async () => {
    ({ recoveryCodes: recoveryCodes.value } = await api('POST /me/codes/confirm', { body: { code: code.value } }));
    [begun.value, code.value] = [undefined, ''];
    store.me = await api('GET /me');
  });

const end = () =>
  attempt(async () => {
    await api('POST /me/codes/off', { body: { password: password.value, code: code.value } });
    [isEnding.value, recoveryCodes.value, password.value, code.value] = [false, undefined, '', ''];
    store.me = await api('GET /me');
  });
</script>

<template>
  <section class="codes">
    <h2>One-time codes</h2>
    <template v-if="recoveryCodes">
      <p>
        Codes are on. Keep these recovery codes where only you find them: each lets you in once when your app is not at
        hand.
      </p>
      <OneTimeText :text="recoveryCodes.join('\n')" what="Recovery codes" />
      <div>
        <Button
          label="I have saved them"
          size="small"
          severity="secondary"
          outlined
          @click="recoveryCodes = undefined"
        />
      </div>
    </template>
    <template v-else-if="store.me?.codes">
      <p>
        On: at sign-in you are asked for a code of your app.
        <span class="quiet">{{ store.me.recoveryCodes }} recovery codes are left.</span>
      </p>
      <form v-if="isEnding" @submit.prevent="end">
        <LabelledField
          id="end-password"
          v-model="password"
          label="Your password"
          type="password"
          autocomplete="current-password"
          required
        />
        <LabelledField id="end-code" v-model="code" label="A code" autocomplete="one-time-code" required />
        <div><Button type="submit" label="Turn codes off" size="small" :loading="busy" /></div>
      </form>
      <div v-else>
        <Button label="Turn codes off" size="small" severity="secondary" outlined @click="isEnding = true" />
      </div>
    </template>
    <form v-else-if="begun" class="begun" @submit.prevent="confirm">
      <img :src="begun.picture" alt="A code for your app to read" width="150" height="150" />
      <div class="beside">
        <p>
          Have your app for one-time codes read this picture, or type
          <code>{{ begun.secret.match(/.{1,4}/g)!.join(' ') }}</code> into it.
        </p>
        <LabelledField
          id="first-code"
          v-model="code"
          label="The code it shows now"
          autocomplete="one-time-code"
          required
          autofocus
        />
        <div><Button type="submit" label="Turn codes on" size="small" :loading="busy" /></div>
      </div>
    </form>
    <form v-else @submit.prevent="begin">
      <p>Off. With an app for one-time codes, a stolen password alone lets nobody in.</p>
      <LabelledField
        id="codes-password"
        v-model="password"
        label="Your password"
        type="password"
        autocomplete="current-password"
        required
      />
      <div><Button type="submit" label="Begin" size="small" severity="secondary" outlined :loading="busy" /></div>
    </form>
    <RefusedNote :problem="problem" />
  </section>
</template>

<style scoped>
.codes,
form {
  display: grid;
  gap: 10px;
}
.begun {
  grid-template-columns: 150px 1fr;
  gap: 18px;
}
.beside {
  display: grid;
  gap: 10px;
  align-content: start;
}
code {
  font: 12px/18px var(--mono);
}
</style>
