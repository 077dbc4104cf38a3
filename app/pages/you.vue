<script setup lang="ts">
import { ROLE_WORDS } from '#core/contract/permissions';
import { useMeStore } from '~/stores/me';

/** One’s own account: what one may do, how one signs in, and where one is signed in. */
const store = useMeStore();
const sessions = useLoaded(() => api('GET /me/sessions'));
void sessions.reload();

const end = useAct(sessions.reload);

/** A browser as people call it, from what it says of itself. */
function browserOf(agent: string): string {
  const name = /(Firefox|Edg|OPR|Chrome|Safari)\//.exec(agent)?.[1] ?? '';
  const system = /(Windows|Mac OS X|Android|iPhone|iPad|Linux)/.exec(agent)?.[1] ?? '';
  const called = { Edg: 'Edge', OPR: 'Opera' }[name] ?? name;
  return called ? `${called}${system ? ` on ${system.replace('Mac OS X', 'macOS')}` : ''}` : 'A program';
}
</script>

<template>
  <div v-if="store.me" class="you">
    <WhereAmI :title="store.me.name" />
    <section>
      <div class="who">
        <div>
          <h2 class="name">{{ store.me.name }}</h2>
          <p class="quiet">{{ store.me.email }}</p>
        </div>
        <Button label="Sign out" size="small" severity="secondary" outlined @click="store.signOut" />
      </div>
      <dl>
        <template v-for="role in store.me.roles" :key="role">
          <dt>{{ role }}</dt>
          <dd class="quiet">{{ ROLE_WORDS[role] }}</dd>
        </template>
      </dl>
    </section>
    <section>
      <h2>Where you are signed in</h2>
      <ul>
        <li v-for="each in sessions.value.value ?? []" :key="each.id">
          <span
            >{{ browserOf(each.agent) }} <span class="quiet">at {{ each.address }}</span
            ><br /><span class="quiet"
              >since {{ momentText(each.createdAt) }}, last seen {{ momentText(each.seenAt) }}</span
            ></span
          >
          <span v-if="each.isThis" class="quiet">this one</span>
          <Button
            v-else
            label="Sign out there"
            severity="secondary"
            text
            size="small"
            @click="end(() => api('DELETE /me/sessions/{id}', { parameters: { id: each.id } }), 'Signed out there.')"
          />
        </li>
      </ul>
      <div v-if="(sessions.value.value?.length ?? 0) > 1">
        <Button
          label="Sign out everywhere else"
          size="small"
          severity="secondary"
          outlined
          @click="end(() => api('DELETE /me/sessions'), 'You are signed in here alone.')"
        />
      </div>
    </section>
    <section v-if="store.me.isDemo" class="quiet">
      <h2>Password and one-time codes</h2>
      <p>Accounts of the demo have neither. Invite yourself under Setup, People, to have an account of your own.</p>
    </section>
    <template v-else>
      <section><ChangePassword /></section>
      <section><OneTimeCodes /></section>
    </template>
    <section><OwnTokens /></section>
  </div>
</template>

<style scoped>
.you {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 460px));
  gap: 16px;
  align-content: start;
  height: 100%;
  padding: 20px 24px 40px;
  overflow: auto;
}
@media (max-width: 900px) {
  .you {
    grid-template-columns: minmax(0, 1fr);
  }
}
.you > section {
  display: grid;
  gap: 10px;
  align-content: start;
  padding: 16px 20px 18px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
}
.you :deep(h2) {
  font: 600 14px/18px var(--serif);
}
.you :deep(.name) {
  font-size: 18px;
  line-height: 24px;
}
.who {
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
}
dl {
  display: grid;
  grid-template-columns: 96px 1fr;
  gap: 4px 10px;
}
dt {
  font-weight: 500;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--hairline-soft);
}
</style>
