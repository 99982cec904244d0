// Command gen writes what the screens have from the contract: the JSON Schema from which their TypeScript is made, the
// keys of the lead screen, and the lists of phases. It also writes the JSON Schemas of the files that leave the
// application.
package main

import (
	"encoding/json"
	"fmt"
	"os"
	"reflect"

	"github.com/invopop/jsonschema"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/cue"
	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/programme"
	"vastlantern/core/rehearsal"
	"vastlantern/core/voice"
	"vastlantern/studio/contract"
)

// all names every shape that crosses the wire by itself; the others follow from them.
type all struct {
	Clock     contract.Clock
	Problem   contract.Problem
	Today     contract.Today
	Running   contract.Running
	Plan      contract.Plan
	PlanSave  contract.PlanSave
	PlanText  contract.PlanText
	Template  contract.Template
	Begin     contract.Begin
	Programme contract.ProgrammeSheet
	SaveSteps contract.ProgrammeSave
	PlanOf    contract.ProgrammeOfPlan
	OfferOf   contract.ProgrammeOffer
	CardOf    contract.ProgrammeCard
	GiveTo    contract.ProgrammeGive
	Bring     contract.ProgrammeBring
	Draft     contract.Draft
	Drafted   contract.Drafted
	Book      contract.Book
	File      contract.PracticeFile
	FileText  contract.PracticeText
	FileCopy  contract.PracticeCopy
	FileDraft contract.PracticeDrafted
	Groups    contract.Groups
	Settings  contract.Settings
	Done      contract.Done
	RoomCode  contract.RoomCode
	Room      contract.Room
	Answer    contract.RoomAnswer
	HomeOffer contract.HomeOffer
	HomeGive  contract.HomeGive
	HomeRead  contract.HomePreview
	HomeSheet contract.HomeSheet
	HomesOf   contract.HomesOfGroup
	HomeSaid  contract.HomeAnswer
	HomePage  contract.HomePage
	HomeVoice contract.HomeRecordings
	Answered  contract.RoomAnswered
	CheckedIn contract.CheckInAnswer
	Signal    contract.Signal
	Saw       contract.Saw
	Proposed  contract.Proposed
	Taps      contract.Taps
	Tapped    contract.Tapped
	Listens   contract.Listens
	HeardPace contract.HeardStrokes
	FromHeard contract.FromHeard
	HeardMore contract.HeardMore
	HeardKept contract.HeardKept
	Lead      contract.Lead
	Try       contract.Try
	ClassCard contract.ClassCard
	Score     contract.Score
	Packing   contract.Packing
	Adjust    contract.Adjust
	Kit       contract.Kit
	Presses   contract.Presses
	Taken     contract.Taken
	BegunHere contract.BegunApart
	HeldHere  contract.Held
	Question  contract.CoreQuestion
	Pressing  contract.PressedHere
	Unsent    contract.UnsentHere
	Adjusted  contract.Adjusted
	Preview   contract.Preview
	Gap       contract.Gap
	TakeAgain contract.TakeAgain
	Record    contract.Record
	Remark    contract.Remark
	RemarkAdd contract.RemarkAdd
	PlansOf   contract.PlansFound
	GroupPast contract.GroupCourse
	Returning contract.ReturningNotes
	Search    contract.Search
	Found     contract.Found
	Summary   contract.Summary
	Deletion  contract.Deletion
	Imported  contract.Imported
	Importing contract.ImportProgress
	Deleted   contract.DeletedList
	Typed     contract.Typed
	TypedRead contract.TypedRead
	PlainText contract.PlainText
	Phrases   contract.Phrases
	DemoData  contract.DemoData
	MovePlan  contract.MovePlan
	LastTime  contract.LastTime
	Voices    contract.Voices
	VoiceName contract.VoiceName
	VoiceAll  contract.VoiceSheet
	VoiceText contract.VoiceText
	VoiceMade contract.VoiceRecording
	Expected  contract.Expected
	Rehearsed contract.Rehearsals
	Rehearse  contract.Rehearse
	Watching  contract.Rehearsing
	Watched   contract.RehearsalAdjusted
	WatchedDo contract.RehearsalProposed
	WatchedIf contract.RehearsalWould
	Came      contract.RehearsalMoment
	Review    contract.RehearsalReview
	Session   contract.Session
	Trust     contract.Certificate
	SignIn    contract.SignIn
}

// words is the types of the core that are one of some words, so that the screens know which.
var words = map[reflect.Type][]any{
	reflect.TypeFor[pace.Stage](): {
		pace.Talk,
		pace.Free,
		pace.Setup,
		pace.Opening,
		pace.Round,
		pace.Rest,
		pace.Pause,
		pace.Own,
		pace.Recall,
		pace.Closing,
	},
	reflect.TypeFor[pace.When]():      {"", pace.Now, pace.NextCount, pace.AfterHold, pace.NextRound, pace.Never},
	reflect.TypeFor[cue.Kind]():       anyOf(cue.Kinds),
	reflect.TypeFor[plan.Who]():       {plan.ForTeacher, plan.ForRoom, plan.ForAll},
	reflect.TypeFor[pace.Verb]():      anyOf(pace.Verbs()),
	reflect.TypeFor[breath.Phase]():   anyOf(breath.Phases),
	reflect.TypeFor[breath.Through](): {breath.None, breath.Left, breath.Right, breath.Both, breath.Mouth},
	reflect.TypeFor[plan.Type]():      {plan.Talk, plan.Free, plan.Practice},
	reflect.TypeFor[plan.About](): {
		plan.AboutBreath,
		plan.AboutVoice,
		plan.AboutAround,
		plan.AboutLane,
		plan.AboutClass,
	},
	reflect.TypeFor[programme.By]():   {programme.Date, programme.Led},
	reflect.TypeFor[programme.Then](): {programme.Wait, programme.Back, programme.On},
	reflect.TypeFor[contract.ProgrammeState](): {
		contract.StatePlanned,
		contract.StateEased,
		contract.StateTooMuch,
		contract.StateMissed,
		contract.StateRunning,
		contract.StateComing,
	},
	reflect.TypeFor[rehearsal.Doing]():      doings(),
	reflect.TypeFor[voice.Kind]():           anyOf(voice.Kinds),
	reflect.TypeFor[contract.ImportStage](): {"", contract.ImportReading, contract.ImportWriting},
	reflect.TypeFor[contract.Choice]():      {contract.ChooseNone, contract.ChooseScreen, contract.ChooseProgram},
	reflect.TypeFor[contract.Ask](): {
		contract.AskOpen, contract.AskToLead, contract.AskAdopt, contract.AskPress, contract.AskScore, contract.AskWould,
		contract.AskPropose,
		contract.AskTapped, contract.AskHeard, contract.AskGap, contract.AskTurn, contract.AskUnsent, contract.AskSync,
		contract.AskSheet, contract.AskCues,
	},
	reflect.TypeFor[contract.How]():        {contract.Easy, contract.Right, contract.TooMuch},
	reflect.TypeFor[contract.ChangeKind](): kinds(),
	reflect.TypeFor[contract.MarkKind](): {
		contract.MarkChange,
		contract.MarkRemark,
		contract.MarkGoingOn,
		contract.MarkTakenBack,
		contract.MarkRefused,
	},
	reflect.TypeFor[care.Do](): {care.LeaveOut, care.Gentle, care.Carefully},
}

func doings() []any {
	list := []any{rehearsal.Natural, rehearsal.Absent, rehearsal.Comes}
	for _, phase := range breath.OfAFigure {
		list = append(list, rehearsal.Doing(phase))
	}
	return list
}

// kinds returns those of a change; advice may have none.
func kinds() []any { return append([]any{""}, anyOf(contract.ChangeKinds)...) }

func anyOf[T any](list []T) []any {
	out := make([]any, len(list))
	for i, one := range list {
		out[i] = one
	}
	return out
}

// asWords gives such a type its words, and the arguments of a fact any value.
func asWords(t reflect.Type) *jsonschema.Schema {
	if t == reflect.TypeFor[fact.Args]() {
		return &jsonschema.Schema{Type: "object", AdditionalProperties: jsonschema.TrueSchema}
	}
	if list := words[t]; list != nil {
		return &jsonschema.Schema{Type: "string", Enum: list}
	}
	return nil
}

// made returns the files that are made of the structs, from the root of the project.
func made() (map[string][]byte, error) {
	screens := jsonschema.Reflector{Anonymous: true, ExpandedStruct: true, Mapper: asWords}
	// What leaves the application is documented by the comments of the structs.
	files := jsonschema.Reflector{Anonymous: true, ExpandedStruct: true, Mapper: asWords}
	if err := files.AddGoComments("vastlantern", "./studio/contract"); err != nil {
		return nil, err
	}
	out := map[string][]byte{}
	for _, one := range []struct {
		path, title string
		reflector   *jsonschema.Reflector
		shape       any
	}{
		{"ui/contract.schema.json", "Contract", &screens, &all{}},
		{"studio/contract/schema/export.schema.json", "Everything that a teacher has", &files, &contract.Export{}},
		{"studio/contract/schema/records.schema.json", "Records of classes", &files, &contract.Records{}},
	} {
		s := one.reflector.Reflect(one.shape)
		s.Title = one.title
		text, err := json.MarshalIndent(s, "", "  ")
		if err != nil {
			return nil, err
		}
		out[one.path] = append(text, '\n')
	}
	for path, value := range map[string]any{
		"ui/controls.json": contract.Controls,
		"ui/phases.json": map[string][]breath.Phase{
			"ofABreath": breath.OfABreath, "ofAFigure": breath.OfAFigure, "moving": breath.Moving,
		},
	} {
		text, err := json.MarshalIndent(value, "", "  ")
		if err != nil {
			return nil, err
		}
		out[path] = append(text, '\n')
	}
	out["docs/adjustments.md"] = adjustments()
	return out, nil
}

func write() error {
	files, err := made()
	for path, text := range files {
		if err := os.WriteFile(path, text, 0o644); err != nil {
			return err
		}
	}
	return err
}

func main() {
	if err := write(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}
