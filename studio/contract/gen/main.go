// Command gen prints the JSON Schema of the contract, from which the TypeScript of the screens is made.
package main

import (
	"encoding/json"
	"fmt"
	"os"

	"github.com/invopop/jsonschema"

	"vastlantern/studio/contract"
)

// all names every shape that crosses the wire by itself; the others follow from them.
type all struct {
	Clock     contract.Clock
	Problem   contract.Problem
	Today     contract.Today
	Plan      contract.Plan
	PlanSave  contract.PlanSave
	PlanText  contract.PlanText
	Template  contract.Template
	Begin     contract.Begin
	Course    contract.Course
	CourseOf  contract.CourseCard
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
	Signal    contract.Signal
	Saw       contract.Saw
	Proposed  contract.Proposed
	Taps      contract.Taps
	Tapped    contract.Tapped
	Lead      contract.Lead
	Try       contract.Try
	ClassCard contract.ClassCard
	Score     contract.Score
	Adjust    contract.Adjust
	Adjusted  contract.Adjusted
	Preview   contract.Preview
	Gap       contract.Gap
	TakeAgain contract.TakeAgain
	Record    contract.Record
	Remark    contract.Remark
	GroupPast contract.GroupCourse
	Search    contract.Search
	Found     contract.Found
	Deletion  contract.Deletion
	Deleted   contract.DeletedList
	Session   contract.Session
	SignIn    contract.SignIn
}

func schema() ([]byte, error) {
	reflector := jsonschema.Reflector{Anonymous: true, ExpandedStruct: true}
	s := reflector.Reflect(&all{})
	s.Title = "Contract"
	text, err := json.MarshalIndent(s, "", "  ")
	return append(text, '\n'), err
}

func main() {
	text, err := schema()
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	os.Stdout.Write(text)
}
