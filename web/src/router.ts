import { createRouter, createWebHistory, START_LOCATION, type RouteRecordInfo } from 'vue-router'
// What a phone opens out of range is there at once.
import WoodPage from './wood/field/WoodPage.vue'

/** Screens that do without the component library, which is fetched behind them. */
const PLAIN = { plain: true } as const

const screens = {
  shed: () => import('./shed/overview/ShedPage.vue'),
  loop: () => import('./shed/loop/LoopPage.vue'),
  measure: () => import('./bench/measure/MeasurePage.vue'),
  sharpened: () => import('./bench/sharpened/SharpenedPage.vue'),
  sharpen: () => import('./bench/sharpen/SharpenPage.vue'),
  ran: () => import('./bench/note/RanPage.vue'),
  struck: () => import('./bench/note/StruckPage.vue'),
  inspected: () => import('./bench/note/InspectedPage.vue'),
  gaugesLowered: () => import('./bench/note/GaugesLoweredPage.vue'),
  retire: () => import('./bench/note/RetirePage.vue'),
  addLoop: () => import('./shed/add/AddLoopPage.vue'),
  addSaw: () => import('./shed/add/AddSawPage.vue'),
  identify: () => import('./shed/identify/IdentifyPage.vue'),
  crew: () => import('./house/crew/CrewPage.vue'),
  phones: () => import('./house/phones/PhonesPage.vue'),
  spec: () => import('./shed/spec/SpecPage.vue'),
  saw: () => import('./shed/saw/SawPage.vue'),
  scan: () => import('./shed/scan/ScanPage.vue'),
  tags: () => import('./shed/tags/TagsPage.vue'),
  importing: () => import('./house/importing/ImportPage.vue'),
  decide: () => import('./bench/decide/DecidePage.vue'),
  tools: () => import('./bench/tools/ToolsPage.vue'),
  caliper: () => import('./bench/tools/CaliperPage.vue'),
  jobSheet: () => import('./bench/sharpen/JobSheetPage.vue'),
  triage: () => import('./bench/triage/TriagePage.vue'),
  house: () => import('./house/rules/HouseRulesPage.vue'),
  wear: () => import('./learn/wear/WearPage.vue'),
  glossary: () => import('./learn/glossary/GlossaryPage.vue'),
  me: () => import('./house/me/MePage.vue'),
  signs: () => import('./wood/signs/SignsPage.vue'),
  card: () => import('./wood/card/TouchUpCardPage.vue'),
  nowhere: () => import('./frame/NowherePage.vue'),
}

/** Where one was, once the page is long enough again to be there; a page that stays short is as far as it goes. */
async function longEnough(at: { left?: number; top: number }): Promise<{ left?: number; top: number }> {
  for (let frame = 0; frame < 60; frame += 1) {
    if (frame > 2 && document.documentElement.scrollHeight >= at.top + window.innerHeight) break
    await new Promise(requestAnimationFrame)
  }
  return at
}

/** Every place has an address, and is fetched when it is opened, or behind the first page. */
export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: async (to, from, saved) => {
    if (saved !== null) return longEnough(saved)
    // A page that was just opened is at its top, and would be laid out once more to be put there.
    if (to.hash === '') return from === START_LOCATION ? false : { top: 0 }
    // What it names comes with the page's data, a little later.
    for (let frame = 0; frame < 120 && document.getElementById(to.hash.slice(1)) === null; frame += 1)
      await new Promise(requestAnimationFrame)
    return { el: to.hash, top: 12 }
  },
  routes: [
    { path: '/', name: 'shed', component: screens.shed, meta: PLAIN },
    { path: '/loops/:tag', name: 'loop', component: screens.loop, props: true },
    { path: '/loops/:tag/measure', name: 'measure', component: screens.measure, props: true },
    { path: '/loops/:tag/sharpened', name: 'sharpened', component: screens.sharpened, props: true },
    { path: '/loops/:tag/sharpen', name: 'sharpen', component: screens.sharpen, props: true },
    { path: '/loops/:tag/sheet', name: 'jobSheet', component: screens.jobSheet, props: true },
    { path: '/loops/:tag/decide', name: 'decide', component: screens.decide, props: true },
    { path: '/loops/:tag/note/ran', name: 'ran', component: screens.ran, props: true },
    { path: '/loops/:tag/note/struck', name: 'struck', component: screens.struck, props: true },
    { path: '/loops/:tag/note/inspected', name: 'inspected', component: screens.inspected, props: true },
    { path: '/loops/:tag/note/gaugesLowered', name: 'gaugesLowered', component: screens.gaugesLowered, props: true },
    { path: '/loops/:tag/note/retired', name: 'retire', component: screens.retire, props: true },
    { path: '/loops/:tag/spec', name: 'spec', component: screens.spec, props: true },
    { path: '/saws/:nickname', name: 'saw', component: screens.saw, props: true },
    { path: '/loops/:tag/signs', name: 'signs', component: screens.signs, props: true, meta: PLAIN },
    { path: '/loops/:tag/card', name: 'card', component: screens.card, props: true, meta: PLAIN },
    { path: '/wood', name: 'wood', component: WoodPage, meta: PLAIN },
    { path: '/triage', name: 'triage', component: screens.triage },
    { path: '/tools', name: 'tools', component: screens.tools },
    { path: '/tools/caliper', name: 'caliper', component: screens.caliper },
    { path: '/rules', name: 'house', component: screens.house },
    { path: '/wear', name: 'wear', component: screens.wear },
    { path: '/words', name: 'glossary', component: screens.glossary },
    { path: '/scan', name: 'scan', component: screens.scan },
    { path: '/tags', name: 'tags', component: screens.tags },
    { path: '/import', name: 'import', component: screens.importing },
    { path: '/me', name: 'me', component: screens.me },
    { path: '/add/loop', name: 'addLoop', component: screens.addLoop },
    { path: '/add/saw', name: 'addSaw', component: screens.addSaw },
    { path: '/identify', name: 'identify', component: screens.identify },
    { path: '/crew', name: 'crew', component: screens.crew },
    { path: '/phones', name: 'phones', component: screens.phones },
    { path: '/:rest(.*)*', name: 'nowhere', component: screens.nowhere },
  ],
})

type ByTag = { tag: string }
// oxlint-disable-next-line typescript/no-generated-empty-object-type -- the library's word for no parameters
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
  sharpen: Screen<'sharpen', ByTag>
  jobSheet: Screen<'jobSheet', ByTag>
  decide: Screen<'decide', ByTag>
  signs: Screen<'signs', ByTag>
  card: Screen<'card', ByTag>
  wood: Screen<'wood'>
  ran: Screen<'ran', ByTag>
  struck: Screen<'struck', ByTag>
  inspected: Screen<'inspected', ByTag>
  gaugesLowered: Screen<'gaugesLowered', ByTag>
  retire: Screen<'retire', ByTag>
  spec: Screen<'spec', ByTag>
  saw: Screen<'saw', { nickname: string }>
  triage: Screen<'triage'>
  tools: Screen<'tools'>
  caliper: Screen<'caliper'>
  house: Screen<'house'>
  wear: Screen<'wear'>
  glossary: Screen<'glossary'>
  scan: Screen<'scan'>
  tags: Screen<'tags'>
  import: Screen<'import'>
  me: Screen<'me'>
  addLoop: Screen<'addLoop'>
  addSaw: Screen<'addSaw'>
  identify: Screen<'identify'>
  crew: Screen<'crew'>
  phones: Screen<'phones'>
  nowhere: Screen<'nowhere'>
}
declare module 'vue-router' {
  interface TypesConfig {
    RouteNamedMap: Screens
  }
}
