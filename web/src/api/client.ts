import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

type Schemas = components['schemas'];
export type Job = Schemas['Job'];
export type JobBody = Schemas['JobBody'];
export type JobLine = Schemas['JobLine'];
export type RevisionLine = Schemas['RevisionLine'];
export type Setup = Schemas['Setup'];
export type Region = Schemas['Region'];
export type Light = Schemas['Light'];
export type Kit = Schemas['Kit'];
export type Camera = Schemas['Camera'];
export type Flash = Schemas['Flash'];
export type Modifier = Schemas['Modifier'];
export type Lens = Schemas['Lens'];
export type KitBody = Schemas['KitBody'];
export type LightWish = Schemas['LightWish'];
export type Fact = Schemas['Fact'];
export type Depth = Schemas['Depth'];
export type Speed = Schemas['Speed'];
export type Alternatives = Schemas['Alternatives'];
export type ConventionMatter = Schemas['ConventionMatter'];
export type CalculatorOffer = Schemas['CalculatorOffer'];
export type TargetRead = Schemas['TargetRead'];
export type Heard = Schemas['Heard'];
export type Preference = Schemas['Preference'];
export type Scene = Schemas['Scene'];
export type Site = Schemas['Site'];
export type LocalTime = Schemas['LocalTime'];
export type DayPlan = Schemas['DayPlan'];
export type PackLine = Schemas['PackLine'];
export type RunSheet = Schemas['RunSheet'];
export type RunStep = Schemas['RunStep'];
export type RunDials = Schemas['RunDials'];
export type Shot = Schemas['Shot'];
export type LogEntry = Schemas['LogEntry'];
export type DeviceLine = Schemas['DeviceLine'];
export type DayLane = Schemas['DayLane'];
export type DaySlot = Schemas['DaySlot'];
export type Obstacle = Schemas['Obstacle'];
export type ObstacleHeight = Schemas['ObstacleHeight'];
export type Surroundings = Schemas['Surroundings'];
export type MeterReading = Schemas['MeterReading'];
export type MeteringMethod = Schemas['MeteringMethod'];
export type MeteringMethodOffer = Schemas['MeteringMethodOffer'];
export type Instruction = Schemas['Instruction'];
export type SunReport = Schemas['SunReport'];
export type Place = Schemas['Place'];
export type DayTimeline = Schemas['DayTimeline'];
export type Timetable = Schemas['Timetable'];
export type FallingStep = Schemas['FallingStep'];
export type FallingOrder = Schemas['FallingOrder'];
export type Blend = Schemas['Blend'];
export type Plan = Schemas['Plan'];
export type Placing = Schemas['Placing'];
export type Preferences = Schemas['Preferences'];
export type Show = Schemas['Show'];
export type Start = Schemas['Start'];
export type Meant = Schemas['Meant'];
export type Understood = Schemas['Understood'];
export type Dials = Schemas['Dials'];
export type Mark = Schemas['Mark'];
export type Grip = Schemas['Grip'];
export type RegionOnRail = Schemas['RegionOnRail'];
export type LightCard = Schemas['LightCard'];
export type ColourPlan = Schemas['ColourPlan'];
export type ColourMark = Schemas['ColourMark'];
export type ColourGrip = Schemas['ColourGrip'];
export type Colouring = Schemas['Colouring'];
export type ColourOptions = Schemas['ColourOptions'];
export type WhiteBalance = Schemas['WhiteBalance'];
export type Swatch = Schemas['Swatch'];
export type Problem = Schemas['ProblemDocument'];
export type Command = Schemas['Command'];
export type Edit = Schemas['Edit'];
export type MapAsked = Schemas['MapAsked'];
export type FloorPart = Schemas['FloorPart'];
export type LightMap = Schemas['LightMap'];
export type SetReport = Schemas['SetReport'];
export type GlassReport = Schemas['GlassReport'];
export type GlassFinding = Schemas['GlassFinding'];
export type Drills = Schemas['DrillRound'];
export type DrillProgress = Schemas['Progress'];
export type AnswerSaid = Schemas['AnswerSaid'];
export type OnSetSaid = Schemas['OnSetSaid'];
export type MeasuredFrame = Schemas['MeasuredFrame'];
export type TaskFound = Schemas['TaskFound'];
export type SameSaid = Schemas['SameSaid'];
export type FrameLine = Schemas['FrameLine'];
export type WorkedFrame = Schemas['WorkedFrame'];
export type FrameList = Schemas['FrameList'];
export type TakenFrame = Schemas['TakenFrame'];
export type FrameEdit = Schemas['FrameEdit'];
export type FrameMark = Schemas['FrameMark'];
export type FrameReport = Schemas['FrameReport'];
export type LessonOfFrame = Schemas['LessonOfFrame'];
export type Lesson = Schemas['Lesson'];
export type BeliefSaid = Schemas['BeliefSaid'];
export type Mixture = Schemas['Mixture'];
export type ProofReady = Schemas['ProofReady'];
export type ProofRegion = Schemas['ProofRegion'];
export type SetThing = Schemas['SetThing'];
export type SetNote = Schemas['SetNote'];
export type SetCommand = Schemas['SetCommand'];
export type OnSet = Schemas['OnSet'];
export type SetLight = Schemas['SetLight'];
export type Person = Schemas['Person'];
export type Card = Schemas['Card'];

export const api = createClient<paths>({ baseUrl: '/' });

/** The server answered with a problem document, or did not answer at all (status 0). */
export class ApiProblem extends Error {
  readonly status: number;
  readonly problem: Problem | undefined;

  constructor(status: number, problem: Problem | undefined) {
    super(messageOf(problem));
    this.status = status;
    this.problem = problem;
  }
}

/** What is wrong, in a sentence: each field as a screen calls it. */
function messageOf(problem: Problem | undefined): string {
  const errors = problem?.errors ?? [];
  if (errors.length > 0) return errors.map((one) => one.message).join('; ');
  return problem?.detail ?? problem?.title ?? 'Tolva does not answer.';
}

/** The same, line by line, each with where it is. */
export function linesOf(failure: unknown, otherwise: string): string[] {
  const problem = failure instanceof ApiProblem ? failure : undefined;
  const lines = problem?.problem?.errors?.map((one) => (one.field ? `${one.field}: ${one.message}` : one.message));
  return lines && lines.length > 0 ? lines : [problem?.message ?? otherwise];
}

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The data of an answer; throws an `ApiProblem` for anything else. */
export async function answered<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new ApiProblem(0, undefined);
  }
  if (!answer.response.ok) throw new ApiProblem(answer.response.status, answer.error as Problem | undefined);
  return answer.data as T;
}
