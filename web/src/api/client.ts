import createClient from 'openapi-fetch'
import { self, who } from '@/state/who'
import type { components, paths } from './contract'

type Schemas = components['schemas']
export type Problem = Schemas['Problem']
export type ReviewHead = Schemas['ReviewHead']
export type Review = Schemas['Review']
export type Step = Schemas['Step']
export type Edit = Schemas['Edit']
export type Clash = Schemas['Clash']
export type ReviewDocument = Schemas['Document']
export type Block = Schemas['Block']
export type Term = Schemas['Term']
export type Limit = Schemas['Limit']
export type Sample = Schemas['Sample']
export type KeyStudy = Schemas['KeyStudy']
export type Coverage = Schemas['Coverage']
export type CoverageStudy = Schemas['CoverageStudy']
export type Look = Schemas['Look']
export type NewLook = Schemas['NewLook']
export type What = Schemas['What']
export type Facet = Schemas['Facet']
export type Over = Schemas['Over']
export type Bench = Schemas['Bench']
export type Tally = Schemas['Tally']
export type TallyItem = Schemas['Item']
export type TallyRow = Schemas['TallyRow']
export type Loss = Schemas['Loss']
export type Suit = Schemas['Suit']
export type Alike = Schemas['Alike']
export type AlikeQuestion = Schemas['AlikeQuestion']
export type Team = Schemas['Team']
export type Import = Schemas['Import']
export type Notice = Schemas['Notice']
export type Piece = Schemas['Piece']
export type Chip = Schemas['Chip']
export type MarkedRecord = Schemas['MarkedRecord']
export type RecordHead = Schemas['RecordHead']
export type RecordSet = Schemas['RecordSet']
export type TriedTerm = Schemas['TriedTerm']
export type NewDecision = Schemas['NewDecision']
export type DecisionState = Schemas['DecisionState']
export type RescueCandidate = Schemas['RescueCandidate']
export type BlockRescue = Schemas['BlockRescue']
export type Plan = Schemas['Plan']
export type Pruning = Schemas['Pruning']
export type Previewed = Schemas['Previewed']
export type PlanStep = Schemas['PlanStep']
export type Vocabulary = Schemas['Vocabulary']
export type Recall = Schemas['Recall']
export type Source = Schemas['Source']
export type SourceEdit = Schemas['SourceEdit']
export type SourceMap = Schemas['SourceMap']
export type SourceCount = Schemas['SourceCount']
export type SourceNote = Schemas['SourceNote']
export type Draw = Schemas['Draw']
export type NewDraw = Schemas['NewDraw']
export type RoughConcept = Schemas['RoughConcept']
export type Answer = Schemas['Answer']
export type Run = Schemas['Run']
export type Runs = Schemas['Runs']
export type HandRun = Schemas['HandRun']
export type SourceRun = Schemas['SourceRun']
export type Everywhere = Schemas['Everywhere']
export type OverlapFigure = Schemas['OverlapFigure']
export type Version = Schemas['Version']
export type LineChange = Schemas['LineChange']
export type ComparedVersions = Schemas['ComparedVersions']
export type WrittenRecord = Schemas['WrittenRecord']
export type WrittenSection = Schemas['WrittenSection']
export type Check = Schemas['Check']
export type CheckAnswer = Schemas['CheckAnswer']
export type CheckSuggestion = Schemas['CheckSuggestion']
export type SheetLine = Schemas['SheetLine']
export type SheetFinding = Schemas['SheetFinding']
export type Note = Schemas['Note']
export type Since = Schemas['Since']
export type KeptBlock = Schemas['KeptBlock']
export type Holding = Schemas['Holding']
export type StudyKnown = Schemas['StudyKnown']
export type Lookup = Schemas['Lookup']
export type Compared = Schemas['Compared']
export type Columns = Schemas['Columns']
export type TagMap = Schemas['TagMap']
export type FileSettings = Schemas['FileSettings']
export type FileQuestion = Schemas['FileQuestion']
export type FileAnswer = Schemas['FileAnswer']
export type FilePreview = Schemas['FilePreview']
export type DoublesRule = Schemas['DoublesRule']
export type ReaderMap = Schemas['ReaderMap']
export type ShelfPatch = Schemas['ShelfPatch']
export type ShelfEntry = Schemas['ShelfEntry']
export type Judging = Schemas['Judging']
export type Verdict = Schemas['Verdict']['verdict']
export type Remark = Schemas['Remark']
export type NearMiss = Schemas['NearMiss']
export type Headings = Schemas['Headings']
export type HeadingLead = Schemas['HeadingLead']
export type HeadingWhole = Schemas['HeadingWhole']
export type HeadingPlace = Schemas['HeadingPlace']
export type HeadingPrice = Schemas['HeadingPrice']
export type CoveringHeading = Schemas['CoveringHeading']
export type VocabularyChanges = Schemas['VocabularyChanges']
export type WrittenLine = Schemas['WrittenLine']
export type ExplainedQuery = Schemas['ExplainedQuery']
export type ExplainedBlock = Schemas['ExplainedBlock']
export type QueryPart = Schemas['QueryPart']
export type QueryFinding = Schemas['QueryFinding']
export type StandIns = Schemas['StandIns']
export type TypedStrategy = Schemas['TypedStrategy']
export type TypedNote = Schemas['TypedNote']
export type Dialect = Schemas['Dialect']
export type Round = Schemas['Round']
export type AskedRound = Schemas['AskedRound']
export type FoundWork = Schemas['FoundWork']
export type FoundSaid = Schemas['FoundSaid']
export type LeftWorks = Schemas['LeftInRounds']
export type ReadByHand = Schemas['ReadByHand']
export type CitationNetwork = Schemas['CitationNetwork']
export type FileFormat = Schemas['Export']['format']

export const api = createClient<paths>({ baseUrl: '' })
api.use({
  onRequest({ request }) {
    request.headers.set('Tamiz-Self', self.value)
    if (who.value.trim()) request.headers.set('Tamiz-Who', encodeURIComponent(who.value.trim()))
  },
})

/** A failed call: what the program said of it, or that it could not be reached at all. */
export class CallError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title)
  }

  /** The same call may work later: nothing is wrong with what was asked. */
  get passing(): boolean {
    return [0, 502, 503, 507].includes(this.problem.status)
  }
}

const unreachable: Problem = { type: 'unreachable', title: '', status: 0 }

/** Returns the answer of a call, or throws a CallError. */
export async function ask<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let answer
  try {
    answer = await call
  } catch (cause) {
    if (cause instanceof DOMException && cause.name === 'AbortError') throw cause
    throw new CallError(unreachable)
  }
  if (answer.response.ok) return answer.data as T
  throw new CallError(problemOf(answer.error, answer.response.status))
}

export function problemOf(body: unknown, status: number): Problem {
  if (body && typeof body === 'object' && 'type' in body) return body as Problem
  return { type: 'internal', title: '', status }
}
