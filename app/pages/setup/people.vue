<script setup lang="ts">
import type { MenuItem } from 'primevue/menuitem';
import type { Role } from '#core/contract/permissions';
import type { Answer } from '~/composables/api';
import { useMeStore } from '~/stores/me';

type Person = Answer<'GET /people'>['people'][number];

const store = useMeStore();
const loaded = useLoaded(() => api('GET /people'));
void loaded.reload();
const words = ref('');
const inviting = ref(false);
/** Whose roles are being changed, and to what. */
const changing = shallowRef<Person>();
const roles = ref<Role[]>([]);
/** A link that was just made for somebody. */
const link = shallowRef<{ name: string; text: string }>();
const menu = useTemplateRef<{ toggle(event: Event): void }>('menu');
const chosen = shallowRef<Person>();

const shown = computed(() =>
  (loaded.value.value?.people ?? []).filter(({ name, email }) =>
    `${name} ${email}`.toLowerCase().includes(words.value.trim().toLowerCase()),
  ),
);

const act = useAct(loaded.reload);

const actions = computed<MenuItem[]>(() => {
  const person = chosen.value;
  if (!person) return [];
  const parameters = { id: person.id };
  return [
    { label: 'Change roles', command: () => ([changing.value, roles.value] = [person, [...person.roles]]) },
    {
      label: 'Sign out everywhere',
      disabled: person.sessions === 0,
      command: () => act(() => api('DELETE /people/{id}/sessions', { parameters }), `${person.name} is signed out.`),
    },
    {
      label: 'Link for a new password',
      disabled: person.isDemo || !!person.withdrawnAt,
      command: () => makeLink(person),
    },
    {
      label: person.withdrawnAt ? 'Give access again' : 'Take access away',
      command: () => setWithdrawn(person, !person.withdrawnAt),
    },
    { label: 'What they did', command: () => navigateTo({ path: '/setup/trail', query: { person: person.id } }) },
  ];
});

function openMenu(event: Event, person: Person): void {
  chosen.value = person;
  menu.value?.toggle(event);
}

const setWithdrawn = ({ id, name }: Person, withdrawn: boolean) =>
  act(
    () => api('PUT /people/{id}/withdrawn', { parameters: { id }, body: { withdrawn } }),
    withdrawn ? `${name} has no access any more. What they did stays under their name.` : `${name} has access again.`,
  );

async function makeLink({ id, name }: Person): Promise<void> {
  await act(async () => {
    const made = await api('POST /people/{id}/link', { parameters: { id } });
    link.value = { name, text: `${window.location.origin}${made.link}` };
  }, `The link is for ${name} alone.`);
}

async function changeRoles(): Promise<void> {
  const { id, name } = changing.value!;
  changing.value = undefined;
  await act(
    () => api('PUT /people/{id}/roles', { parameters: { id }, body: { roles: roles.value } }),
    `${name} is ${roles.value.join(', ')} now, and signs in again.`,
  );
  if (id === store.me?.id) store.me = await callServer('GET /me');
}
</script>

<template>
  <ProblemNote v-if="loaded.problem.value" :problem="loaded.problem.value" @again="loaded.reload" />
  <div v-else class="people">
    <div class="bar">
      <SearchField :value="words" label="Search people" @search="words = $event" />
      <Button label="Invite a person" size="small" @click="inviting = true" />
    </div>
    <DataTable :value="shown" data-key="id" sort-field="name" :sort-order="1">
      <Column field="name" header="Person" sortable
        ><template #body="{ data }"
          ><b :class="{ gone: data.withdrawnAt }">{{ data.name }}</b>
          <span v-if="data.id === store.me?.id" class="mark">you</span>
          <span v-if="data.isDemo" class="mark">demo</span>
          <span class="quiet below">{{ data.email }}</span></template
        ></Column
      >
      <Column header="Roles"
        ><template #body="{ data }">{{ data.roles.join(', ') }}</template></Column
      >
      <Column header="One-time codes"
        ><template #body="{ data }"
          ><span :class="{ quiet: !data.codes }">{{ data.codes ? 'on' : 'off' }}</span></template
        ></Column
      >
      <Column field="seenAt" header="Last here" sortable
        ><template #body="{ data }"
          ><span v-if="data.withdrawnAt" class="quiet">access taken away {{ momentText(data.withdrawnAt) }}</span>
          <span v-else-if="data.seenAt"
            >{{ momentText(data.seenAt)
            }}<span v-if="data.sessions > 0" class="quiet"
              >, signed in at {{ data.sessions === 1 ? 'one place' : `${data.sessions} places` }}</span
            ></span
          >
          <span v-else class="quiet">not yet</span></template
        ></Column
      >
      <Column class="end"
        ><template #body="{ data }"
          ><Button
            label="…"
            severity="secondary"
            text
            size="small"
            aria-haspopup="menu"
            :aria-label="`What to do with ${data.name}`"
            @click="openMenu($event, data)" /></template
      ></Column>
      <template #empty
        ><TableSkeleton v-if="loaded.loading.value" /><EmptyNote v-else title="No matching people"
          >Search for less.</EmptyNote
        ></template
      >
    </DataTable>
    <Menu ref="menu" :model="actions" popup />

    <template v-if="(loaded.value.value?.invitations.length ?? 0) > 0">
      <h2>Links that were not used yet</h2>
      <ul class="list">
        <li v-for="each in loaded.value.value!.invitations" :key="each.id">
          <span
            ><b>{{ each.name || 'First administrator' }}</b> <span class="quiet">{{ each.email }}</span></span
          >
          <span>{{ each.isNew ? each.roles.join(', ') : 'a new password' }}</span>
          <span class="quiet">by {{ each.invitedBy }}, works until {{ momentText(each.expiresAt) }}</span>
          <Button
            label="Withdraw"
            severity="secondary"
            text
            size="small"
            @click="
              act(
                () => api('DELETE /people/invitations/{id}', { parameters: { id: each.id } }),
                `The link for ${each.name} does not work any more.`,
              )
            "
          />
        </li>
      </ul>
    </template>

    <template v-if="(loaded.value.value?.tokens.length ?? 0) > 0">
      <h2>Tokens of programs</h2>
      <ul class="list">
        <li v-for="each in loaded.value.value!.tokens" :key="each.id">
          <span
            ><b>{{ each.name }}</b> <span class="quiet">of {{ each.person }}</span></span
          >
          <span>{{ each.roles.join(', ') }}</span>
          <span class="quiet"
            >{{ each.lastUsedAt ? `last used ${momentText(each.lastUsedAt)}` : 'not used yet' }}, works until
            {{ momentText(each.expiresAt) }}</span
          >
          <Button
            label="Withdraw"
            severity="secondary"
            text
            size="small"
            @click="
              act(
                () => api('DELETE /people/tokens/{id}', { parameters: { id: each.id } }),
                `The token “${each.name}” does not work any more.`,
              )
            "
          />
        </li>
      </ul>
    </template>

    <InvitePerson v-model:open="inviting" @invited="loaded.reload" />
    <Dialog
      :visible="changing !== undefined"
      modal
      :header="`Roles of ${changing?.name}`"
      :style="{ width: '440px' }"
      @update:visible="changing = undefined"
    >
      <RoleChoice v-model="roles" />
      <template #footer><Button label="Change roles" :disabled="roles.length === 0" @click="changeRoles" /></template>
    </Dialog>
    <Dialog
      :visible="link !== undefined"
      modal
      :header="`A new password for ${link?.name}`"
      :style="{ width: '460px' }"
      @update:visible="link = undefined"
    >
      <p class="told">
        Give this link to {{ link?.name }}. It works once, for three days, and turns one-time codes off.
      </p>
      <OneTimeText :text="link?.text ?? ''" what="Link" />
    </Dialog>
  </div>
</template>

<style scoped>
.people {
  max-width: 1040px;
  padding: 16px 24px 40px;
}
.bar {
  display: flex;
  justify-content: space-between;
  margin-bottom: 12px;
}
.people :deep(.p-datatable) {
  border: 1px solid var(--hairline);
  border-bottom: 0;
}
.people :deep(.p-datatable-tbody > tr) {
  cursor: default;
}
.below {
  display: block;
  font-size: 12px;
}
b {
  font-weight: 600;
}
.gone {
  color: var(--ink-quiet);
  text-decoration: line-through;
}
.mark {
  margin-left: 4px;
  padding: 0 5px;
  background: var(--desk);
  border-radius: 2px;
  color: var(--ink-quiet);
  font-size: 11px;
}
h2 {
  margin: 28px 0 8px;
  font: 600 14px/18px var(--serif);
}
.list {
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-bottom: 0;
}
.list li {
  display: grid;
  grid-template-columns: 1.4fr 1fr 1.4fr 80px;
  gap: 12px;
  align-items: center;
  padding: 6px 10px;
  border-bottom: 1px solid var(--hairline-soft);
}
.told {
  margin-bottom: 12px;
}
</style>
