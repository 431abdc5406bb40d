/** Every view has its own address. */
import { createRouter, createWebHistory } from 'vue-router'

import { CLOCK_LENS_NAMES, LENS_NAMES } from '@/shared/subjects'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'floor', component: () => import('@/features/floor/FloorPage.vue') },
    { path: '/jobs/new', name: 'take-in', component: () => import('@/features/floor/TakeInPage.vue') },
    { path: '/jobs/import', name: 'bring-in', component: () => import('@/features/floor/BringInPage.vue') },
    {
      path: '/jobs/:job',
      component: () => import('@/features/job/JobFrame.vue'),
      children: [
        { path: '', redirect: (to) => ({ name: 'home', params: { job: to.params['job'] } }) },
        {
          path: 'home/:hole(\\d+)?',
          name: 'home',
          component: () => import('@/features/job/JobHome.vue'),
        },
        {
          path: `:lens(${LENS_NAMES})/:hole(\\d+)?`,
          name: 'block',
          component: () => import('@/features/block/BlockPage.vue'),
        },
        {
          path: `bench/:lens(${CLOCK_LENS_NAMES})/:hole(\\d+)?`,
          name: 'bench',
          meta: { full: true },
          component: () => import('@/features/bench/BenchPage.vue'),
        },
        {
          path: 'cut/:hole(\\d+)',
          name: 'cut',
          component: () => import('@/features/counterbore/CutPage.vue'),
        },
        {
          path: 'cut-run/:hole(\\d+)',
          name: 'cut-run',
          meta: { full: true },
          component: () => import('@/features/cut-run/CutRunPage.vue'),
        },
        {
          path: 'cut-plan',
          name: 'cut-plan',
          component: () => import('@/features/block-plan/BlockPlanPage.vue'),
        },
        {
          path: 'prepare',
          name: 'prepare',
          component: () => import('@/features/preparation/PreparePage.vue'),
        },
        { path: 'time', name: 'time', component: () => import('@/features/hours/HoursPage.vue') },
        { path: 'route', name: 'route', component: () => import('@/features/route/RoutePage.vue') },
        {
          path: 'strip-record',
          name: 'strip-record',
          component: () => import('@/features/findings/StripRecordPage.vue'),
        },
        { path: 'measure', name: 'measure', component: () => import('@/features/surveys/MeasurePage.vue') },
        {
          path: 'measure/:quantity/:part',
          name: 'survey',
          meta: { full: true },
          component: () => import('@/features/surveys/SurveyPage.vue'),
        },
        { path: 'bores', name: 'bores', component: () => import('@/features/bores/BoresPage.vue') },
        {
          path: 'wall/:hole(\\d+)',
          name: 'wall',
          component: () => import('@/features/wall/WallPage.vue'),
        },
        {
          path: 'boring/:hole(\\d+)',
          name: 'boring',
          component: () => import('@/features/boring/BoringPage.vue'),
        },
        {
          path: 'honing/:hole(\\d+)/:aim(piston|sleeve)?',
          name: 'honing',
          meta: { full: true },
          component: () => import('@/features/honing/HonePage.vue'),
        },
        { path: 'plate', name: 'plate', component: () => import('@/features/clamping/PlatePage.vue') },
        { path: 'mains', name: 'mains', component: () => import('@/features/mains/MainsPage.vue') },
        { path: 'deck', name: 'deck', component: () => import('@/features/deck/DeckPage.vue') },
        { path: 'pistons', name: 'pistons', component: () => import('@/features/pistons/PistonsPage.vue') },
        {
          path: 'conversion/:hole(\\d+)?',
          name: 'conversion',
          component: () => import('@/features/conversion/ConversionPage.vue'),
        },
        {
          path: 'hot-fit/:hole(\\d+)',
          name: 'hot-fit',
          component: () => import('@/features/hot-fit/HotFitPage.vue'),
        },
        {
          path: 'heat/:hole(\\d+)',
          name: 'heat',
          component: () => import('@/features/heat/HeatPage.vue'),
        },
        {
          path: 'heat/:hole(\\d+)/run',
          name: 'heat-run',
          meta: { full: true },
          component: () => import('@/features/heat/DropPage.vue'),
        },
        { path: 'fit/:hole(\\d+)', name: 'fit', component: () => import('@/features/fit/FitPage.vue') },
        {
          path: 'pull/:hole(\\d+)',
          name: 'pull',
          meta: { full: true },
          component: () => import('@/features/pull/PullPage.vue'),
        },
        {
          path: 'matching',
          name: 'matching',
          component: () => import('@/features/matching/MatchingPage.vue'),
        },
        {
          path: 'options/:hole(\\d+)',
          name: 'options',
          component: () => import('@/features/options/OptionsPage.vue'),
        },
        { path: 'adds-up', name: 'adds-up', component: () => import('@/features/causes/CausesPage.vue') },
        { path: 'swaps', name: 'swaps', component: () => import('@/features/matching/SwapsPage.vue') },
        { path: 'liners', name: 'liners', component: () => import('@/features/liners/LinersPage.vue') },
        { path: 'card', name: 'job-card', component: () => import('@/features/spec-cards/JobCardPage.vue') },
        {
          path: 'import',
          name: 'import',
          component: () => import('@/features/imports/ReadingsImportPage.vue'),
        },
        { path: 'proof', name: 'proof', component: () => import('@/features/proof/ProofPage.vue') },
      ],
    },
    { path: '/cards', name: 'cards', component: () => import('@/features/spec-cards/CardsPage.vue') },
    { path: '/cards/:card', name: 'card', component: () => import('@/features/spec-cards/CardPage.vue') },
    { path: '/shop', name: 'shop', component: () => import('@/features/shop/ShopPage.vue') },
    { path: '/shop/cabinet', name: 'cabinet', component: () => import('@/features/shop/CabinetPage.vue') },
    { path: '/shop/cutters', name: 'cutters', component: () => import('@/features/shop/CuttersPage.vue') },
    {
      path: '/shop/fixtures',
      name: 'fixtures',
      component: () => import('@/features/shop/FixturesPage.vue'),
    },
    {
      path: '/shop/pullers',
      name: 'press-tools',
      component: () => import('@/features/shop/PressToolsPage.vue'),
    },
    { path: '/shop/shelf', name: 'shelf', component: () => import('@/features/shop/ShelfPage.vue') },
    { path: '/shop/prices', name: 'prices', component: () => import('@/features/shop/PricesPage.vue') },
    { path: '/calendar', name: 'calendar', component: () => import('@/features/calendar/CalendarPage.vue') },
    {
      path: '/shop/time',
      name: 'shop-time',
      component: () => import('@/features/calendar/ShopTimePage.vue'),
    },
    { path: '/shop/lands', name: 'lands', component: () => import('@/features/lands/LandsPage.vue') },
    { path: '/shop/cases', name: 'cases', component: () => import('@/features/causes/CasesPage.vue') },
    {
      path: '/shop/causes',
      name: 'known-causes',
      component: () => import('@/features/causes/KnownCausesPage.vue'),
    },
    { path: '/shop/schools', name: 'schools', component: () => import('@/features/shop/SchoolsPage.vue') },
    {
      path: '/shop/studies',
      name: 'studies',
      component: () => import('@/features/gauge-studies/StudiesPage.vue'),
    },
    {
      path: '/shop/studies/:study',
      name: 'study',
      component: () => import('@/features/gauge-studies/StudyPage.vue'),
    },
    { path: '/pair', name: 'pair', component: () => import('@/features/pairing/PairPage.vue') },
    { path: '/:rest(.*)', name: 'nowhere', component: () => import('@/features/floor/NowherePage.vue') },
  ],
})
