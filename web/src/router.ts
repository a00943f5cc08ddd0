import { createRouter } from 'sv-router';
import Bench from './stages/bench/Bench.svelte';
import NewTicket from './stages/bench/NewTicket.svelte';
import NoPage from './stages/bench/NoPage.svelte';
import CheckStage from './stages/check/CheckStage.svelte';
import CutStage from './stages/cut/Cut.svelte';
import DrapeStage from './stages/drape/Drape.svelte';
import DraftStage from './stages/draft/Draft.svelte';
import FitStage from './stages/fit/Fit.svelte';
import JobFrame from './stages/JobFrame.svelte';
import FirstSheet from './stages/measure/FirstSheet.svelte';
import MeasureStage from './stages/measure/Measure.svelte';
import Sizes from './stages/sizes/Sizes.svelte';
import StoryPage from './stages/story/Story.svelte';
import StyleStage from './stages/style/Style.svelte';

export const { p, navigate, isActive, route } = createRouter({
	'/': Bench,
	'/new': NewTicket,
	'/sizes': Sizes,
	'/wearers/:wearer/measure': FirstSheet,
	'/jobs/:job': {
		'/measure': MeasureStage,
		'/draft': DraftStage,
		'/style': StyleStage,
		'/check': CheckStage,
		'/fit': FitStage,
		'/drape': DrapeStage,
		'/cut': CutStage,
		'/story': StoryPage,
		layout: JobFrame,
	},
	'*notfound': NoPage,
});
