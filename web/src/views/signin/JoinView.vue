<script setup lang="ts">
// An invitation, opened: an owner's own account, or a helper's for a day. The token
// stands behind # in the address.
import { reactive } from 'vue'
import { useRouter } from 'vue-router'
import { api, told } from '../../api/client'
import { join } from '../../api/me'
import { useLoad, useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { longDate } from '../../words'

const router = useRouter()
const token = location.hash.slice(1)
const { data, trouble, load } = useLoad(() => told(api.POST('/api/join/look', { body: { token } })))
const form = reactive({ email: '', password: '' })
const sending = useSend()

async function accept() {
  const done = await sending.send(async () => {
    await join(token, form.email, form.password)
    return true
  })
  if (done) await router.push('/horses')
}
</script>

<template>
  <div class="page stack narrow">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <h1>{{ data.practice }} invites {{ data.name }}</h1>
        <p v-if="data.owner">
          To an account of your own: how your horse stands, what you may practise, and where you write it down.
        </p>
        <p v-else>
          To help on {{ longDate(data.on ?? '') }} at {{ data.yard }}. You may log what is asked; the account ends with the day.
        </p>
        <form class="sheet stack" @submit.prevent="accept">
          <FieldRow v-slot="f" label="Your email address" :wrong="sending.trouble.value?.fields.email">
            <ElInput :id="f.id" v-model="form.email" type="email" autocomplete="username" :aria-describedby="f.describedby" />
          </FieldRow>
          <FieldRow
            v-slot="f"
            label="A password"
            hint="10 characters or more; a few words that do not belong together are good."
            :wrong="sending.trouble.value?.fields.password"
          >
            <ElInput
              :id="f.id"
              v-model="form.password"
              type="password"
              autocomplete="new-password"
              :aria-describedby="f.describedby"
            />
          </FieldRow>
          <WrongNote :trouble="sending.trouble.value" :shown="['email', 'password']" />
          <div><ElButton type="primary" native-type="submit" :loading="sending.sending.value">Accept</ElButton></div>
        </form>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.narrow {
  max-width: 520px;
  margin: 6vh auto 0;
}
</style>
