// What the other workspaces use of the core, room by room in the order of the work.

// units
export { minorOf, moneyAmount, moneyText } from './units/money.js';
export { KeptWhile, perObject, sameEntries } from './units/kept.js';
export { clockAfter, durationText } from './units/duration.js';
export { plural } from './units/plural.js';
export { lengthText, MM_PER_INCH, type UnitSystem, volumeText } from './units/present.js';
export { cubicInches, millilitres, ML_PER_IN3, rounded } from './units/volume.js';
export { wireSizeText } from './units/wire-size.js';

// terms
export { PRACTICES, WIRE_SIZES } from './terms/trade.js';

// practice
export type { RuleFigure } from './practice/figures/figure.js';
export { mostVolts } from './practice/instruments.js';
export { profileOf, PROFILES } from './practice/profiles.js';
export { standardBoxes } from './practice/standard-boxes.js';
export { WIRE } from './practice/wire.js';
export { COLOUR_WORDS, LOAD_WORDS, RADIO_WORDS, STRATEGY_WORDS, type Words } from './practice/words.js';

// job
export { isFromOutside, untoldCores } from './job/conductors.js';
export { type Conflict, insist, meet, stillOurs, withMyWord } from './job/edit/conflicts.js';
export { removalOf } from './job/edit/consequences.js';
export { Edit, EditPart, MOST_BELOW } from './job/edit/edit.js';
export { inverse } from './job/edit/inverse.js';
export { orderParts } from './job/edit/order.js';
export { withTargetsFreed } from './job/edit/free-targets.js';
export { fieldByField, putPart, removePart, setParts } from './job/edit/parts.js';
export { earlierRecords } from './job/edit/record-at.js';
export { type RecordProblem, recordProblems } from './job/edit/record-problems.js';
export { reduce } from './job/edit/reduce.js';
export {
  AgainstEntry,
  BriefEntry,
  CircuitEntry,
  ControlPointEntry,
  FigureEntry,
  JobEntry,
  LoadEntry,
  RoomEntry,
} from './job/entries.js';
export { eventRecord, lastSwitching, mountedBoxes } from './job/events.js';
export { editionOf, figureOfAllowance, type JobFigure, ruleFigures } from './job/figures.js';
export {
  boxesOfRoom,
  type JobLookup,
  conductorsById,
  labelsOf,
  lookup,
  placeKey,
  roomsInOrder,
  wantsSmart,
} from './job/lookup.js';
export { neutralFamilies } from './job/neutral-families.js';
export { newJob } from './job/new-job.js';
export { pointer } from './job/pointer.js';
export type { Problem } from './job/problem.js';
export {
  assembleJob,
  changedRecords,
  findRecord,
  headerOf,
  type JobRecord,
  LIST_KINDS,
  type ListKind,
  listOf,
  listsOf,
  type RecordChange,
  recordKey,
  recordName,
  withList,
} from './job/records.js';
export {
  Change,
  EditAnswer,
  EditsAnswer,
  EditsRequest,
  HistoryEntry,
  JobSummary,
} from './job/requests.js';
export {
  ChannelState,
  CommandRequest,
  DeedRequest,
  FindRequest,
  FindResult,
  JoinRequest,
  JoinState,
  LookRequest,
  LookResult,
  SayRequest,
  SayResult,
  SiteState,
  UpdateRequest,
  UpdateResult,
} from './job/site-requests.js';
export { sameJson, sharedWith } from './job/same.js';
export { issueWords, schemaProblems } from './job/schema-problems.js';
export { Catalogue, Channel, Device, MultiLocation, Terminal } from './job/schema/catalogue.js';
export {
  Automation,
  Pairing,
  PairingAttempt,
  PairingMark,
  Target,
  Thing,
} from './job/schema/commissioning.js';
export {
  Circuit,
  ControlPoint,
  FORMAT,
  Job,
  JobEvent,
  Load,
  Photo,
  Room,
  Run,
  Selection,
  VERSION,
} from './job/schema/job.js';
export {
  Colour,
  Id,
  Instant,
  LoadKind,
  PracticeId,
  Role,
  Strategy,
  WireSize,
} from './job/schema/primitives.js';
export {
  At,
  Box,
  BoxEnclosure,
  Conductor,
  ExistingDevice,
  Hazard,
  Joint,
  Label,
  Position,
  Reading,
} from './job/schema/survey.js';
export { existingTerminals, recordableTerminals, UNRECOGNISED } from './job/terminals.js';

// document
export { nearMisses } from './document/near-misses.js';
export { readJobDocument, readJobFile } from './document/read.js';
export { referenceProblems } from './document/references.js';

// catalogue
export { deviceName } from './catalogue/device-name.js';
export { catalogueDocument, namedStill, readCatalogue, takeIn, type TakenIn } from './catalogue/document.js';
export { CATALOGUE_KINDS, CATALOGUE_LISTS, type CatalogueList } from './catalogue/kinds.js';
export { catalogueRows, recordsFromRows } from './catalogue/rows.js';

// survey
export {
  FoundDeviceEntry,
  foundDeviceParts,
  UNLISTED,
  USUAL_FOUND_TERMINALS,
} from './survey/as-found-device.js';
export { looksLeft, nextLook, remaining, type SearchAnswer } from './survey/breaker-search.js';
export {
  positionsInOrder,
  withConductor,
  withEnd,
  withExisting,
  withGangs,
  withLabel,
  withoutCable,
  withoutConductors,
  withPositionOrder,
} from './survey/corrections.js';
export {
  type CableName,
  cableNames,
  cableWords,
  conductorsInOrder,
  conductorTitle,
  conductorWords,
} from './survey/conductor-names.js';
export { joinGroupParts, leaveGroupParts, placesOfSameLoad } from './survey/groups.js';
export { labelContext, labelFor } from './survey/label-context.js';
export { keptAsPreset, type LikeBox, likeThatOne } from './survey/like-that-one.js';
export { type ManyBoxes, manyBoxesParts } from './survey/many-boxes.js';
export { type EndTarget, movedEnd, splitJoint } from './survey/moves.js';
export { newBox, repeatedBox } from './survey/new-box.js';
export { usualSize, withNewCable } from './survey/new-cable.js';
export { panelLabel, tracedEvent } from './survey/panel-labels.js';
export { type PresetId, PRESETS } from './survey/preset-list.js';
export {
  type PresetContents,
  presetContents,
  presetsFor,
  presetsInOrder,
  withPreset,
} from './survey/presets.js';
export { putBackList } from './survey/put-back.js';
export { ARRANGEMENT_WORDS, readingWords } from './survey/reading-words.js';
export { farEnds, runOf, runParts, withoutRunOf } from './survey/runs.js';

export { capital } from './units/capital.js';

// bench
export {
  enclosureChips,
  type EnclosureChip,
  isOddDepth,
  usualDepths,
  usualVolumes,
} from './bench/enclosures.js';
export { feedCandidates, feedOfNewBox } from './bench/feeds.js';
export { acceptableMarks, labelSets, nextDarkCore, seemingRoles, withMarks } from './bench/marks.js';
export { loadsToControl, newLoad } from './bench/new-load.js';
export { type BoxInHand, nextStep, skipKey } from './bench/next-step.js';
export { stageToProve, standsEvent, standsNow } from './bench/stands.js';
export { lastSourceVolts, usualReadings } from './bench/usual-readings.js';
export type { Mark, NextStep, Stance } from './bench/vocabulary.js';

// power
export type { ConfirmedRole } from './power/instant.js';
export { labelClashes } from './power/label-clashes.js';
export { DEAD_VOLTS, showsLife } from './power/live-readings.js';
export { materialStops } from './power/material-stops.js';
export { latestInstant, powerOf, powerOfBox } from './power/power.js';
export {
  LEAST_SOURCE_VOLTS,
  provedEvent,
  provingHinders,
  type ProvingPair,
  provingRound,
  sourceShown,
} from './power/prove.js';
export { readingGate, sourceLooks, sweepPoints } from './power/reading-gate.js';
export { type BoxPower, type CircuitPower, GATES, type JobPower, type Stop } from './power/vocabulary.js';

// identify
export type { NextTest } from './identify/asking/next-tests.js';
export { confirmedIn, confirmedRoles } from './identify/confirmed.js';
export type { Identification } from './identify/answer.js';
export { identifyBox } from './identify/identify.js';
export { identificationRestsOn, isSameBasis } from './identify/rests-on.js';

// loads
export {
  carryOfCircuit,
  carryOfHouse,
  type ChannelCarry,
  type CircuitCarry,
  energyOfHouse,
} from './loads/carry.js';
export { demand } from './loads/demand.js';

// enclosure
export { boxCapacity, contentsAsFound, unreadFigures } from './enclosure/as-found.js';
export { contentsAsPlanned } from './enclosure/as-planned.js';
export { assessBox, assessmentRestsOn, assessBoxes, type BoxAssessment } from './enclosure/assess.js';
export type { BoxContents } from './enclosure/contents.js';

// wire
export { chosenPlaces } from './wire/comes-out.js';
export { type NetKey, netName } from './wire/once-wired.js';
export {
  type PictureCore,
  type PictureTerminal,
  type Port,
  type WiringPicture,
  wiringPicture,
} from './wire/picture.js';
export type { JointPlan } from './wire/joint-plan.js';
export { type BoxNow, stepHinders, type WireProgress, wiredEvent, wireProgress } from './wire/progress.js';
export { foundWiring, wayBackSteps, type WireStep, wireSteps, type WiringToDo } from './wire/steps.js';
export { type BoxWiring, type WiringFinding, wiringOfBox, wiringOfHouse } from './wire/wiring.js';

// radio
export { ENOUGH_BARS, signalAt } from './radio/signal.js';

// match
export { againstChoice } from './match/against-choice.js';
export { bestFirst, stoppedBy } from './match/best-first.js';
export type { Candidate } from './match/candidate.js';
export { judgeControlPoint } from './match/control-point.js';
export { matchBox, matchJob, matchPlace } from './match/match.js';
export { MATCH_RULES, type Verdict } from './match/reason.js';

// remedies
export { adoptRemedy } from './remedies/adopt-remedy.js';
export { remedies, type Remedy, troublesOf } from './remedies/remedies.js';

// homeplan
export { adoptParts } from './homeplan/adopt.js';
export { homePlans } from './homeplan/home-plans.js';
export { type OutageReport, OUTAGES, outagesOf } from './homeplan/outages.js';
export { type Phase, phasesOf } from './homeplan/phases.js';
export { type RequirementCost, requirementCosts } from './homeplan/requirements.js';
export { standingPlaces, stillOpen } from './homeplan/still-open.js';
export { distinctPlans } from './homeplan/distinct.js';
export { wallFirst } from './advice/wall-first.js';
export type { HousePlan, PlanChoice, School } from './homeplan/vocabulary.js';

// brief
export { type PossibleDevices, possibleDevices } from './brief/possible-devices.js';
export { answeredQuestions, type Question, QUESTIONS } from './brief/questions.js';
export { usualBrief } from './brief/usual-brief.js';
export { usualNeed } from './brief/usual-need.js';

// advice
export { type RoomAdvice, roomAdvice, type SideCost } from './advice/room-advice.js';
export { type Trial, trialOf } from './advice/trial.js';

// progress
export { type Stage, STAGES } from './progress/stages.js';
export {
  type Blocker,
  boxProgress,
  type BoxProgress,
  jobProgress,
} from './progress/progress.js';
export { worstBlockers } from './progress/worst-blockers.js';

// runsheet
export {
  batchStands,
  type BatchStands,
  type BoxToRun,
  openElsewhere,
  runHinders,
  type RunStep,
  type Stretch,
} from './runsheet/batch-steps.js';
export { beforeLeaving, type BeforeLeaving, type ToHave } from './runsheet/before-leaving.js';
export { USUAL_OPEN_AT_ONCE } from './runsheet/day.js';
export {
  bestSheet,
  movedSheet,
  type MovedSheet,
  runSheet,
  type RunSheet,
  type SheetBatch,
} from './runsheet/run-sheet.js';
export {
  asideEvent,
  batchEvent,
  type BatchInHand,
  batchInHand,
  boxesAside,
  holderOf,
  holdEvent,
} from './runsheet/site-record.js';

// diagnose
export { causeEvent, symptomsTold, testedEvent, testedReadings, triedEvent } from './diagnose/told.js';
export { type Diagnosis, placeInDoubtOf, type RankedCause } from './diagnose/diagnose.js';
export { FAILS_AS, functionChecks } from './diagnose/function-test.js';
export type { NextReading } from './diagnose/asking.js';
export type { SeenAndRead } from './diagnose/evidence.js';
export {
  type FaultCause,
  SYMPTOM_KINDS,
  SYMPTOMS,
  type SymptomKind,
  type Symptoms,
} from './diagnose/vocabulary.js';

// materials
export { materialsOf } from './materials/materials.js';
export { type MaterialLine, type Materials, SHELVES } from './materials/vocabulary.js';

// commission
export { radioChannels, targetId } from './job/targets.js';
export { type Advice, nextAction } from './commission/pairing/advice.js';
export type { Evidence } from './commission/pairing/belief.js';
export {
  type Cause,
  CAUSES,
  type Look,
  LOOKS,
  MACHINE_LOOKS,
  type Remedy as JoiningRemedy,
  SEEN,
  type Seen,
  type Way,
} from './commission/pairing/causes.js';
export { causesOf } from './commission/pairing/chances.js';
export { expectedWatts, judgeWatts, type WattsVerdict } from './commission/live-watts.js';
export { type RemoteTask, remoteTasks } from './commission/remotes.js';
export { namesOf, namesWith } from './commission/names/names.js';
export { dateText, dayNumber, instantText, wallText } from './commission/schedule/calendar.js';
export { calendarFile } from './commission/schedule/calendar-file.js';
export { offOnLeaving } from './commission/schedule/off-on-leaving.js';
export {
  type DayFiring,
  firingsOfDay,
  type Moment,
  type Overview,
  overviewOf,
} from './commission/schedule/overview.js';
export { scheduleLacks, scheduleOf } from './commission/schedule/schedule.js';
export type { Schedule, ScheduleFinding } from './commission/schedule/vocabulary.js';
export { type SettingTask, settingTasks } from './commission/settings.js';
export { trimSearch, type TrimSearch } from './commission/trim.js';
export { type AccountTask, accountTasks, type HubTask, hubTasks } from './commission/hubs.js';
export { isCause, isSeen } from './commission/pairing/evidence.js';
export { type PairingSurroundings, wayOf } from './commission/pairing/known.js';
export { type Light, lightSeconds, pairingManner } from './commission/pairing/manner.js';
export { pairingNext, type PairingNext, parkingReasonOf } from './commission/pairing/pairing-next.js';
export { type Addition, additionParts, namingParts } from './commission/pairing/record.js';
export {
  type ChannelStands,
  type ControlPath,
  type DeviceStands,
  deviceStands,
  isJoined,
  PAIRING_STEPS,
  type PairingStep,
} from './commission/pairing/stands.js';
export { type ChannelTask, type DeviceTask, deviceTasks, tasksByRoom } from './commission/pairing/tasks.js';
export { nextToPair, routerDark } from './commission/walk.js';

// findings
export { boardRows } from './findings/board-rows.js';
export { labelProblems } from './findings/label-problems.js';
export { materialRows } from './findings/material-rows.js';
export {
  conflictFacts,
  partFacts,
  type QuestionWords,
  recordWords,
  wordProblem,
} from './findings/words/changes.js';
export { ESTIMATE_NOTE, fillLineWords, ruleNote } from './findings/words/fill.js';
export { conflictWords, nextTestWhy, noteWords, reasonWords } from './findings/words/identify.js';
export { clashText } from './findings/words/labels.js';
export { toHaveText } from './findings/words/before-leaving.js';
export { functionCheckText } from './findings/words/function-test.js';
export { BEFORE_SWITCHING, openElsewhereText } from './findings/words/run.js';
export {
  causeName,
  DANGER_TEXT,
  fixSteps,
  HOW_LIKELY,
  isAtWires,
  SYMPTOM_WORDS,
  nextReadingWhy,
} from './findings/words/diagnose.js';
export { SHELF_WORDS } from './findings/words/materials.js';
export { nameFindingText } from './findings/words/names.js';
export { ruleWords } from './findings/words/rules.js';
export { targetWords } from './findings/words/targets.js';
export { channelText, placeText } from './findings/words/places.js';
export { scheduleFindingText, scheduleLackText } from './findings/words/schedule.js';
export {
  adviceWhy,
  CAUSE_WORDS,
  failureText,
  LOOK_WORDS,
  lightWords,
  PAIRING_STEP_WORDS,
  PATH_WORDS,
  UPDATE_HELP_WORDS,
  REMEDY_WORDS,
  SEEN_WORDS,
  wattsText,
} from './findings/words/pairing.js';
export {
  ADVICE_WORDS,
  OUTAGE_WORDS,
  requirementWords,
  RULE_WORDS,
  SCHOOL_WORDS,
  schoolsText,
  TRIAL_WORDS,
  whyWords,
} from './findings/words/plans.js';
export { hinderText, sourceDoubtText } from './findings/words/power.js';
export { blockerText, houseBlockerText } from './findings/words/progress.js';
export { sentence } from './findings/words/reasons.js';
export { remedyWords, sideEffectWords, TROUBLE_WORDS } from './findings/words/remedies.js';
export { settling, type Settling } from './findings/words/settling.js';
export { type StepWords, stepWords } from './findings/words/next-step.js';
export { CONDITION_WORDS, HANDS_OFF_STEPS, listed, STOP_WORDS, stopText } from './findings/words/stops.js';
export { connectorWords } from './findings/words/connectors.js';
export { stepDevice, type WireStepWords, wireStepWords } from './findings/words/wire-steps.js';
export {
  endWords,
  netWords,
  terminalWords,
  wiringFindingWords,
  wiringSentences,
  type WiringInWords,
} from './findings/words/wiring.js';
