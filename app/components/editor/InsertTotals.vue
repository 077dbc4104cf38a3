<script setup lang="ts">
import type { TotalId, TotalOffer } from '#core/template/design/totals';

/** Which totals are put in; what the figure sheet lacks for them is made from the ready-made calculations. */
const open = defineModel<boolean>('open', { required: true });
const draft = useDraftStore();
const sheet = useSheetStore();
const workshop = useWorkshop();
const offers = shallowRef<TotalOffer[]>();
const wanted = ref<TotalId[]>([]);
watch(
  open,
  async (isOpen) => {
    if (!isOpen) return;
    offers.value = await workshop.totalsOffered(draft.template!);
    wanted.value = offers.value.filter(({ isUsual }) => isUsual).map(({ id }) => id);
  },
  { immediate: true },
);
async function put(): Promise<void> {
  open.value = false;
  await sheet.insertTotals(wanted.value);
}
</script>

<template>
  <Dialog v-model:visible="open" header="Totals" modal :style="{ width: '420px' }">
    <form class="totals" @submit.prevent="put">
      <p v-if="offers?.length === 0">These records have no fields that totals can be computed from.</p>
      <label v-for="{ id, label, isThere } in offers" :key="id" class="check">
        <Checkbox v-model="wanted" :value="id" />
        <span>{{ label }}</span>
        <span v-if="!isThere" class="quiet">is made for it</span>
      </label>
      <p class="quiet">
        The net amounts of the lines add up to the subtotal, and the tax by category to the tax: both are proved on
        every document.
      </p>
      <div class="acts">
        <Button label="Cancel" type="button" size="small" severity="secondary" text @click="open = false" />
        <Button label="Put in" type="submit" size="small" :disabled="wanted.length === 0" />
      </div>
    </form>
  </Dialog>
</template>

<style scoped>
.totals {
  display: grid;
  gap: 10px;
}
.check {
  display: flex;
  gap: 8px;
  align-items: center;
}
.acts {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
