package vastlantern

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const module = "vastlantern/"

// rooms is the order of the house: each room, and the rooms of ours that its code may import. The most exact name counts.
// The rooms of the studio do not know each other: each says what it needs of another one, and desk puts them together.
var rooms = map[string][]string{
	"core/breath":          {},
	"core/practice":        {"core/breath"},
	"core/words":           {"core/breath"},
	"core/plan":            {"core/breath", "core/practice", "core/words"},
	"core/plan/fit":        {"core/breath", "core/plan"},
	"core/school":          {"core/breath", "core/practice", "core/plan"},
	"core/pace":            {"core/breath", "core/practice", "core/plan", "core/words"},
	"core/cue":             {"core/breath", "core/practice", "core/plan", "core/pace", "core/words"},
	"core/care":            {"core/breath", "core/practice", "core/plan"},
	"core/room":            {"core/breath", "core/practice", "core/plan", "core/pace"},
	"core/taught":          {"core/breath", "core/practice", "core/plan", "core/pace"},
	"core/voice":           {"core/breath", "core/words"},
	"core/programme":       {"core/breath", "core/practice", "core/plan"},
	"core/rehearsal":       {"core/breath", "core/plan", "core/pace"},
	"core/sheet":           {"core/breath", "core/practice", "core/plan", "core/pace", "core/cue"},
	"store":                {"core"},
	"studio/contract":      {"core"},
	"studio/contract/gen":  {"core", "studio/contract"},
	"studio":               {"core", "store", "studio/contract"},
	"studio/prepare":       {"core", "store", "studio/contract", "studio"},
	"studio/lead":          {"core", "store", "studio/contract", "studio"},
	"studio/record":        {"core", "store", "studio/contract", "studio"},
	"studio/home":          {"core", "store", "studio/contract", "studio"},
	"studio/rehearse":      {"core", "store", "studio/contract", "studio"},
	"studio/programmes":    {"core", "store", "studio/contract", "studio"},
	"studio/voices":        {"core", "store", "studio/contract", "studio"},
	"studio/library":       {"core", "store", "studio/contract", "studio"},
	"studio/transfer":      {"core", "store", "studio/contract", "studio"},
	"studio/access":        {"store", "studio"},
	"studio/audience":      {"core", "store", "studio/contract", "studio"},
	"studio/today":         {"store", "studio/contract", "studio"},
	"studio/desk":          {"store", "studio", "studio/prepare", "studio/lead", "studio/record", "studio/library", "studio/transfer", "studio/access", "studio/audience", "studio/today", "studio/home", "studio/voices", "studio/programmes", "studio/rehearse"},
	"studio/desk/desktest": {"core", "store", "studio/contract", "studio/desk", "studio/demo", "studio/transfer"},
	"studio/demo":          {"core", "store", "studio", "studio/contract", "studio/desk"},
	"web":                  {"core/sheet", "studio", "studio/contract", "studio/access", "studio/demo", "studio/desk", "web/certificates"},
	"web/certificates":     {},
	"web/licences":         {},
	"cmd":                  {"core", "store", "studio", "studio/contract", "studio/desk", "studio/demo", "studio/home", "studio/lead", "web", "web/certificates"},
	"deploy/release":       {},
	"e2e":                  {"core", "studio/contract", "e2e", "e2e/events", "e2e/stage", "web", "web/certificates"},
}

// source is every file of Go below the folder but tests, parsed.
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

// within tells whether the folder is one of the rooms, or inside one.
func within(folder string, rooms []string) bool {
	return slices.ContainsFunc(rooms, func(room string) bool { return folder == room || strings.HasPrefix(folder, room+"/") })
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
