package main

import (
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/cue"
	"vastlantern/core/plan"
)

func checkCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "check PLAN",
		Short: "Print length against slot, true ratios, cautions and order advice",
		Long: "Prints what a plan amounts to: its length against its slot, each passage with its rounds, breath rate and " +
			"true ratio, the cautions, " +
			"and advice on the order. Advice and cautions do not change the exit code.\n\n" + filesHelp,
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			p, err := readPlan(cmd, args[0])
			if err != nil {
				return err
			}
			return check(cmd.OutOrStdout(), p)
		},
	}
}

func check(w io.Writer, p *plan.Plan) error {
	var out strings.Builder
	if p.Title != "" {
		fmt.Fprintln(&out, p.Title)
	}
	fmt.Fprintln(&out, against(p))
	start := breath.Exact{}
	for i := range p.Passages {
		passage := &p.Passages[i]
		length := passage.PlannedLength()
		fmt.Fprintf(&out, "%3d  %8s  %8s  %s%s\n", i+1, clock(start), clock(length), passage.Name(), numbers(passage))
		start = start.Add(length)
	}
	section(&out, "Cautions", cautions(p))
	var advice []string
	for _, a := range append(p.Advise(""), cue.Advise(p)...) {
		advice = append(advice, where(p, a.Passage)+text(a.Say)+" "+text(a.Why))
	}
	section(&out, "Advice", advice)
	_, err := io.WriteString(w, out.String())
	return err
}

func against(p *plan.Plan) string {
	length := p.Length()
	if p.Slot.Sign() == 0 {
		return fmt.Sprintf("%s planned, no slot", clock(length))
	}
	slot := p.Slot.Times(60_000)
	if slot.Less(length) {
		return fmt.Sprintf("%s planned of %s, %s too long", clock(length), clock(slot), clock(length.Sub(slot)))
	}
	return fmt.Sprintf("%s planned of %s, %s to spare", clock(length), clock(slot), clock(slot.Sub(length)))
}

// numbers returns a practice passage in figures, and what is said of the others.
func numbers(p *plan.Passage) string {
	if p.Type != plan.Practice {
		if p.Wait {
			return ", waits"
		}
		return ""
	}
	f := p.Figures()
	var parts []string
	if pattern := p.Pattern(); pattern != "" {
		parts = append(parts, pattern)
	}
	if p.OwnPace {
		parts = append(parts, "own pace")
	} else {
		parts = append(parts, fmt.Sprintf("%d rounds of %s s", f.Rounds, seconds(f.Round)))
	}
	if f.PerMinute.Sign() > 0 {
		parts = append(parts, fmt.Sprintf("%s breaths a minute", f.PerMinute))
	}
	if f.TrueRatio != "" {
		parts = append(parts, "true ratio "+f.TrueRatio)
	}
	if f.LongestHold.Sign() > 0 {
		parts = append(
			parts,
			fmt.Sprintf("longest hold %s s", seconds(f.LongestHold)),
			clock(f.HeldFull.Add(f.HeldEmpty))+" in holds",
		)
	}
	return ": " + strings.Join(parts, ", ")
}

// cautions returns each caution of the plan once, with the passages that it belongs to.
func cautions(p *plan.Plan) []string {
	passages := map[string][]string{}
	var order []string
	for i := range p.Passages {
		for _, c := range care.Of(&p.Passages[i]) {
			if c.ID == care.EveryoneID {
				continue
			}
			say := text(c.Say)
			if passages[say] == nil {
				order = append(order, say)
			}
			passages[say] = append(passages[say], fmt.Sprint(i+1))
		}
	}
	var list []string
	for _, say := range order {
		list = append(list, fmt.Sprintf("passage %s: %s", strings.Join(passages[say], ", "), say))
	}
	return append(list, text(care.Everyone.Say))
}

func section(w io.Writer, title string, lines []string) {
	if len(lines) == 0 {
		return
	}
	fmt.Fprintf(w, "\n%s\n", title)
	for _, line := range lines {
		fmt.Fprintf(w, "- %s\n", line)
	}
}

func where(p *plan.Plan, passage int) string {
	if passage == 0 {
		return ""
	}
	return fmt.Sprintf("passage %d (%s): ", passage, p.Passages[passage-1].Name())
}

func seconds(ms breath.Exact) string { return ms.Div(breath.Int(1000)).String() }

// clock writes milliseconds as 1:05 or 1:02:05.
func clock(ms breath.Exact) string {
	total := ms.Div(breath.Int(1000)).Round()
	if total >= 3600 {
		return fmt.Sprintf("%d:%02d:%02d", total/3600, total/60%60, total%60)
	}
	return fmt.Sprintf("%d:%02d", total/60, total%60)
}
