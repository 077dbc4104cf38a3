<script setup lang="ts">
import { LINK } from '#core/rich/link';

/** The address that the chosen words lead to. */
const open = defineModel<boolean>('open', { required: true });
const sheet = useSheetStore();
const before = (sheet.editor?.getAttributes('link').href as string | undefined) ?? '';
const address = ref(before);
/** What people type without a scheme is a page, or an address to write to. */
const whole = computed(() => {
  const typed = address.value.trim();
  if (typed === '' || /^[a-z]+:/i.test(typed)) return typed;
  return /^[^\s/@]+@[^\s/@]+$/.test(typed) ? `mailto:${typed}` : `https://${typed}`;
});
const isRight = computed(() => LINK.test(whole.value) && whole.value.length <= 2_000);
/** With nothing chosen there are no words to lead anywhere. */
const hasWords = computed(() => before !== '' || sheet.editor?.state.selection.empty === false);

function link(): void {
  if (!isRight.value || !hasWords.value) return;
  sheet.editor?.chain().focus().extendMarkRange('link').setMark('link', { href: whole.value }).run();
  open.value = false;
}
function unlink(): void {
  sheet.editor?.chain().focus().extendMarkRange('link').unsetMark('link').run();
  open.value = false;
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="Link" :style="{ width: '420px' }" :draggable="false">
    <form @submit.prevent="link">
      <LabelledField
        id="link-address"
        v-model="address"
        label="Address"
        autofocus
        placeholder="such as example.com/terms, or an e-mail address"
        :hint="hasWords ? undefined : 'Choose the words first that are to lead there.'"
      />
      <p v-if="address.trim() && !isRight" class="fault" role="alert">
        This is no address. Write a page (https://…), an e-mail address or a telephone number (tel:…).
      </p>
      <footer>
        <Button v-if="before" type="button" label="Remove the link" severity="secondary" text @click="unlink" />
        <Button type="button" label="Cancel" severity="secondary" text @click="open = false" />
        <Button type="submit" label="Link" :disabled="!isRight || !hasWords" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
.fault {
  color: var(--brick);
}
</style>
