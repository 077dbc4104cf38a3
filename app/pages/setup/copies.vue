<script setup lang="ts">
import type { PlaceSettings } from '#core/contract/places';
import { idFor } from '#core/shape/first-free';
import type { Answer } from '~/composables/api';

/** The places where copies of filed documents are kept. Secrets can be set, and are never shown. */
type Kept = Answer<'GET /places'>['places'][number];
const KINDS = [
  { type: 'folder', label: 'Folder' },
  { type: 'webDav', label: 'WebDAV' },
  { type: 's3', label: 'S3' },
] as const;
const loaded = useLoaded(() => api('GET /places'));
const places = computed(() => loaded.value.value?.places ?? []);
const act = useAct(loaded.reload);
const { busy, problem, attempt } = useAttempt();

/** The place that is open; a new one where it has no id yet. */
const open = ref<{ id?: string; label: string; type: PlaceSettings['type'] }>();
const EMPTY = { folder: '', url: '', bucket: '', region: '', user: '', secret: '' };
const fields = reactive({ ...EMPTY });

function edit(place: Kept): void {
  const { id, label, settings } = place;
  open.value = { id, label, type: settings.type };
  Object.assign(fields, { ...EMPTY, ...settings });
}
function add(): void {
  open.value = { label: '', type: 'folder' };
  Object.assign(fields, EMPTY);
}

/** What is shown of a place in a line. */
function whereWords({ settings }: Kept): string {
  switch (settings.type) {
    case 'folder':
      return settings.folder === '' ? 'The folder for copies' : `In the folder for copies: ${settings.folder}`;
    case 'webDav':
      return settings.url;
    case 's3':
      return `${settings.url}, bucket ${settings.bucket}`;
  }
}

function settings(): PlaceSettings {
  const { folder, url, bucket, region, user } = fields;
  switch (open.value!.type) {
    case 'folder':
      return { type: 'folder', folder: folder.trim() };
    case 'webDav':
      return { type: 'webDav', url: url.trim(), user: user.trim() };
    case 's3':
      return { type: 's3', url: url.trim(), bucket: bucket.trim(), region: region.trim(), user: user.trim() };
  }
}

async function save(): Promise<void> {
  const { id, label } = open.value!;
  const kept = await attempt(async () => {
    await api('PUT /places/{id}', {
      parameters: { id: id ?? idFor(label, 'place', places.value) },
      body: { label: label.trim(), settings: settings(), secret: fields.secret || undefined },
    });
    await loaded.reload();
  });
  if (kept) open.value = undefined;
}

const test = ({ id, label }: Kept) =>
  act(() => api('POST /places/{id}/test', { parameters: { id } }), `${label} answers`);

/** The place that is about to go: its secret goes with it, so that is asked once more. */
const removing = ref<string>();
async function remove({ id, label }: Kept): Promise<void> {
  removing.value = undefined;
  await act(() => api('DELETE /places/{id}', { parameters: { id } }), `${label} is gone`);
}
void loaded.reload();
await soon(loaded.first);
</script>

<template>
  <ProblemNote v-if="loaded.problem.value" :problem="loaded.problem.value" @again="loaded.reload" />
  <ListAndForm
    v-else
    title="Places for copies"
    :form-title="open && (open.id ? 'Change the place' : 'New place')"
    @save="save"
  >
    <p class="quiet">A plan’s step keeps a copy of each filed PDF at one of these.</p>
    <ul>
      <li v-for="place in places" :key="place.id">
        <span class="label"
          ><b>{{ place.label }}</b> <span class="quiet">{{ whereWords(place) }}</span></span
        >
        <template v-if="removing === place.id">
          <span class="quiet">What is kept there stays.</span>
          <Button label="Remove it" size="small" severity="secondary" outlined autofocus @click="remove(place)" />
          <Button label="Keep it" size="small" severity="secondary" text @click="removing = undefined" />
        </template>
        <template v-else>
          <Button label="Test" size="small" severity="secondary" text @click="test(place)" />
          <Button label="Change" size="small" severity="secondary" text @click="edit(place)" />
          <Button label="Remove" size="small" severity="secondary" text @click="removing = place.id" />
        </template>
      </li>
    </ul>
    <EmptyNote v-if="places.length === 0" title="No places yet">Add one, then name it in a plan’s step.</EmptyNote>
    <Button class="add" label="Add a place" severity="secondary" outlined size="small" @click="add" />
    <template v-if="open" #form>
      <LabelledField id="place-label" v-model="open.label" label="Name" autofocus required />
      <SelectButton
        v-model="open.type"
        :options="[...KINDS]"
        option-label="label"
        option-value="type"
        :allow-empty="false"
        aria-label="Kind of place"
      />
      <LabelledField
        v-if="open.type === 'folder'"
        id="place-folder"
        v-model="fields.folder"
        label="Folder"
        hint="Within the folder that whoever runs Lumbix chose for copies. Empty for that one itself."
      />
      <template v-else>
        <LabelledField id="place-url" v-model="fields.url" label="Address" type="url" required />
        <template v-if="open.type === 's3'">
          <LabelledField id="place-bucket" v-model="fields.bucket" label="Bucket" required />
          <LabelledField id="place-region" v-model="fields.region" label="Region" required />
        </template>
        <LabelledField
          id="place-user"
          v-model="fields.user"
          :label="open.type === 's3' ? 'Access key' : 'User'"
          autocomplete="off"
          required
        />
        <LabelledField
          id="place-secret"
          v-model="fields.secret"
          :label="open.type === 's3' ? 'Secret key' : 'Password'"
          type="password"
          autocomplete="new-password"
          :placeholder="open.id ? 'kept, and not shown' : ''"
          :required="!open.id"
        />
      </template>
      <RefusedNote :problem="problem" />
      <footer>
        <Button type="button" label="Cancel" severity="secondary" text @click="open = undefined" />
        <Button type="submit" label="Test and save" :loading="busy" />
      </footer>
    </template>
  </ListAndForm>
</template>
