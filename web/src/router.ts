import { createRouter, createWebHistory } from 'vue-router'
import { whoAmI } from './api/me'
import CaseloadView from './views/horses/CaseloadView.vue'

declare module 'vue-router' {
  interface RouteMeta {
    /** Anybody may see it. */
    open?: boolean
    /** Full screen, without the rail. */
    bare?: boolean
    title: string
  }
}

export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    { path: '/', redirect: '/horses' },
    {
      path: '/sign-in',
      component: () => import('./views/signin/SignInView.vue'),
      meta: { open: true, bare: true, title: 'Sign in' },
    },
    {
      path: '/password',
      component: () => import('./views/signin/PasswordView.vue'),
      meta: { bare: true, title: 'Choose a password' },
    },
    {
      path: '/join',
      component: () => import('./views/signin/JoinView.vue'),
      meta: { open: true, bare: true, title: 'Invitation' },
    },
    { path: '/horses', component: CaseloadView, meta: { title: 'Horses' } },
    { path: '/horses/new', component: () => import('./views/horses/TakeOnView.vue'), meta: { title: 'Take on a horse' } },
    {
      path: '/horses/:id',
      component: () => import('./views/horse/HorseView.vue'),
      props: true,
      meta: { title: 'A horse' },
      children: [
        { path: '', name: 'bridge', component: () => import('./views/horse/BridgeTab.vue'), meta: { title: 'Bridge' } },
        { path: 'assessment', component: () => import('./views/horse/AssessmentTab.vue'), meta: { title: 'Assessment' } },
        { path: 'plan', component: () => import('./views/plan/PlanTab.vue'), meta: { title: 'Plan' } },
        { path: 'progress', component: () => import('./views/progress/ProgressTab.vue'), meta: { title: 'Progress' } },
        { path: 'sessions', component: () => import('./views/horse/SessionsTab.vue'), meta: { title: 'Sessions' } },
        { path: 'reports', component: () => import('./views/horse/ReportsTab.vue'), meta: { title: 'Reports' } },
        { path: 'clips', component: () => import('./views/clips/ClipsTab.vue'), props: true, meta: { title: 'Clips' } },
        { path: 'record', component: () => import('./views/horse/RecordTab.vue'), meta: { title: 'Record' } },
      ],
    },
    {
      path: '/horses/:id/assess/:kase',
      component: () => import('./views/assess/WalkView.vue'),
      props: true,
      meta: { bare: true, title: 'Assessment' },
    },
    {
      path: '/horses/:id/letter/:subject',
      component: () => import('./views/horse/LetterView.vue'),
      props: true,
      meta: { title: 'Letter' },
    },
    {
      path: '/horses/:id/homework/:kase/:person',
      component: () => import('./views/plan/HomeworkView.vue'),
      props: true,
      meta: { title: 'Homework' },
    },
    {
      path: '/guide/:part?',
      component: () => import('./views/methods/GuideView.vue'),
      props: true,
      meta: { title: 'How do I' },
    },
    { path: '/house', component: () => import('./views/house/HouseView.vue'), meta: { title: 'House rules' } },
    { path: '/methods', component: () => import('./views/methods/MethodsView.vue'), meta: { title: 'Methods' } },
    {
      path: '/methods/own/:id',
      component: () => import('./views/methods/OwnLadderView.vue'),
      props: true,
      meta: { title: 'An own ladder' },
    },
    {
      path: '/methods/handbook/:part',
      component: () => import('./views/methods/HandbookView.vue'),
      props: true,
      meta: { title: 'How it judges' },
    },
    {
      path: '/methods/:ladder/:step?',
      component: () => import('./views/methods/LadderView.vue'),
      props: true,
      meta: { title: 'A ladder' },
    },
    {
      path: '/cards/:card',
      component: () => import('./views/methods/SequenceCard.vue'),
      props: true,
      meta: { title: 'Sequence card' },
    },
    { path: '/arena', component: () => import('./views/arena/ArenaDoor.vue'), meta: { title: 'Arena' } },
    {
      path: '/arena/ready/:id',
      component: () => import('./views/arena/ReadyView.vue'),
      props: true,
      meta: { bare: true, title: 'Ready' },
    },
    {
      path: '/arena/memory/:id',
      component: () => import('./views/arena/MemoryView.vue'),
      props: true,
      meta: { title: 'From memory' },
    },
    {
      path: '/arena/:id',
      component: () => import('./views/arena/ArenaView.vue'),
      props: true,
      meta: { bare: true, title: 'Arena' },
    },
    {
      path: '/arena/:id/after',
      component: () => import('./views/arena/AfterView.vue'),
      props: true,
      meta: { title: 'After the session' },
    },
    { path: '/reports/:id', component: () => import('./views/report/ReportView.vue'), props: true, meta: { title: 'Report' } },
    {
      path: '/horses/:id/paper/:kind(closing|file)',
      component: () => import('./views/report/PaperView.vue'),
      props: true,
      meta: { title: 'A paper' },
    },
    {
      path: '/arena/:id/walk',
      component: () => import('./views/arena/walk/WalkView.vue'),
      props: true,
      meta: { bare: true, title: 'Walking home' },
    },
    { path: '/outings', component: () => import('./views/outings/OutingsView.vue'), meta: { title: 'Outings' } },
    { path: '/outings/:id', component: () => import('./views/outings/RoadView.vue'), props: true, meta: { title: 'The road' } },
    {
      path: '/outings/:id/plan',
      component: () => import('./views/outings/PlanRoad.vue'),
      props: true,
      meta: { title: 'Plan an outing' },
    },
    { path: '/day', component: () => import('./views/day/DayView.vue'), meta: { title: 'Day' } },
    { path: '/diary', component: () => import('./views/diary/DiaryView.vue'), meta: { title: 'Diary' } },
    { path: '/diary/roads', component: () => import('./views/diary/RoadsView.vue'), meta: { title: 'Roads' } },
    { path: '/clips/:id', component: () => import('./views/clips/ClipView.vue'), props: true, meta: { title: 'A clip' } },
    { path: '/diary/letters', component: () => import('./views/diary/LettersView.vue'), meta: { title: 'Letters' } },
    { path: '/people', component: () => import('./views/people/PeopleView.vue'), meta: { title: 'People' } },
    { path: '/:rest(.*)', component: () => import('./views/NowhereView.vue'), meta: { title: 'Not here' } },
  ],
})

router.beforeEach(async (to) => {
  if (to.meta.open) return true
  const user = await whoAmI()
  if (!user) return { path: '/sign-in', query: { to: to.fullPath } }
  if (user.must_change && to.path !== '/password') return '/password'
  if (user.person && to.path !== '/password') {
    location.assign('/o/') // an owner has pages of her own
    return false
  }
  return true
})

router.afterEach((to) => {
  document.title = `${to.meta.title} · Ivory Bridge`
})
