package vastlantern

import (
	"go/ast"
	"go/parser"
	"go/scanner"
	"go/token"
	"io/fs"
	"maps"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"unicode/utf8"

	"vastlantern/language"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const module = "vastlantern/"

// rooms is the order of the house: each room, and the rooms of ours that its code may import. The most exact name
// counts. The rooms of the studio do not know each other: each says what it needs of another one, and desk puts them
// together.
var rooms = map[string][]string{
	"core/fact":      {},
	"core/fold":      {},
	"core/breath":    {"core/fact"},
	"core/practice":  {"core/fact", "core/breath"},
	"core/words":     {"core/breath"},
	"core/plan":      {"core/fact", "core/breath", "core/practice", "core/words"},
	"core/plan/fit":  {"core/fact", "core/breath", "core/plan"},
	"core/plan/line": {"core/fact", "core/fold", "core/breath", "core/practice", "core/plan"},
	"core/school":    {"core/fact", "core/breath", "core/practice", "core/plan"},
	"core/pace":      {"core/fact", "core/breath", "core/practice", "core/plan", "core/words"},
	"core/cue":       {"core/fact", "core/breath", "core/practice", "core/plan", "core/pace", "core/words"},
	"core/care":      {"core/fact", "core/breath", "core/practice", "core/plan"},
	"core/room":      {"core/fact", "core/breath", "core/practice", "core/plan", "core/pace"},
	"core/taught":    {"core/fact", "core/breath", "core/practice", "core/plan", "core/pace"},
	"core/homework": {
		"core/fact", "core/breath", "core/practice", "core/plan", "core/plan/line", "core/school", "core/taught",
	},
	"core/voice":          {"core/fact", "core/breath", "core/words"},
	"core/programme":      {"core/fact", "core/breath", "core/practice", "core/plan", "core/plan/line"},
	"core/rehearsal":      {"core/fact", "core/breath", "core/plan", "core/pace"},
	"core/sheet":          {"core/fact", "core/breath", "core/practice", "core/plan", "core/pace", "core/cue"},
	"language":            {"core/fact"},
	"store":               {"core"},
	"studio/contract":     {"core"},
	"studio/led":          {"core", "studio/contract"},
	"studio/contract/gen": {"core", "language", "studio/contract"},
	"studio/tryout": {
		"core", "language", "studio/contract", "studio/led", "studio/apart", "studio/rehearsed",
	},
	"studio/rehearsed":  {"core", "studio/contract", "studio/led"},
	"studio/apart":      {"core", "studio/contract", "studio/led"},
	"studio":            {"core", "language", "store", "studio/contract", "studio/led"},
	"studio/prepare":    {"core", "language", "store", "studio/contract", "studio"},
	"studio/lead":       {"core", "store", "studio/contract", "studio/led", "studio"},
	"studio/record":     {"core", "store", "studio/contract", "studio"},
	"studio/home":       {"core", "language", "store", "studio/contract", "studio"},
	"studio/rehearse":   {"core", "store", "studio/contract", "studio/led", "studio/rehearsed", "studio"},
	"studio/programmes": {"core", "language", "store", "studio/contract", "studio"},
	"studio/voices":     {"core", "store", "studio/contract", "studio/led", "studio"},
	"studio/library":    {"core", "language", "store", "studio/contract", "studio"},
	"studio/transfer":   {"core", "language", "store", "studio/contract", "studio"},
	"studio/access":     {"core/fact", "store", "studio"},
	"studio/audience":   {"core", "store", "studio/contract", "studio"},
	"studio/today":      {"core/fact", "store", "studio/contract", "studio"},
	"studio/desk": {
		"store",
		"studio",
		"studio/prepare",
		"studio/lead",
		"studio/record",
		"studio/library",
		"studio/transfer",
		"studio/access",
		"studio/audience",
		"studio/today",
		"studio/home",
		"studio/voices",
		"studio/programmes",
		"studio/rehearse",
	},
	"studio/desk/desktest": {
		"core",
		"language",
		"store",
		"studio/contract",
		"studio/desk",
		"studio/demo",
		"studio/transfer",
	},
	"studio/demo": {"core", "store", "studio", "studio/contract", "studio/desk"},
	"web": {
		"language",
		"core/fact",
		"core/sheet",
		"studio",
		"studio/contract",
		"studio/access",
		"studio/demo",
		"studio/desk",
		"web/certificates",
	},
	"web/certificates": {},
	"web/licences":     {},
	"cmd/core":         {"studio/apart"},
	"cmd/tryout":       {"studio/tryout"},
	"cmd": {
		"core",
		"language",
		"store",
		"studio",
		"studio/contract",
		"studio/desk",
		"studio/demo",
		"studio/home",
		"studio/led",
		"web",
		"web/certificates",
	},
	"deploy/release": {},
	"e2e": {
		"core",
		"studio/apart",
		"studio/contract",
		"e2e",
		"e2e/events",
		"e2e/stage",
		"language",
		"web",
		"web/certificates",
	},
}

// source returns every file of Go below the folder but tests, parsed.
func source(t *testing.T, folder string) map[string]*ast.File {
	t.Helper()
	files, set := map[string]*ast.File{}, token.NewFileSet()
	err := filepath.WalkDir(folder, func(name string, d fs.DirEntry, err error) error {
		switch {
		case err != nil:
			return err
		case d.IsDir() && slices.Contains([]string{".git", "ui", "docs"}, name):
			return filepath.SkipDir
		case strings.HasSuffix(name, ".go") && !strings.HasSuffix(name, "_test.go"):
			files[filepath.ToSlash(name)], err = parser.ParseFile(set, name, nil, 0)
		}
		return err
	})
	require.NoError(t, err)
	require.NotEmpty(t, files)
	return files
}

func imports(t *testing.T, file *ast.File) []string {
	t.Helper()
	names := make([]string, len(file.Imports))
	for i, spec := range file.Imports {
		var err error
		names[i], err = strconv.Unquote(spec.Path.Value)
		require.NoError(t, err)
	}
	return names
}

// within reports whether the folder is one of the rooms, or inside one.
func within(folder string, rooms []string) bool {
	return slices.ContainsFunc(
		rooms,
		func(room string) bool { return folder == room || strings.HasPrefix(folder, room+"/") },
	)
}

func TestImportsRunOneWay(t *testing.T) {
	for name, file := range source(t, ".") {
		room := ""
		for known := range rooms {
			if within(path.Dir(name), []string{known}) && len(known) > len(room) {
				room = known
			}
		}
		if !assert.NotEmpty(t, room, "%s is in no room of the house", name) {
			continue
		}
		for _, imported := range imports(t, file) {
			if inside, ours := strings.CutPrefix(imported, module); ours {
				assert.True(t, slices.ContainsFunc(rooms[room], func(may string) bool {
					return inside == may || may == "core" && within(inside, []string{"core"})
				}), "%s imports %s", name, inside)
			}
		}
	}
}

// The core is the rules of the job: no network, no files, no database, and no clock.
func TestTheCoreKnowsNoInterfaceNoStorageAndNoClock(t *testing.T) {
	foreign := []string{"net", "os", "database", "log", "gorm.io", "modernc.org", "github.com"}
	clocks := []string{"Now", "Since", "Until", "Sleep", "After", "AfterFunc", "Tick", "NewTimer", "NewTicker"}
	for name, file := range source(t, "core") {
		for _, imported := range imports(t, file) {
			catalogue := within(imported, []string{"github.com/goccy/go-yaml"}) // reads the practices
			assert.False(t, within(imported, foreign) && !catalogue, "%s imports %s", name, imported)
		}
		ast.Inspect(file, func(n ast.Node) bool {
			if call, ok := n.(*ast.SelectorExpr); ok {
				if from, ok := call.X.(*ast.Ident); ok && from.Name == "time" {
					assert.NotContains(t, clocks, call.Sel.Name, name)
				}
			}
			return true
		})
	}
}

// sentence is two words or more: what a person reads. Sentences are made of facts at the edge, from the catalogue of
// messages.
var sentence = regexp.MustCompile(`[A-Za-z]{2,}[,;:.]? +[A-Za-z(%]`)

// withSentences is where English stands all the same, and why.
var withSentences = map[string]string{
	"core/words":               "what is said in class, per language",
	"core/plan/line/forms.go":  "the grammar of typed lines",
	"core/plan/field.go":       "how typed lines say a field",
	"core/plan/say.go":         "how typed lines say a field",
	"core/plan/line/names.go":  "what things are called in typed lines",
	"core/plan/stretch.go":     "what talks and rests are called",
	"core/plan/line/text.go":   "typed lines as they are written",
	"core/programme/templates": "names and steps of a teacher's own programmes",
	"studio/demo":              "invented groups, plans and notes",
	"studio/contract/gen":      "a tool",
	"studio/desk/desktest":     "for tests",
}

// notSentences are words that a person does not read as a sentence: names that a plan or a device begins with, and
// parts of formats of others.
var notSentences = []string{
	"Seat and spine", "Natural breath", "another device", "%v, my way", "Vast Lantern", "validation failed", "not found",
	"zones up", "zones down",
	"tens of strokes", "room code", "%s.yaml: %v", "practices %d", "argument %s: %s",
	"fact %s: a name or a value is missing in %v",
	"text/html; charset=utf-8", "text/calendar; charset=utf-8", "text/csv; charset=utf-8", "text/vtt; charset=utf-8",
}

// literals calls see with every string literal of the file but struct tags, imports and what is logged for whoever
// looks after the application.
func literals(t *testing.T, file *ast.File, see func(text string, in *ast.CallExpr)) {
	t.Helper()
	var call *ast.CallExpr
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.ImportSpec:
			return false
		case *ast.Field:
			return n.Tag == nil
		case *ast.CallExpr:
			if of, ok := n.Fun.(*ast.SelectorExpr); ok {
				if from, ok := of.X.(*ast.Ident); ok && (from.Name == "slog" || from.Name == "regexp") {
					return false
				}
			}
			call = n
		case *ast.BasicLit:
			if n.Kind == token.STRING {
				text, err := strconv.Unquote(n.Value)
				require.NoError(t, err)
				see(text, call)
			}
		}
		return true
	})
}

func TestNoSentencesInTheCoreAndTheStudio(t *testing.T) {
	for _, folder := range []string{"core", "studio"} {
		for name, file := range source(t, folder) {
			if slices.ContainsFunc(
				slices.Collect(maps.Keys(withSentences)),
				func(place string) bool { return strings.HasPrefix(name, place) },
			) {
				continue
			}
			literals(t, file, func(text string, _ *ast.CallExpr) {
				if !slices.Contains(notSentences, text) {
					assert.False(
						t,
						sentence.MatchString(text),
						"%s: %q is a sentence: make it a message of language/en",
						name,
						text,
					)
				}
			})
		}
	}
}

// messageID is the form of an id of a message.
var messageID = regexp.MustCompile(`^[a-z][a-z0-9_-]*(\.[a-z0-9_-]+)+$`)

// Each id in the program has a text, and each text has an id in the program or on a screen. An id that is made of a
// family and a value ("verb." and the verb) stands for all of its family.
func TestMessagesAndTheirIDs(t *testing.T) {
	known := language.English().IDs()
	families := map[string]bool{}
	for _, id := range known {
		family, _, _ := strings.Cut(id, ".")
		families[family] = true
	}
	used := map[string]bool{}
	for _, folder := range []string{"core", "studio", "store", "web", "cmd"} {
		for name, file := range source(t, folder) {
			literals(t, file, func(text string, _ *ast.CallExpr) {
				family, rest, dotted := strings.Cut(text, ".")
				switch {
				case slices.Contains(known, text):
					used[text] = true
				case dotted && families[family] && (rest == "" || strings.HasSuffix(text, ".") || strings.HasSuffix(text, "-")):
					for _, id := range known {
						if strings.HasPrefix(id, text) {
							used[id] = true
						}
					}
				case messageID.MatchString(text) && families[family] && !slices.Contains(fileNames, path.Ext(text)):
					assert.Fail(t, "an id without a text", "%s: %s", name, text)
				}
			})
		}
	}
	screens := ""
	require.NoError(t, filepath.WalkDir("ui/src", func(name string, d fs.DirEntry, err error) error {
		if err == nil && !d.IsDir() && (strings.HasSuffix(name, ".ts") || strings.HasSuffix(name, ".tsx")) {
			var text []byte
			text, err = os.ReadFile(name)
			screens += string(text)
		}
		return err
	}))
	for _, id := range known {
		family, _, _ := strings.Cut(id, ".")
		onScreen := strings.Contains(screens, `"`+id+`"`) || strings.Contains(screens, `wordOf("`+family+`"`) ||
			strings.Contains(screens, "`"+family+".${")
		assert.True(t, used[id] || onScreen, "%s: a text that nothing tells", id)
	}
}

// fileNames are endings that look like the last part of an id.
var fileNames = []string{".json", ".csv", ".html", ".sql", ".db", ".yaml", ".txt", ".lock", ".reserve", ".ics"}

// A message fills in just the arguments that its fact has.
func TestFactsHaveTheArgumentsOfTheirMessages(t *testing.T) {
	makers := map[string]int{
		"fact.New":    0,
		"Fail":        1,
		"studio.Fail": 1,
		"fact.Wrap":   1,
		"refuse":      0,
		"only":        0,
		"say":         0,
		"o.fail":      1,
		"s.fail":      1,
		"w.fail":      1,
		"tell":        0,
		"invalid":     0,
	}
	checked := 0
	for _, folder := range []string{"core", "studio", "store", "web"} {
		for name, file := range source(t, folder) {
			ast.Inspect(file, func(n ast.Node) bool {
				call, ok := n.(*ast.CallExpr)
				if !ok || call.Ellipsis.IsValid() {
					return true
				}
				at, maker := makers[calledName(call)]
				if !maker || len(call.Args) <= at || (len(call.Args)-at)%2 != 1 {
					return true
				}
				id := literal(call.Args[at])
				if !slices.Contains(language.English().IDs(), id) {
					return true
				}
				var given []string
				for i := at + 1; i < len(call.Args); i += 2 {
					given = append(given, literal(call.Args[i]))
				}
				slices.Sort(given)
				checked++
				wants := language.English().Args(id)
				for _, arg := range wants {
					assert.Contains(t, given, arg, "%s: the message %s wants it", name, id)
				}
				return true
			})
		}
	}
	assert.Greater(t, checked, 300, "the facts of the program are looked at")
}

func calledName(call *ast.CallExpr) string {
	switch fun := call.Fun.(type) {
	case *ast.Ident:
		return fun.Name
	case *ast.SelectorExpr:
		if from, ok := fun.X.(*ast.Ident); ok {
			return from.Name + "." + fun.Sel.Name
		}
	}
	return ""
}

func literal(e ast.Expr) string {
	lit, ok := e.(*ast.BasicLit)
	if !ok || lit.Kind != token.STRING {
		return ""
	}
	text, err := strconv.Unquote(lit.Value)
	if err != nil {
		return ""
	}
	return text
}

// Fields of a plan are read and set by their names in core/plan and in its grammar only: everybody else asks for what
// they
// mean, or for a change that has a name (docs/decisions/13).
func TestFieldsAreReachedByNameInThePlanOnly(t *testing.T) {
	byName := regexp.MustCompile(`\.Values\(\)\[`)
	for _, folder := range []string{"core", "studio", "web", "cmd"} {
		require.NoError(t, filepath.WalkDir(folder, func(name string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(name, ".go") || strings.HasPrefix(name, "core/plan/") {
				return err
			}
			text, err := os.ReadFile(name)
			assert.False(t, byName.Match(text), name)
			return err
		}))
	}
}

// whereBreathsDiffer are the files that tell the phases of a breath apart, each by a rule of its own. Everything else
// asks core/breath what is so of a phase, or goes by its lists. A new phase is to be looked at here.
var whereBreathsDiffer = []string{
	"core/cue/hand.go",       // the hand goes by in and out
	"core/cue/runs.go",       // what is said of which phase
	"core/pace/lane.go",      // the breath of the gentler lane
	"core/pace/say.go",       // the words
	"core/practice/read.go",  // which ways the air can go
	"core/rehearsal/body.go", // what breathing does to a person
	"core/taught/taught.go",  // strokes, and holds that are full or empty
	"ui/src/lead/people/posture.ts",
}

func TestFewFilesTellThePhasesApart(t *testing.T) {
	found := map[string]map[string]bool{}
	see := func(file, phase string) {
		if found[file] == nil {
			found[file] = map[string]bool{}
		}
		found[file][phase] = true
	}
	figure := map[string]bool{"Inhale": true, "Hold": true, "Exhale": true, "Empty": true, "Stroke": true}
	for name, file := range source(t, ".") {
		phase := func(e ast.Expr) {
			s, ok := e.(*ast.SelectorExpr)
			if !ok || !figure[s.Sel.Name] {
				return
			}
			if of, ok := s.X.(*ast.Ident); ok && of.Name == "breath" {
				see(name, s.Sel.Name)
			}
		}
		ast.Inspect(file, func(n ast.Node) bool {
			switch n := n.(type) {
			case *ast.BinaryExpr:
				if n.Op == token.EQL || n.Op == token.NEQ {
					phase(n.X)
					phase(n.Y)
				}
			case *ast.CaseClause:
				for _, e := range n.List {
					phase(e)
				}
			}
			return true
		})
	}
	screens := regexp.MustCompile(`(?:===|!==|case) "(inhale|hold|exhale|empty|stroke)"`)
	require.NoError(t, filepath.WalkDir("ui/src", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || strings.Contains(name, ".test.") {
			return err
		}
		text, err := os.ReadFile(name)
		for _, m := range screens.FindAllSubmatch(text, -1) {
			see(filepath.ToSlash(name), string(m[1]))
		}
		return err
	}))
	maps.DeleteFunc(found, func(_ string, phases map[string]bool) bool { return len(phases) < 2 })
	assert.Equal(t, whereBreathsDiffer, slices.Sorted(maps.Keys(found)))
}

// A kind of practice is named by itself where one is made from a file; everything else asks what a kind has
// (core/practice/kind.go), so that a new kind is a row of that table.
func TestFewFilesTellTheKindsApart(t *testing.T) {
	kinds := map[string]bool{"Counted": true, "Strokes": true, "Fixed": true, "Open": true}
	found := map[string]map[string]bool{}
	for name, file := range source(t, ".") {
		ast.Inspect(file, func(n ast.Node) bool {
			s, ok := n.(*ast.SelectorExpr)
			if !ok || !kinds[s.Sel.Name] {
				return true
			}
			if of, ok := s.X.(*ast.Ident); ok && of.Name == "practice" {
				if found[name] == nil {
					found[name] = map[string]bool{}
				}
				found[name][s.Sel.Name] = true
			}
			return true
		})
	}
	maps.DeleteFunc(found, func(_ string, kinds map[string]bool) bool { return len(kinds) < 2 })
	assert.Equal(t, []string{"core/plan/read.go"}, slices.Sorted(maps.Keys(found)))
}

// Lines of Go are no longer than 120 characters, except for text that goes over several lines and what an example
// prints.
func TestLinesAreShort(t *testing.T) {
	err := filepath.WalkDir(".", func(name string, d fs.DirEntry, err error) error {
		switch {
		case err != nil:
			return err
		case d.IsDir() && slices.Contains([]string{".git", "ui"}, name):
			return filepath.SkipDir
		case !strings.HasSuffix(name, ".go"):
			return nil
		}
		text, err := os.ReadFile(name)
		require.NoError(t, err)
		set := token.NewFileSet()
		file := set.AddFile(name, -1, len(text))
		var tokens scanner.Scanner
		tokens.Init(file, text, nil, 0)
		inText := map[int]bool{}
		for at, kind, lit := tokens.Scan(); kind != token.EOF; at, kind, lit = tokens.Scan() {
			if kind == token.STRING && strings.Contains(lit, "\n") {
				first := file.Line(at)
				for n := range strings.Count(lit, "\n") + 1 {
					inText[first+n] = true
				}
			}
		}
		printed := false
		for i, line := range strings.Split(string(text), "\n") {
			printed = strings.Contains(line, "// Output:") || printed && strings.HasPrefix(strings.TrimSpace(line), "//")
			if utf8.RuneCountInString(line) > 120 && !inText[i+1] && !printed {
				t.Errorf("%s:%d is longer than 120 characters", name, i+1)
			}
		}
		return nil
	})
	require.NoError(t, err)
}
