<script setup lang="ts">
import { reactive } from 'vue'
import { useRouter } from 'vue-router'
import { changePassword, me, signOut } from '../../api/me'
import { useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import WrongNote from '../../parts/WrongNote.vue'

const router = useRouter()
const form = reactive({ old: '', next: '' })
const { sending, trouble, send } = useSend()

async function change() {
  const done = await send(async () => {
    await changePassword(form.old, form.next)
    return true
  })
  if (done) await router.push('/horses')
}

async function leave() {
  await send(() => signOut())
  await router.push('/sign-in')
}
</script>

<template>
  <div class="page stack narrow">
    <h1>{{ me?.must_change ? 'Choose a password of your own' : 'Change your password' }}</h1>
    <p class="quiet">
      10 characters or more; a few words that do not belong together are good. Every other device is signed out.
    </p>
    <form class="sheet stack" @submit.prevent="change">
      <FieldRow v-slot="f" label="Password now" :wrong="trouble?.fields.old">
        <ElInput :id="f.id" v-model="form.old" type="password" autocomplete="current-password" />
      </FieldRow>
      <FieldRow v-slot="f" label="New password" :wrong="trouble?.fields.new">
        <ElInput :id="f.id" v-model="form.next" type="password" autocomplete="new-password" />
      </FieldRow>
      <WrongNote :trouble="trouble" :shown="['old', 'new']" />
      <div class="row">
        <ElButton type="primary" native-type="submit" :loading="sending">Change it</ElButton>
        <ElButton v-if="me?.must_change" @click="leave">Sign out</ElButton>
        <ElButton v-else @click="router.back()">Leave it</ElButton>
      </div>
    </form>
  </div>
</template>

<style scoped>
.narrow {
  max-width: 520px;
  margin: 6vh auto 0;
}
</style>
