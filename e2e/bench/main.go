// Command bench runs the benchmarks and writes one table of them into docs/performance.md, each beside what it is
// compared with in the same run. With -check it writes nothing, and fails where a ratio is over 1.3 times the one in
// the table, twice.
package main

import (
	"bufio"
	"bytes"
	"errors"
	"flag"
	"fmt"
	"log"
	"os"
	"os/exec"
	"regexp"
	"strconv"
	"strings"
)

// row is a line of the table: a benchmark and what it is compared with, by their names.
type row struct {
	what, bench   string
	beside, other string
	unit          string // ns/op, or one that the benchmark reports
}

const (
	csv  = "BenchmarkSheet/encoding-csv-alone/5400-counts"
	json = "BenchmarkAnAdjustmentOfAnHour/encode"
	time = "ns/op"
	p95  = "p95-ms"
)

var rows = []row{
	{
		"compiling a class of 90 minutes (5,400 counts)",
		"BenchmarkSheet/compile/5400-counts",
		"`encoding/csv` writing the same rows",
		csv,
		time,
	},
	{
		"of four hours (14,400 counts)",
		"BenchmarkSheet/compile/14400-counts",
		"that of 90 minutes; 2.67 is linear",
		"BenchmarkSheet/compile/5400-counts",
		time,
	},
	{
		"an adjustment in the middle of 90 minutes, after 200 changes of tempo",
		"BenchmarkAdjust/answer",
		"`encoding/csv` writing the rows of it",
		csv,
		time,
	},
	{"the same, with the whole timeline after it", "BenchmarkAdjust/answer-and-timeline", "the same", csv, time},
	{
		"what sixteen keys would do, at a phase in the middle of 88 minutes (5,280 counts)",
		"BenchmarkPreviews",
		"the same",
		csv,
		time,
	},
	{"the cues of an hour (3,520 counts) on one lane, with its timeline", "BenchmarkCues/sheet", "the same", csv, time},
	{"the same after one more adjustment, when there were 200", "BenchmarkCues/adjust", "the same", csv, time},
	{
		"a press of a class that is led by hand, with its cues, when there were 2,000", "BenchmarkByHand",
		"the same", csv, time,
	},
	{"what 200 rooms of fourteen would do in forty minutes", "BenchmarkExpect", "the same", csv, time},
	{
		"a change of tempo in an hour's class after 200 others, from the request to the scores of the lead screen and the " +
			"room, stored",
		"BenchmarkAnAdjustmentOfAnHour/tempo",
		"packing the room's score as JSON",
		json,
		time,
	},
	{"another number of rounds", "BenchmarkAnAdjustmentOfAnHour/rounds", "the same", json, time},
	{
		"`lantern sheet` as a whole process, 5,400 counts",
		"BenchmarkSheetProcess/5400-counts",
		"540 counts: most of it is the start",
		"BenchmarkSheetProcess/540-counts",
		time,
	},
	{
		"ten years: the list of classes, its first fifty, p95",
		"BenchmarkYears/10/list",
		"one year",
		"BenchmarkYears/1/list",
		p95,
	},
	{"its last fifty", "BenchmarkYears/10/last_page", "one year", "BenchmarkYears/1/last_page", p95},
	{
		"a search by group, practice, easing and words",
		"BenchmarkYears/10/search",
		"one year",
		"BenchmarkYears/1/search",
		p95,
	},
	{
		"a group's course and next time, not asked for before",
		"BenchmarkYears/10/course,_not_known_yet",
		"one year",
		"BenchmarkYears/1/course,_not_known_yet",
		p95,
	},
	{"the same course, asked for again", "BenchmarkYears/10/course", "one year", "BenchmarkYears/1/course", p95},
	{"Today", "BenchmarkYears/10/today", "one year", "BenchmarkYears/1/today", p95},
	{"Today beside 100,000 plans", "BenchmarkManyPlans/today", "ten years without them", "BenchmarkYears/10/today", p95},
	{"the summary of a year", "BenchmarkYears/10/summary", "one year", "BenchmarkYears/1/summary", p95},
}

const (
	page  = "docs/performance.md"
	begin = "<!-- made by make bench -->"
	end   = "<!-- until here -->"
	worse = 1.3 // times the ratio in the table
)

func main() {
	check := flag.Bool("check", false, "write nothing, and fail where a ratio is over 1.3 times the one in the table")
	flag.Parse()
	if err := run(*check); err != nil {
		log.Fatal(err)
	}
}

func run(check bool) error {
	measured := figures{}
	if err := measured.measure("."); err != nil {
		return err
	}
	table, ratios, err := tableOf(measured)
	if err != nil {
		return err
	}
	fmt.Print(table)
	text, err := os.ReadFile(page)
	if err != nil {
		return err
	}
	before, rest, found := strings.Cut(string(text), begin)
	old, after, closed := strings.Cut(rest, end)
	if !found || !closed {
		return fmt.Errorf("%s has no place for the table: %q and %q", page, begin, end)
	}
	if !check {
		return os.WriteFile(page, []byte(before+begin+"\n\n"+table+"\n"+end+after), 0o600)
	}
	suspected, told := worseThan(old, ratios)
	if told == nil {
		return nil
	}
	fmt.Printf("\nOnce more, since something else may have run beside it:\n%v\n\n", told)
	if err := measured.measure(namesOf(suspected)); err != nil {
		return err
	}
	if table, ratios, err = tableOf(measured); err != nil {
		return err
	}
	fmt.Print(table)
	_, told = worseThan(old, ratios)
	return told
}

// namesOf returns a pattern for the benchmarks of these rows.
func namesOf(suspected []row) string {
	var names []string
	for _, r := range suspected {
		for _, bench := range []string{r.bench, r.other} {
			name, _, _ := strings.Cut(bench, "/")
			names = append(names, name)
		}
	}
	return "^(" + strings.Join(names, "|") + ")$"
}

// line is what a benchmark prints: its name, how often it ran, and figures with their units.
var line = regexp.MustCompile(`^(Benchmark\S+?)(?:-\d+)?\s+\d+\s+(.*)$`)

// figures is what was measured, by benchmark and unit: the least of all times, since what else the machine does only
// adds to it.
type figures map[string]map[string]float64

// measure runs the benchmarks of a pattern three times, one package after the other.
func (f figures) measure(pattern string) error {
	cmd := exec.Command(
		"go",
		"test",
		"-p",
		"1",
		"-tags",
		"nomsgpack",
		"-run",
		"^$",
		"-bench",
		pattern,
		"-count",
		"3",
		"-benchtime",
		"500ms",
		"-timeout",
		"60m",
		"./core/...",
		"./studio/...",
		"./e2e",
	)
	cmd.Stderr = os.Stderr
	out, err := cmd.Output()
	if err != nil {
		return fmt.Errorf("%w\n%s", err, out)
	}
	for lines := bufio.NewScanner(bytes.NewReader(out)); lines.Scan(); {
		found := line.FindStringSubmatch(lines.Text())
		if found == nil {
			continue
		}
		if f[found[1]] == nil {
			f[found[1]] = map[string]float64{}
		}
		cells := strings.Fields(found[2])
		for i := 0; i+1 < len(cells); i += 2 {
			figure, err := strconv.ParseFloat(cells[i], 64)
			if err != nil {
				return err
			}
			unit := cells[i+1]
			if known, there := f[found[1]][unit]; !there || figure < known {
				f[found[1]][unit] = figure
			}
		}
	}
	return nil
}

func tableOf(measured figures) (table string, ratios map[string]float64, err error) {
	ratios = map[string]float64{}
	var text strings.Builder
	text.WriteString("| what | took | beside | took | ratio |\n| --- | --- | --- | --- | --- |\n")
	for _, r := range rows {
		one, there := measured[r.bench][r.unit]
		other, also := measured[r.other][r.unit]
		if !there || !also {
			return "", nil, fmt.Errorf("%s or %s was not run", r.bench, r.other)
		}
		if _, twice := ratios[r.what]; twice {
			return "", nil, fmt.Errorf("two rows are called %q", r.what)
		}
		ratios[r.what] = one / other
		fmt.Fprintf(
			&text,
			"| %s | %s | %s | %s | %.2f |\n",
			r.what,
			took(one, r.unit),
			r.beside,
			took(other, r.unit),
			one/other,
		)
	}
	return text.String(), ratios, nil
}

func took(figure float64, unit string) string {
	if unit == time {
		figure /= 1e6
	}
	return strconv.FormatFloat(figure, 'g', 3, 64) + " ms"
}

// worseThan returns the rows whose ratio has become worse than in the table, and an error that tells them.
func worseThan(table string, ratios map[string]float64) (worst []row, told error) {
	was := map[string]float64{}
	for text := range strings.Lines(table) {
		cells := strings.Split(strings.Trim(strings.TrimSpace(text), "|"), " | ")
		if len(cells) != 5 {
			continue
		}
		if ratio, err := strconv.ParseFloat(strings.TrimSpace(cells[4]), 64); err == nil {
			was[strings.TrimSpace(cells[0])] = ratio
		}
	}
	for _, r := range rows {
		if before, known := was[r.what]; known && ratios[r.what] > worse*before {
			worst = append(worst, r)
			told = errors.Join(told, fmt.Errorf("%s: the ratio is %.2f, and was %.2f", r.what, ratios[r.what], before))
		}
	}
	return worst, told
}
