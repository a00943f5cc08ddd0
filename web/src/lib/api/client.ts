/** The studio's API with its types, and one kind of error for all that can go wrong. */
import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './schema';

type Schemas = components['schemas'];
export type Job = Schemas['JobOut'];
export type Recipe = Schemas['RecipeDoc'];
export type Traced = Schemas['TracedOut'];
export type TakenPlace = Schemas['TakenPlace'];
export type TraceBy = Schemas['TraceIn']['by'];
export type UnderPanel = Schemas['UnderPanelOut'];
export type DrawnIn = Schemas['DrawnIn'];
export type Step = Schemas['StepDoc'];
export type Preview = Schemas['PreviewOut'];
export type Piece = Schemas['PieceOut'];
export type Edge = Schemas['EdgeOut'];
export type Sum = Schemas['SumOut'];
export type Allowance = Schemas['AllowanceOut'];
export type Finding = Schemas['FindingOut'];
export type Round = Schemas['RoundOut'];
export type Kind = Schemas['KindOut'];
export type Photo = Schemas['PhotoOut'];
export type Muslin = Schemas['MuslinOut'];
export type Movement = Schemas['MovementOut'];
export type Papers = Schemas['PapersOut'];
export type PapersAsked = Schemas['PapersIn'];
export type PaperAsked = Schemas['PaperIn'];
export type Held = Schemas['HeldIn'];
export type KeptFit = Schemas['KeptFitOut'];
export type Lesson = Schemas['LessonOut'];
export type Story = Schemas['StoryOut'];
export type FittingIn = Schemas['FittingIn'];
export type Worked = Schemas['WorkedOut'];
export type Applies = Schemas['AppliesOut'];
export type Plan = Schemas['PlanOut'];
export type Keeping = Schemas['KeepingOut'];
export type Ticket = Schemas['TicketOut'];
export type Wearer = Schemas['WearerOut'];
export type Sheet = Schemas['SheetOut'];
export type Review = Schemas['ReviewOut'];
export type ReadingReview = Schemas['ReadingReview'];
export type Catalogue = Schemas['CatalogueOut'];
export type Measure = Schemas['MeasureOut'];
export type LengthIn = Schemas['LengthIn'];
export type TakenIn = Schemas['TakenIn'];
export type SheetIn = Schemas['SheetIn'];
export type UnderWay = Schemas['UnderWayOut'];
export type Advice = Schemas['AdviceOut'];
export type Retake = Schemas['RetakeOut'];
export type BodyDrawing = Schemas['FigureOut'];
export type Comparison = Schemas['ComparisonOut'];
export type SheetRead = Schemas['SheetReadOut'];
export type Chart = Schemas['ChartOut'];
export type Size = Schemas['SizeIn'];
export type NumberRead = Schemas['NumberOut'];
export type Outcome = Schemas['Outcome'];
export type Half = Step['half'];
export type Section = NonNullable<Step['section']>;
export type Handle = Schemas['HandleOut'];
export type School = Schemas['SchoolOut'];
export type Way = Schemas['WayOut'];
export type Ease = Schemas['EaseOut'];
export type Block = Schemas['BlockOut'];
export type StarterSet = Schemas['StarterSetOut'];
export type HouseRule = Schemas['HouseRuleOut'];
export type AsCut = Schemas['AsCutOut'];
export type Line = Schemas['RunOut'];
export type About = Schemas['AboutIn'];
export type PlaceLine = Schemas['PlaceLineOut'];
export type Move = Schemas['MoveOut'];
/** Work that takes long; what kind of work it is says what comes of it. */
export type Work = Omit<Schemas['WorkOut'], 'result'> & { result?: unknown };
export type Cloth = Schemas['Cloth'];
export type ClothUse = Schemas['Use'];
export type ClothFold = Schemas['Fold'];
export type OnShelf = Schemas['ShelfClothOut'];
export type CutTable = Schemas['CutTableOut'];
export type CutTableIn = Schemas['CutTableIn'];
export type SizesOfRun = Schemas['SizesOfRun'];
export type SumKept = Schemas['SumKept'];
export type LayPlan = Schemas['LayDoc'];
export type Laid = Schemas['LaidOut'];
export type MovedPiece = Schemas['MovedPieceIn'];
export type CutSum = Schemas['WorksheetOut'];
export type CutSumLine = Schemas['WorksheetLineOut'];
export type Plot = Schemas['PlotOut'];
export type PlotterQueue = Schemas['PlotterOut'];
export type Printed = Schemas['PrintedOut'];
export type Stage = Schemas['StageOut'];
export type Check = Schemas['ResultOut'];
export type Operation = Schemas['OperationOut'];
export type Field = Schemas['FieldOut'];
export type Offer = Schemas['DeedOut'];
export type Without = Schemas['WithoutOut'];
export type Walk = Schemas['WalkOut'];
export type EasePlace = Schemas['PlaceOut'];
export type Given = Schemas['Given'];
export type Panel = Schemas['Panel'];
export type Mark = Schemas['Mark'];
export type Marked = Schemas['Marked'];
export type Guides = Schemas['GuidesOut'];
export type Beside = Schemas['BesideOut'];
export type Learn = Schemas['LearnOut'];
export type LineSaid = Schemas['LineSaid'];
export type SeamSaid = Schemas['SeamSaid'];
export type SeamEnd = Schemas['SeamEnd'];
export type GivenOut = Schemas['GivenOut'];
export type GivenPanel = Schemas['GivenPanelOut'];
export type GivenSeam = Schemas['GivenSeamOut'];
export type Query = Schemas['QueryOut'];
export type OnForm = Schemas['OnForm'];
export type FormPanel = Schemas['FormPanel'];
export type Drapes = Schemas['DrapesOut'];
export type Drape = Schemas['DrapeOut'];
export type Tear = Schemas['TearOut'];

/** What went wrong, and what to do about it. `status` 0 means that the server did not answer. */
export class Problem extends Error {
	constructor(
		readonly status: number,
		readonly code: string,
		message: string,
		readonly fix: string,
		readonly where: string[] = [],
		/** What the answer says besides: the newer state, where there is one. */
		readonly more: { job?: Job; under_way?: UnderWay } = {},
	) {
		super(message);
	}

	get job(): Job | null {
		return this.more.job ?? null;
	}

	get offline(): boolean {
		return this.status === 0;
	}

	/** Whether the very same can be done again once what stands in the way is gone: a server, a disk, a lock. */
	get passing(): boolean {
		return [0, 503, 507].includes(this.status);
	}
}

const UNANSWERED = new Problem(
	0,
	'no-answer',
	'The workroom’s server does not answer.',
	'What you entered is still here. Start the server again, then try again.',
);

const FORBIDDEN = 403;

function withToken(request: Request): Request {
	const token = /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1];
	if (token) request.headers.set('X-CSRFToken', token);
	return request;
}

const sendToken: Middleware = {
	onRequest({ request }) {
		if (request.method !== 'GET') withToken(request);
	},
};

/** Send a request. Where the browser has lost the cookie, it is fetched anew, and the request is sent once more. */
async function sent(request: Request): Promise<Response> {
	const spare = request.method === 'GET' ? null : request.clone();
	const answer = await globalThis.fetch(request);
	if (!spare || answer.status !== FORBIDDEN) return answer;
	await globalThis.fetch(new Request(new URL('/', request.url)));
	return globalThis.fetch(withToken(spare));
}

export const api = createClient<paths>({ baseUrl: '/', fetch: sent });
api.use(sendToken);

export interface Answer<T> {
	data?: T;
	error?: unknown;
	response: Response;
}

/** Return a file as a form to send: the description of the API has a file as text. */
export function asForm(file: Blob): FormData {
	const form = new FormData();
	form.append('file', file);
	return form;
}

/** Wait for an answer; return its data or throw what went wrong as a Problem. */
export async function answered<T>(call: Promise<Answer<T>>): Promise<T> {
	let answer: Answer<T>;
	try {
		answer = await call;
	} catch (error) {
		if (error instanceof DOMException && error.name === 'AbortError') throw error;
		throw UNANSWERED;
	}
	if (answer.response.ok) return answer.data as T;
	const body = (answer.error ?? {}) as Record<string, unknown>;
	throw new Problem(
		answer.response.status,
		String(body.title ?? 'error').replaceAll(' ', '-'),
		String(body.detail ?? `The server answered ${answer.response.status}.`),
		String(body.fix ?? 'Try again; if it stays so, restart the program.'),
		(body.where as string[] | undefined) ?? [],
		body,
	);
}

/** Return any thrown thing as a Problem. */
export function asProblem(error: unknown): Problem {
	if (error instanceof Problem) return error;
	return new Problem(500, 'unexpected', String(error), 'Load the page again; what was saved is safe.');
}

/** Return a fresh name for a step or a finding, made here so that a repeated call acts once. */
export function freshName(prefix: string): string {
	return `${prefix}-${crypto.randomUUID().slice(0, 12)}`;
}
