package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"vastlantern/core/plan"
	"vastlantern/core/rehearsal"
	"vastlantern/language"
)

const usualSeeds = 200

func rehearseCommand() *cobra.Command {
	var room, format string
	var seeds int
	var list bool
	cmd := &cobra.Command{
		Use:   "rehearse PLAN --room NAME",
		Short: "Tell where a simulated room would be strained by a plan",
		Long: "Has many simulated rooms of one kind follow a plan as written, and prints for each passage how many people " +
			"would be beyond what is easy, " +
			"and from which round on. It is a model for training, not a measurement: it predicts nobody's body.\n\n" + filesHelp,
		Args: func(cmd *cobra.Command, args []string) error {
			if list {
				return cobra.NoArgs(cmd, args)
			}
			return cobra.ExactArgs(1)(cmd, args)
		},
		RunE: func(cmd *cobra.Command, args []string) error {
			if list {
				return writeRooms(cmd.OutOrStdout())
			}
			type writer func(io.Writer, *plan.Plan, rehearsal.Room, []rehearsal.Expectation) error
			write, known := map[string]writer{"text": writeExpected, "json": writeExpectedJSON}[format]
			if !known {
				return fmt.Errorf("--format: given %q, allowed: text, json", format)
			}
			if seeds < 1 || seeds > rehearsal.MostSeeds {
				return fmt.Errorf("--seeds: given %d, allowed: 1 to %d", seeds, rehearsal.MostSeeds)
			}
			if room == "" {
				return errors.New("--room: say which room; --rooms lists them")
			}
			of, err := rehearsal.Find(room)
			if err != nil {
				return fmt.Errorf("--room: %w", err)
			}
			p, err := readPlan(cmd, args[0])
			if err != nil {
				return err
			}
			return write(cmd.OutOrStdout(), p, of, rehearsal.Expect(p, of, seeds))
		},
	}
	cmd.Flags().StringVar(&room, "room", "", "the room, by its name")
	cmd.Flags().IntVar(&seeds, "seeds", usualSeeds, "how many such rooms")
	cmd.Flags().StringVar(&format, "format", "text", "text or json")
	cmd.Flags().BoolVar(&list, "rooms", false, "list the rooms")
	return cmd
}

func writeRooms(w io.Writer) error {
	rooms, err := rehearsal.Rooms()
	if err != nil {
		return err
	}
	var text strings.Builder
	for _, r := range rooms {
		fmt.Fprintf(&text, "%-15s %2d people  %s\n", r.Name, r.Size(), language.English().Text(r.About()))
	}
	_, err = io.WriteString(w, text.String())
	return err
}

func writeExpected(w io.Writer, p *plan.Plan, room rehearsal.Room, list []rehearsal.Expectation) error {
	var text strings.Builder
	fmt.Fprintf(&text, "%s: a model, not a measurement\n", language.English().Text(room.Title()))
	for _, e := range list {
		name := p.Passages[e.Passage-1].Headline()
		switch {
		case e.High == 0:
			fmt.Fprintf(&text, "passage %d, %s: easy for all %d\n", e.Passage, name, e.People)
		case e.Low == e.High:
			fmt.Fprintf(
				&text,
				"passage %d, %s: from round %d %d of %d beyond what is easy\n",
				e.Passage,
				name,
				e.FromRound,
				e.High,
				e.People,
			)
		default:
			fmt.Fprintf(
				&text,
				"passage %d, %s: from round %d %d to %d of %d beyond what is easy\n",
				e.Passage,
				name,
				e.FromRound,
				e.Low,
				e.High,
				e.People,
			)
		}
	}
	_, err := io.WriteString(w, text.String())
	return err
}

func writeExpectedJSON(w io.Writer, _ *plan.Plan, _ rehearsal.Room, list []rehearsal.Expectation) error {
	type object struct {
		Passage   int `json:"passage"`
		FromRound int `json:"from_round"`
		People    int `json:"people"`
		Low       int `json:"low"`
		Median    int `json:"median"`
		High      int `json:"high"`
	}
	objects := make([]object, len(list))
	for i, e := range list {
		objects[i] = object(e)
	}
	out := json.NewEncoder(w)
	out.SetIndent("", "  ")
	return out.Encode(objects)
}
