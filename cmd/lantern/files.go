package main

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"

	"vastlantern/core/cue"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
)

const filesHelp = "A file named - is standard input. Where a file is wrong, every error is printed on standard error " +
	"and the exit code is 2."

func sheetCommand() *cobra.Command {
	var format, lane string
	cmd := &cobra.Command{
		Use:   "sheet PLAN",
		Short: "Print the cue sheet of a plan as written",
		Long: "Prints the cue sheet of a plan as written: one row a count. What waits is taken at its planned length.\n\n" +
			filesHelp,
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			write, err := writer(format)
			if err != nil {
				return err
			}
			p, err := readPlan(cmd, args[0])
			if err != nil {
				return err
			}
			timeline, err := onLane(lane, pace.Sheet(p), p)
			if err != nil {
				return err
			}
			return write(cmd.OutOrStdout(), timeline)
		},
	}
	cmd.Flags().StringVar(&format, "format", "csv", "csv, json or vtt (WebVTT)")
	cmd.Flags().StringVar(&lane, "lane", "", laneHelp)
	return cmd
}

func replayCommand() *cobra.Command {
	var format, lane string
	cmd := &cobra.Command{
		Use:   "replay PLAN SCRIPT",
		Short: "Play a plan with an adjustment script and print what was taught",
		Long: "Plays a plan with an adjustment script on a simulated clock, without waiting, and prints the cue sheet of " +
			"what was taught.\n" +
			"Refused adjustments, and how late a finish-by will end all the same, are told on standard error and do not " +
			"change the exit code.\n\n" + filesHelp,
		Args: cobra.ExactArgs(2),
		RunE: func(cmd *cobra.Command, args []string) error {
			write, err := writer(format)
			if err != nil {
				return err
			}
			p, script, err := readBoth(cmd, args[0], args[1])
			if err != nil {
				return err
			}
			timeline, answers := pace.Replay(p, script)
			reportAnswers(cmd, answers)
			timeline, err = onLane(lane, timeline, p)
			if err != nil {
				return err
			}
			return write(cmd.OutOrStdout(), timeline)
		},
	}
	cmd.Flags().StringVar(&format, "format", "csv", "csv, json or vtt (WebVTT)")
	cmd.Flags().StringVar(&lane, "lane", "", laneHelp)
	return cmd
}

func cuesCommand() *cobra.Command {
	var format, lane string
	cmd := &cobra.Command{
		Use:   "cues PLAN [SCRIPT]",
		Short: "Print what is shown and said, when and to whom",
		Long: "Prints the cues of a plan, or of what was taught with an adjustment script: what is done now and next, what " +
			"the hand does, the calls, prompts and the teacher's own lines.\n" +
			"Without a script what waits is taken at its planned length.\n\n" + filesHelp,
		Args: cobra.RangeArgs(1, 2),
		RunE: func(cmd *cobra.Command, args []string) error {
			writers := map[string]func(io.Writer, []cue.Cue) error{"csv": sheet.WriteCues, "json": sheet.WriteCuesJSON}
			write, known := writers[format]
			if !known {
				return fmt.Errorf("--format: given %q, allowed: csv, json", format)
			}
			if lane != "" && lane != "beside" {
				return fmt.Errorf("--lane: given %q, allowed: beside", lane)
			}
			if len(args) == 1 {
				p, err := readPlan(cmd, args[0])
				if err != nil {
					return err
				}
				return write(cmd.OutOrStdout(), cue.Sheet(p, lane == "beside"))
			}
			p, script, err := readBoth(cmd, args[0], args[1])
			if err != nil {
				return err
			}
			_, answers := pace.Replay(p, script)
			reportAnswers(cmd, answers)
			return write(cmd.OutOrStdout(), cue.Replay(p, script, lane == "beside"))
		},
	}
	cmd.Flags().StringVar(&format, "format", "csv", "csv or json")
	cmd.Flags().StringVar(&lane, "lane", "", laneHelp)
	return cmd
}

// readBoth reads a plan and a script for it. The errors of both files are told.
func readBoth(cmd *cobra.Command, planFile, scriptFile string) (*plan.Plan, []pace.Adjustment, error) {
	if planFile == "-" && scriptFile == "-" {
		return nil, nil, errors.New("only one of PLAN and SCRIPT can be standard input")
	}
	p, planErr := readPlan(cmd, planFile)
	script, scriptErr := readScript(cmd, scriptFile)
	return p, script, errors.Join(planErr, scriptErr)
}

// reportAnswers reports what was refused, how late the class will be, and the tempo of the teacher's breath, on
// standard error (pacing.md sections 4 and 7).
func reportAnswers(cmd *cobra.Command, answers []pace.Answer) {
	for _, answer := range answers {
		if !answer.Refused.None() {
			fmt.Fprintf(cmd.ErrOrStderr(), "refused at %d ms: %s: %s\n", answer.At, answer.Do, text(answer.Refused))
		}
		if answer.Late > 0 {
			fmt.Fprintf(cmd.ErrOrStderr(), "late by %d ms\n", answer.Late)
		}
		if answer.Breathed > 0 {
			fmt.Fprintf(cmd.ErrOrStderr(), "breathed at %d\n", answer.Breathed)
		}
	}
}

const laneHelp = "beside: the gentler lane in the same time"

// onLane returns the timeline as the lane has it.
func onLane(lane string, t pace.Timeline, p *plan.Plan) (pace.Timeline, error) {
	switch lane {
	case "":
		return t, nil
	case "beside":
		return t.Lane(p), nil
	}
	return t, fmt.Errorf("--lane: given %q, allowed: beside", lane)
}

func writer(format string) (func(io.Writer, pace.Timeline) error, error) {
	switch format {
	case "csv":
		return buffered(sheet.WriteCSV), nil
	case "json":
		return buffered(sheet.WriteJSON), nil
	case "vtt":
		return buffered(sheet.WriteVTT), nil
	}
	return nil, fmt.Errorf("--format: given %q, allowed: csv, json, vtt", format)
}

func buffered(write func(io.Writer, pace.Timeline) error) func(io.Writer, pace.Timeline) error {
	return func(w io.Writer, t pace.Timeline) error {
		out := bufio.NewWriterSize(w, 1<<16)
		if err := write(out, t); err != nil {
			return err
		}
		return out.Flush()
	}
}

func readPlan(cmd *cobra.Command, name string) (*plan.Plan, error) {
	var p *plan.Plan
	err := readFile(cmd, name, func(r io.Reader) (err error) {
		_, p, err = sheet.ReadPlan(r)
		return err
	})
	return p, err
}

func readScript(cmd *cobra.Command, name string) ([]pace.Adjustment, error) {
	var script []pace.Adjustment
	err := readFile(cmd, name, func(r io.Reader) (err error) {
		script, err = sheet.ReadScript(r)
		return err
	})
	return script, err
}

// readFile prints what is wrong with the file on standard error.
func readFile(cmd *cobra.Command, name string, read func(io.Reader) error) error {
	err := func() error {
		if name == "-" {
			return read(cmd.InOrStdin())
		}
		f, err := os.Open(name)
		if err != nil {
			return err
		}
		defer f.Close()
		return read(f)
	}()
	if err != nil {
		fmt.Fprintf(cmd.ErrOrStderr(), "%s:\n%s\n", name, errorText(err))
		return errWrongFile
	}
	return nil
}
