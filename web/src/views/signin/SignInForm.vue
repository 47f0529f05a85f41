<script setup lang="ts">
// Address and password, and in demo mode one button.
import { reactive, ref } from 'vue'
import { background } from '../../api/client'
import { signIn, signInDemo } from '../../api/me'
import { useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import WrongNote from '../../parts/WrongNote.vue'

const { email = '' } = defineProps<{ email?: string }>()
const emit = defineEmits<{ done: [] }>()

const form = reactive({ email, password: '' })
const demo = ref('')
const { sending, trouble, send } = useSend()

background
  .GET('/api/sign-in')
  .then(({ data }) => (demo.value = data?.demo ?? ''))
  .catch(() => undefined)

async function enter(how: () => Promise<void>) {
  const done = await send(async () => {
    await how()
    return true
  })
  if (done) emit('done')
}
</script>

<template>
  <form class="stack" @submit.prevent="enter(() => signIn(form.email.trim(), form.password))">
    <FieldRow v-slot="f" label="Email address" :wrong="trouble?.fields.email">
      <ElInput :id="f.id" v-model="form.email" type="email" autocomplete="username" :aria-describedby="f.describedby" />
    </FieldRow>
    <FieldRow v-slot="f" label="Password" :wrong="trouble?.fields.password">
      <ElInput
        :id="f.id"
        v-model="form.password"
        type="password"
        autocomplete="current-password"
        :aria-describedby="f.describedby"
      />
    </FieldRow>
    <WrongNote :trouble="trouble" :shown="['email', 'password']" />
    <div class="row">
      <ElButton type="primary" native-type="submit" :loading="sending">Sign in</ElButton>
      <ElButton v-if="demo" :disabled="sending" @click="enter(signInDemo)">Look round as {{ demo }}</ElButton>
    </div>
    <p v-if="demo" class="quiet small">This is an invented practice to look round in. Nothing in it is real.</p>
  </form>
</template>
