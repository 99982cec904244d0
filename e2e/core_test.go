package e2e

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan/line"
	"vastlantern/core/sheet"
	"vastlantern/e2e/stage"
	"vastlantern/studio/apart"
	"vastlantern/studio/contract"
)

// inNode answers each line that it reads with what the core says, as the worker of a page does.
const inNode = `
import { readFileSync } from "node:fs";
import { createInterface } from "node:readline";
await import(process.argv[2] + "/wasm_exec.js");
const go = new Go();
const { instance } = await WebAssembly.instantiate(readFileSync(process.argv[2] + "/core.wasm"), go.importObject);
void go.run(instance);
for await (const question of createInterface({ input: process.stdin }))
	console.log(question === "memory" ? instance.exports.mem.buffer.byteLength : lanternCore(question));
process.exit(0);
`

// core is the core as the browser runs it, in Node.
type core struct {
	t    testing.TB
	in   io.Writer
	out  *bufio.Reader
	here apart.Worker
}

func startCore(t testing.TB) *core {
	script := filepath.Join(t.TempDir(), "core.mjs")
	require.NoError(t, os.WriteFile(script, []byte(inNode), 0o600))
	built, err := filepath.Abs("../ui/src/apart/go")
	require.NoError(t, err)
	node := exec.Command("node", script, built)
	node.Stderr = os.Stderr
	in, err := node.StdinPipe()
	require.NoError(t, err)
	out, err := node.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, node.Start())
	t.Cleanup(func() {
		in.Close()
		assert.NoError(t, node.Wait())
	})
	return &core{t: t, in: in, out: bufio.NewReaderSize(out, 1<<20)}
}

// ask returns what the core in Node answers, and holds it to what the same code answers here, byte for byte.
func (c *core) ask(question contract.CoreQuestion) string {
	text, err := json.Marshal(question)
	require.NoError(c.t, err)
	_, err = fmt.Fprintf(c.in, "%s\n", text)
	require.NoError(c.t, err)
	answer, err := c.out.ReadString('\n')
	require.NoError(c.t, err)
	answer = strings.TrimSuffix(answer, "\n")
	require.Equal(c.t, string(c.here.Answer(text)), answer, question.Ask)
	return answer
}

// memory returns how many bytes it has taken.
func (c *core) memory() (bytes float64) {
	_, err := fmt.Fprintln(c.in, "memory")
	require.NoError(c.t, err)
	_, err = fmt.Fscanln(c.out, &bytes)
	require.NoError(c.t, err)
	return bytes
}

// text returns an answer that is a text.
func (c *core) text(question contract.CoreQuestion) string {
	var answer struct {
		Result string
		Wrong  any
	}
	require.NoError(c.t, json.Unmarshal([]byte(c.ask(question)), &answer))
	require.Nil(c.t, answer.Wrong)
	return answer.Result
}

// presses draws what a teacher could press in a class, some of it where it is refused.
func presses(random *rand.Rand, n int) []string {
	verbs := []string{
		`"do": "tempo", "to": 52`, `"do": "tempo", "to": 66.5, "carry": true`, `"do": "advance"`, `"do": "release"`,
		`"do": "counts", "to": [4, 2, 6, 0]`, `"do": "drop-holds"`, `"do": "restore-holds"`,
		`"do": "beside", "to": "breathe"`,
		`"do": "by-hand", "to": "all"`, `"do": "by-hand", "to": "none"`, `"do": "rounds", "by": 1`, `"do": "last-round"`,
		`"do": "again"`, `"do": "enough"`, `"do": "strokes", "to": 12`, `"do": "pause"`, `"do": "resume"`, `"do": "close"`,
		`"do": "next"`, `"do": "undo"`, `"do": "finish-by", "to_ms": 600000`, `"do": "note", "text": "a note, with a comma"`,
	}
	lines := make([]string, n)
	at := 0
	for i := range lines {
		at += random.IntN(25_000)
		lines[i] = fmt.Sprintf(`{"at_ms": %d, %s}`, at, verbs[random.IntN(len(verbs))])
	}
	return lines
}

// Every kind of class, as it is planned and as it is led, has the same cue sheet and the same cues in the browser as
// the commands print, on both lanes, byte for byte.
func TestTheCoreInTheBrowserIsTheSame(t *testing.T) {
	t.Parallel()
	c := startCore(t)
	binary, err := stage.Binary()
	require.NoError(t, err)
	folder := t.TempDir()
	command := func(args ...string) string {
		run := exec.Command(binary, args...)
		run.Dir = folder
		out, err := run.Output()
		require.NoError(t, err, strings.Join(args, " "))
		return string(out)
	}
	random := rand.New(rand.NewPCG(36, 1))
	for _, k := range stage.Kinds {
		text := planOf(t, k)
		require.NoError(t, os.WriteFile(filepath.Join(folder, "a.plan.json"), text, 0o600))
		for led := range 2 {
			script := strings.Join(presses(random, 25*led), "\n")
			require.NoError(t, os.WriteFile(filepath.Join(folder, "a.adjust.jsonl"), []byte(script), 0o600))
			for _, beside := range []bool{false, true} {
				q := contract.CoreQuestion{Ask: contract.AskSheet, Plan: string(text), Script: script, Beside: beside}
				sheetOf, cuesOf := []string{"sheet", "a.plan.json"}, []string{"cues", "a.plan.json"}
				if led > 0 {
					sheetOf = []string{"replay", "a.plan.json", "a.adjust.jsonl"}
					cuesOf = append(cuesOf, "a.adjust.jsonl")
				}
				if beside {
					sheetOf, cuesOf = append(sheetOf, "--lane", "beside"), append(cuesOf, "--lane", "beside")
				}
				assert.Equal(t, command(sheetOf...), c.text(q), "%s %v", k.Name, sheetOf)
				q.Ask = contract.AskCues
				assert.Equal(t, command(cuesOf...), c.text(q), "%s %v", k.Name, cuesOf)
			}
		}
	}
}

func planOf(t *testing.T, k stage.Kind) []byte {
	t.Helper()
	doc, err := line.NewNames([]string{"en"}, nil).FromText(k.File(), time.UTC)
	require.NoError(t, err, k.Name)
	var text bytes.Buffer
	require.NoError(t, sheet.WritePlan(&text, doc))
	return text.Bytes()
}

// What a lead screen asks of its own copy of a class has the same answers in the browser as in the program's own code.
func TestTheCoreInTheBrowserLeads(t *testing.T) {
	t.Parallel()
	c := startCore(t)
	random := rand.New(rand.NewPCG(36, 2))
	for _, k := range stage.Kinds {
		kit := contract.Kit{ClassID: 1, StartedMS: 1_790_000_000_000, Document: string(planOf(t, k)), Origin: "tablet"}
		c.ask(contract.CoreQuestion{Ask: contract.AskOpen, Kit: &kit})
		for i, line := range presses(random, 12) {
			var timed contract.TimedPress
			require.NoError(t, json.Unmarshal([]byte(line), &timed))
			timed.Key = fmt.Sprint(i)
			one := []contract.Adjust{timed.Adjust}
			c.ask(contract.CoreQuestion{Ask: contract.AskWould, AtMS: timed.AtMS, Presses: one})
			c.ask(contract.CoreQuestion{Ask: contract.AskPress, AtMS: timed.AtMS, Presses: one})
			c.ask(contract.CoreQuestion{Ask: contract.AskPropose, AtMS: timed.AtMS, See: "restless"})
		}
		c.ask(contract.CoreQuestion{Ask: contract.AskUnsent})
	}
}
