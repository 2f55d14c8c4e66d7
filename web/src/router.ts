import { createRouter, createWebHistory, type RouteRecordInfo } from 'vue-router'
import ShedPage from './shed/ShedPage.vue'

const screens = {
  loop: () => import('./loop/LoopPage.vue'),
  measure: () => import('./measure/MeasurePage.vue'),
  sharpened: () => import('./sharpened/SharpenedPage.vue'),
  ran: () => import('./note/RanPage.vue'),
  struck: () => import('./note/StruckPage.vue'),
  inspected: () => import('./note/InspectedPage.vue'),
  gaugesLowered: () => import('./note/GaugesLoweredPage.vue'),
  retire: () => import('./note/RetirePage.vue'),
  addLoop: () => import('./add/AddLoopPage.vue'),
  addSaw: () => import('./add/AddSawPage.vue'),
  identify: () => import('./identify/IdentifyPage.vue'),
  crew: () => import('./crew/CrewPage.vue'),
  spec: () => import('./spec/SpecPage.vue'),
  saw: () => import('./saw/SawPage.vue'),
  scan: () => import('./scan/ScanPage.vue'),
  tags: () => import('./tags/TagsPage.vue'),
  importing: () => import('./importing/ImportPage.vue'),
  decide: () => import('./decide/DecidePage.vue'),
  triage: () => import('./triage/TriagePage.vue'),
  house: () => import('./house/HouseRulesPage.vue'),
  wear: () => import('./wear/WearPage.vue'),
  me: () => import('./session/MePage.vue'),
  nowhere: () => import('./parts/NowherePage.vue'),
}

/**
 * Fetches the other screens while nobody waits for them, so that work can be logged when the
 * server has gone away in the meantime.
 */
export async function fetchOtherScreens(): Promise<void> {
  for (const screen of Object.values(screens)) await screen().catch(() => undefined)
}

/** Every place has an address; only the shed is loaded at once. */
export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    { path: '/', name: 'shed', component: ShedPage },
    { path: '/loops/:tag', name: 'loop', component: screens.loop, props: true },
    { path: '/loops/:tag/measure', name: 'measure', component: screens.measure, props: true },
    { path: '/loops/:tag/sharpened', name: 'sharpened', component: screens.sharpened, props: true },
    { path: '/loops/:tag/decide', name: 'decide', component: screens.decide, props: true },
    { path: '/loops/:tag/note/ran', name: 'ran', component: screens.ran, props: true },
    { path: '/loops/:tag/note/struck', name: 'struck', component: screens.struck, props: true },
    { path: '/loops/:tag/note/inspected', name: 'inspected', component: screens.inspected, props: true },
    { path: '/loops/:tag/note/gaugesLowered', name: 'gaugesLowered', component: screens.gaugesLowered, props: true },
    { path: '/loops/:tag/note/retired', name: 'retire', component: screens.retire, props: true },
    { path: '/loops/:tag/spec', name: 'spec', component: screens.spec, props: true },
    { path: '/saws/:nickname', name: 'saw', component: screens.saw, props: true },
    { path: '/triage', name: 'triage', component: screens.triage },
    { path: '/rules', name: 'house', component: screens.house },
    { path: '/wear', name: 'wear', component: screens.wear },
    { path: '/scan', name: 'scan', component: screens.scan },
    { path: '/tags', name: 'tags', component: screens.tags },
    { path: '/import', name: 'import', component: screens.importing },
    { path: '/me', name: 'me', component: screens.me },
    { path: '/add/loop', name: 'addLoop', component: screens.addLoop },
    { path: '/add/saw', name: 'addSaw', component: screens.addSaw },
    { path: '/identify', name: 'identify', component: screens.identify },
    { path: '/crew', name: 'crew', component: screens.crew },
    { path: '/:rest(.*)*', name: 'nowhere', component: screens.nowhere },
  ],
})

type ByTag = { tag: string }
// eslint-disable-next-line @typescript-eslint/no-generated-empty-object-type -- the library's word for no parameters
type Screen<Name extends string, Params extends Record<string, string> = Record<never, string>> = RouteRecordInfo<
  Name,
  string,
  Params,
  Params
>

/** The names of the screens with what their addresses need, so that a wrong one does not compile. */
interface Screens {
  shed: Screen<'shed'>
  loop: Screen<'loop', ByTag>
  measure: Screen<'measure', ByTag>
  sharpened: Screen<'sharpened', ByTag>
  decide: Screen<'decide', ByTag>
  ran: Screen<'ran', ByTag>
  struck: Screen<'struck', ByTag>
  inspected: Screen<'inspected', ByTag>
  gaugesLowered: Screen<'gaugesLowered', ByTag>
  retire: Screen<'retire', ByTag>
  spec: Screen<'spec', ByTag>
  saw: Screen<'saw', { nickname: string }>
  triage: Screen<'triage'>
  house: Screen<'house'>
  wear: Screen<'wear'>
  scan: Screen<'scan'>
  tags: Screen<'tags'>
  import: Screen<'import'>
  me: Screen<'me'>
  addLoop: Screen<'addLoop'>
  addSaw: Screen<'addSaw'>
  identify: Screen<'identify'>
  crew: Screen<'crew'>
  nowhere: Screen<'nowhere'>
}
declare module 'vue-router' {
  interface TypesConfig {
    RouteNamedMap: Screens
  }
}
