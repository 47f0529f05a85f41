<script setup lang="ts">
// Over the page, when a sign-in has run out: what was typed stays behind it.
import { ref } from 'vue'
import { me } from '../../api/me'
import SignInForm from './SignInForm.vue'

const emit = defineEmits<{ done: [signedIn: boolean] }>()
const open = ref(true)
let signedIn = false
const user = me.value?.id
const other = ref(false)

function done() {
  other.value = user !== undefined && me.value?.id !== user
  if (other.value) return
  signedIn = true
  open.value = false
}
</script>

<template>
  <ElDialog
    v-model="open"
    title="Sign in again"
    width="420px"
    :close-on-click-modal="false"
    append-to-body
    @closed="emit('done', signedIn)"
  >
    <div class="stack">
      <p>You are signed out. Sign in and go on; what you typed is still there.</p>
      <p v-if="other" class="strong">That is another user than before. Sign in as the same one to go on with this page.</p>
      <SignInForm :email="me?.email" @done="done" />
    </div>
  </ElDialog>
</template>
