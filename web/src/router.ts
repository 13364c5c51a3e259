import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: () => import('./Estate/TodayView.vue'), meta: { title: 'Today' } },
    { path: '/displays', component: () => import('./Display/DisplaysView.vue'), meta: { title: 'Displays' } },
    { path: '/displays/matches', component: () => import('./Display/MatchView.vue'), meta: { title: 'Matches', station: '/displays' } },
    {
      path: '/displays/from-table',
      component: () => import('./Display/TableView.vue'),
      meta: { title: 'Displays from a table', station: '/displays' },
    },
    { path: '/displays/:id', component: () => import('./Display/SurveyView.vue'), props: true, meta: { title: 'Display', station: '/displays' } },
    {
      path: '/displays/:id/wiring',
      component: () => import('./Display/WiringView.vue'),
      props: true,
      meta: { title: 'Wiring sheet', station: '/displays' },
    },
    {
      path: '/displays/:id/seen',
      component: () => import('./Display/SeenView.vue'),
      props: true,
      meta: { title: 'What was seen', station: '/displays' },
    },
    { path: '/media/faces', component: () => import('./Media/FacesView.vue'), meta: { title: 'Type faces' } },
    { path: '/media', component: () => import('./Media/MediaView.vue'), meta: { title: 'Media' } },
    { path: '/data', component: () => import('./Data/SourcesView.vue'), meta: { title: 'Data' } },
    { path: '/data/:id', component: () => import('./Data/SourceView.vue'), props: true, meta: { title: 'Source', station: '/data' } },
    {
      path: '/layouts/styles',
      component: () => import('./Layout/StylesView.vue'),
      meta: { title: 'House styles', station: '/layouts' },
    },
    {
      path: '/layouts/styles/:id',
      component: () => import('./Layout/StyleView.vue'),
      props: true,
      meta: { title: 'House style', station: '/layouts' },
    },
    {
      path: '/displays/settings',
      component: () => import('./Display/SettingsView.vue'),
      meta: { title: 'Settings of places', station: '/displays' },
    },
    {
      path: '/layouts/:id/template',
      component: () => import('./Layout/TemplateView.vue'),
      props: true,
      meta: { title: 'Template', station: '/layouts' },
    },
    { path: '/filled', component: () => import('./Layout/FilledView.vue'), meta: { title: 'Filled in', station: '/layouts' } },
    {
      path: '/filled/:id',
      component: () => import('./Layout/FillingView.vue'),
      props: true,
      meta: { title: 'Filling in', station: '/layouts' },
    },
    { path: '/layouts', component: () => import('./Layout/LayoutsView.vue'), meta: { title: 'Layouts' } },
    {
      path: '/layouts/:id',
      component: () => import('./Layout/ComposerView.vue'),
      props: true,
      meta: { title: 'Layout', station: '/layouts' },
    },
    { path: '/playlists', component: () => import('./Time/PlaylistsView.vue'), meta: { title: 'Playlists' } },
    {
      path: '/playlists/:id',
      component: () => import('./Time/PlaylistView.vue'),
      props: true,
      meta: { title: 'Playlist', station: '/playlists' },
    },
    { path: '/schedules', component: () => import('./Time/SchedulesView.vue'), meta: { title: 'Schedules', station: '/playlists' } },
    {
      path: '/schedules/:id',
      component: () => import('./Time/ScheduleView.vue'),
      props: true,
      meta: { title: 'Schedule', station: '/playlists' },
    },
    { path: '/handover', component: () => import('./Handover/HandoverView.vue'), meta: { title: 'Handover' } },
    { path: '/playback', component: () => import('./Playback/PlaybackView.vue'), meta: { title: 'Playback' } },
    { path: '/bench', component: () => import('./Bench/BenchView.vue'), meta: { title: 'Bench' } },
    { path: '/bin', component: () => import('./ui/BinView.vue'), meta: { title: 'Bin' } },
    { path: '/work', component: () => import('./Playback/WorkView.vue'), meta: { title: 'Work behind the desk', station: '/playback' } },
    { path: '/rehearsal', component: () => import('./Playback/RehearsalView.vue'), meta: { title: 'Rehearsal', station: '/playback' } },
    { path: '/:rest(.*)*', component: () => import('./ui/NotThere.vue'), meta: { title: 'Not there' } },
  ],
})

// After the desk was built anew its files have other names: a page that is still open asks the server for the station. What was typed is kept.
const STALE = 'upper-pane:stale'
router.onError((_, to) => {
  if (sessionStorage.getItem(STALE) === to.fullPath) return
  sessionStorage.setItem(STALE, to.fullPath)
  location.assign(to.fullPath)
})
router.afterEach((to, _, failure) => {
  if (!failure) sessionStorage.removeItem(STALE)
  document.title = `${typeof to.meta.title === 'string' ? to.meta.title : ''} · Upper Pane`
})
