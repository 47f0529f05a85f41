<script setup lang="ts">
// Two versions of the same thing: yours and the one saved meanwhile. Both are
// shown; what was typed stays until its writer decides.
export interface Difference {
  name: string
  mine: string
  theirs: string
}

const { differences, by = '' } = defineProps<{ differences: Difference[]; by?: string }>()
const emit = defineEmits<{ mine: []; theirs: [] }>()
</script>

<template>
  <section class="sheet stack stale" role="alert">
    <h2>Changed meanwhile{{ by ? ` by ${by}` : '' }}</h2>
    <p>Somebody saved this after you opened it. Nothing of yours is lost: compare, then choose.</p>
    <p v-if="differences.length === 0">Both versions say the same.</p>
    <table v-else>
      <thead>
        <tr>
          <th scope="col">What</th>
          <th scope="col">Yours, not saved</th>
          <th scope="col">Saved now</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="d in differences" :key="d.name">
          <th scope="row">{{ d.name }}</th>
          <td>{{ d.mine || 'empty' }}</td>
          <td>{{ d.theirs || 'empty' }}</td>
        </tr>
      </tbody>
    </table>
    <div class="row">
      <ElButton type="primary" @click="emit('mine')">Save mine over it</ElButton>
      <ElButton @click="emit('theirs')">Take the saved one</ElButton>
    </div>
  </section>
</template>

<style scoped>
.stale {
  border: 2px solid var(--ochre);
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: var(--gap-2);
  border-top: var(--line);
  overflow-wrap: anywhere;
}
</style>
