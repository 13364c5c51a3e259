import { createRouter, createWebHistory } from 'vue-router'
import type { Right } from './ui/rights'

declare module 'vue-router' {
  interface RouteMeta {
    title: string
    /** Whose station it stands at in the passage. */
    station?: string
    /** Without this right there is nothing at the address. */
    needs?: Right
  }
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: () => import('./Estate/TodayView.vue'), meta: { title: 'Today' } },
    { path: '/displays', component: () => import('./Display/DisplaysView.vue'), meta: { title: 'Displays' } },
    { path: '/displays/matches', component: () => import('./Display/MatchView.vue'), meta: { title: 'Matches', station: '/displays' } },
    {
      path: '/displays/from-table',
      component: () => import('./Display/TableView.vue'),
      meta: { title: 'Displays from a table', needs: 'survey', station: '/displays' },
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
    { path: '/media/faces', component: () => import('./Media/FacesView.vue'), meta: { title: 'Type faces', needs: 'design' } },
    { path: '/media', component: () => import('./Media/MediaView.vue'), meta: { title: 'Media', needs: 'fill-in' } },
    { path: '/data', component: () => import('./Data/SourcesView.vue'), meta: { title: 'Data', needs: 'design' } },
    {
      path: '/data/:id',
      component: () => import('./Data/SourceView.vue'),
      props: true,
      meta: { title: 'Source', needs: 'design', station: '/data' },
    },
    {
      path: '/layouts/styles',
      component: () => import('./Layout/StylesView.vue'),
      meta: { title: 'House styles', needs: 'design', station: '/layouts' },
    },
    {
      path: '/layouts/styles/:id',
      component: () => import('./Layout/StyleView.vue'),
      props: true,
      meta: { title: 'House style', needs: 'design', station: '/layouts' },
    },
    {
      path: '/displays/settings',
      component: () => import('./Display/SettingsView.vue'),
      meta: { title: 'Settings of places', needs: 'design', station: '/displays' },
    },
    {
      path: '/layouts/:id/template',
      component: () => import('./Layout/TemplateView.vue'),
      props: true,
      meta: { title: 'Template', needs: 'design', station: '/layouts' },
    },
    { path: '/filled', component: () => import('./Layout/FilledView.vue'), meta: { title: 'Filled in', needs: 'fill-in', station: '/layouts' } },
    {
      path: '/filled/:id',
      component: () => import('./Layout/FillingView.vue'),
      props: true,
      meta: { title: 'Filling in', needs: 'fill-in', station: '/layouts' },
    },
    { path: '/layouts', component: () => import('./Layout/LayoutsView.vue'), meta: { title: 'Layouts', needs: 'design' } },
    {
      path: '/layouts/:id',
      component: () => import('./Layout/ComposerView.vue'),
      props: true,
      meta: { title: 'Layout', needs: 'design', station: '/layouts' },
    },
    { path: '/playlists', component: () => import('./Time/PlaylistsView.vue'), meta: { title: 'Playlists', needs: 'design' } },
    {
      path: '/playlists/:id',
      component: () => import('./Time/PlaylistView.vue'),
      props: true,
      meta: { title: 'Playlist', needs: 'design', station: '/playlists' },
    },
    { path: '/schedules', component: () => import('./Time/SchedulesView.vue'), meta: { title: 'Schedules', needs: 'design', station: '/playlists' } },
    {
      path: '/schedules/:id',
      component: () => import('./Time/ScheduleView.vue'),
      props: true,
      meta: { title: 'Schedule', needs: 'design', station: '/playlists' },
    },
    { path: '/overlays', component: () => import('./Overlay/OverlaysView.vue'), meta: { title: 'Overlays', needs: 'hand-over' } },
    {
      path: '/overlays/:id',
      component: () => import('./Overlay/OverlayView.vue'),
      props: true,
      meta: { title: 'Overlay', needs: 'design', station: '/overlays' },
    },
    { path: '/triggers', component: () => import('./Trigger/TriggersView.vue'), meta: { title: 'Triggers', needs: 'design' } },
    {
      path: '/triggers/panels',
      component: () => import('./Trigger/PanelsView.vue'),
      meta: { title: 'Panels', needs: 'design', station: '/triggers' },
    },
    {
      path: '/triggers/panels/:id',
      component: () => import('./Trigger/PanelView.vue'),
      props: true,
      meta: { title: 'Panel', needs: 'design', station: '/triggers' },
    },
    {
      path: '/triggers/:id',
      component: () => import('./Trigger/TriggerView.vue'),
      props: true,
      meta: { title: 'Triggers', needs: 'design', station: '/triggers' },
    },
    { path: '/handover', component: () => import('./Handover/HandoverView.vue'), meta: { title: 'Handover', needs: 'hand-over' } },
    { path: '/playback', component: () => import('./Playback/PlaybackView.vue'), meta: { title: 'Playback', needs: 'hand-over' } },
    { path: '/bench', component: () => import('./Bench/BenchView.vue'), meta: { title: 'Bench', needs: 'design' } },
    {
      path: '/bench/before',
      component: () => import('./Bench/BeforeView.vue'),
      meta: { title: 'Before a display', needs: 'design', station: '/bench' },
    },
    { path: '/bin', component: () => import('./ui/BinView.vue'), meta: { title: 'Bin', needs: 'design' } },
    {
      path: '/work',
      component: () => import('./Playback/WorkView.vue'),
      meta: { title: 'Work behind the desk', needs: 'hand-over', station: '/playback' },
    },
    {
      path: '/rehearsal',
      component: () => import('./Playback/RehearsalView.vue'),
      meta: { title: 'Rehearsal', needs: 'hand-over', station: '/playback' },
    },
    { path: '/account', component: () => import('./Account/AccountView.vue'), meta: { title: 'Your account' } },
    { path: '/accounts', component: () => import('./Account/AccountsView.vue'), meta: { title: 'Accounts', needs: 'administer' } },
    { path: '/invited/:token', component: () => import('./Estate/TodayView.vue'), meta: { title: 'Invitation' } },
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
  document.title = `${to.meta.title} · Upper Pane`
})
