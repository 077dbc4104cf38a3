<script setup lang="ts">
import { CALCULATIONS, type Calculation } from '#core/calculations';

/** The ready-made calculations, to be taken into the sheet and changed there. */
const visible = defineModel<boolean>('visible', { required: true });
const emit = defineEmits<{ take: [calculation: Calculation] }>();
const chosen = shallowRef<Calculation>(CALCULATIONS[0]!);

const figuresOf = ({ sheet }: Calculation) => [
  ...sheet.perLine.map((figure) => ({ ...figure, of: 'line' })),
  ...sheet.lists.flatMap((list) => list.columns.map((figure) => ({ ...figure, of: list.label.toLowerCase() }))),
  ...sheet.document.map((figure) => ({ ...figure, of: '' })),
];
function take(): void {
  emit('take', chosen.value);
  visible.value = false;
}
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    header="Ready-made calculations"
    :style="{ width: '900px' }"
    :draggable="false"
  >
    <div class="shelf">
      <Listbox
        :model-value="chosen"
        :options="[...CALCULATIONS]"
        data-key="id"
        option-label="label"
        aria-label="Calculations"
        scroll-height="none"
        @update:model-value="chosen = $event ?? chosen"
      />
      <div class="about" role="region" aria-label="About this calculation" tabindex="0">
        <p>{{ chosen.purpose }}</p>
        <table>
          <tbody>
            <tr v-for="figure in figuresOf(chosen)" :key="figure.of + figure.name">
              <td>
                {{ figure.label }}<small v-if="figure.of" class="quiet"> · {{ figure.of }}</small>
              </td>
              <td class="mono">{{ figure.formula }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
    <template #footer>
      <span class="quiet note">Figures with the same name are replaced; all others stay. You can undo it.</span>
      <Button label="Add to the sheet" @click="take" />
    </template>
  </Dialog>
</template>

<style scoped>
.shelf {
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr);
  gap: 20px;
  height: 420px;
}
.shelf > * {
  overflow: auto;
}
table {
  width: 100%;
  margin-top: 12px;
  border-collapse: collapse;
}
td {
  padding: 4px 8px 4px 0;
  border-bottom: 1px solid var(--hairline-soft);
  vertical-align: top;
}
td:first-child {
  width: 190px;
}
td.mono {
  overflow-wrap: anywhere;
}
.note {
  margin-right: auto;
}
</style>
