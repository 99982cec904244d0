package transfer

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"runtime"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// reading is a file of everything while it is read: thing by thing, on every processor, since one of ten years has half
// a million adjustments.
type reading struct {
	schemas *jsonschema.Compiler
	things  chan func() // to be read
	tell    *progress

	finish []func() // once all are read

	mutex sync.Mutex
	wrong []wrongThing
}

// file is what was read of one.
type file struct {
	contract.Export // without its classes
	classes         []fileClass
}

// fileClass is a class of the file: checked, and kept as it is there, since ten years of them would take half a
// gigabyte.
type fileClass struct {
	contract.ExportClass // without adjustments and document
	text                 json.RawMessage
	title                string
	ended                time.Time
	err                  error // what is wrong in it
}

// UnmarshalJSON reads and checks a class.
func (c *fileClass) UnmarshalJSON(text []byte) error {
	if err := json.Unmarshal(text, &c.ExportClass); err != nil {
		return err
	}
	c.text = bytes.Clone(text)
	c.title, c.ended, c.err = checkClass(c.ExportClass)
	c.Adjustments, c.Document = nil, nil
	return nil
}

// whole returns the class with all that is in it.
func (c *fileClass) whole() (whole contract.ExportClass, document []byte, rows []store.Adjustment, err error) {
	if err := json.Unmarshal(c.text, &whole); err != nil {
		return whole, nil, nil, err
	}
	rows = make([]store.Adjustment, len(whole.Adjustments))
	for n, a := range whole.Adjustments {
		rows[n] = store.Adjustment{Number: n + 1, Key: a.Key, Body: compact(a.Line), Origin: a.Origin}
	}
	document, _, err = rewritten(whole.Document)
	return whole, document, rows, err
}

// wrongThing is a thing of a list whose form is wrong.
type wrongThing struct {
	list  string
	index int
	err   error
}

// readExport reads and checks the form of the file.
func readExport(r io.Reader, tell *progress) (in *file, err error) {
	compiler, err := exportSchemas()
	if err != nil {
		return nil, err
	}
	in = &file{}
	read := &reading{schemas: compiler, things: make(chan func()), tell: tell}
	var working sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		working.Go(func() {
			for thing := range read.things {
				thing()
			}
		})
	}
	text := json.NewDecoder(r)
	text.UseNumber()
	rest, err := read.lists(text, in)
	close(read.things)
	working.Wait()
	if err != nil {
		return nil, err
	}
	for _, finish := range read.finish {
		finish()
	}
	return in, read.rest(rest, &in.Export)
}

// rest reads what is in no list, and reports what is wrong anywhere.
func (read *reading) rest(rest map[string]any, in *contract.Export) error {
	form, err := read.schemas.Compile(exportURN)
	if err != nil {
		return err
	}
	var wrong []error
	if err := form.Validate(rest); err != nil {
		wrong = places("", err)
	}
	slices.SortFunc(
		read.wrong,
		func(a, b wrongThing) int { return cmp.Or(cmp.Compare(a.list, b.list), cmp.Compare(a.index, b.index)) },
	)
	for _, one := range read.wrong {
		wrong = append(wrong, places(fmt.Sprintf("/%s/%d", one.list, one.index), one.err)...)
	}
	if len(wrong) > 0 {
		return fact.Wrap(firstOf(wrong), "import.not-export", "why", firstOf(wrong))
	}
	for name, value := range rest {
		if _, isList := value.([]any); isList {
			delete(rest, name)
		}
	}
	text, err := json.Marshal(rest)
	if err != nil {
		return err
	}
	return json.Unmarshal(text, in)
}

func (read *reading) isWrong(one wrongThing) {
	read.mutex.Lock()
	defer read.mutex.Unlock()
	read.wrong = append(read.wrong, one)
}

// places returns where something is wrong that is at the place.
func places(at string, err error) (wrong []error) {
	for line := range strings.Lines(err.Error()) {
		if line = strings.TrimSpace(line); strings.HasPrefix(line, "- at") && !strings.HasSuffix(line, "validation failed") {
			wrong = append(wrong, errors.New(strings.Replace(line, "- at '", "- at '"+at, 1)))
		}
	}
	if wrong == nil {
		wrong = []error{fact.Wrap(err, "import.at", "at", at, "why", err)}
	}
	return wrong
}

const exportURN = "urn:vast-lantern:export"

func exportSchemas() (*jsonschema.Compiler, error) {
	text, err := contract.Schemas.ReadFile("schema/export.schema.json")
	if err != nil {
		return nil, err
	}
	document, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
	if err != nil {
		return nil, err
	}
	compiler := jsonschema.NewCompiler()
	compiler.AssertFormat()
	compiler.RegisterFormat(&jsonschema.Format{Name: "date-time", Validate: isTime})
	return compiler, compiler.AddResource(exportURN, document)
}

// isTime reports why a value is not a time that can be stored and read again (RFC 3339, 1970 to 2200). The zero time is
// one that is not known.
func isTime(value any) error {
	text, isText := value.(string)
	if !isText {
		return nil // that it is none is told by its type
	}
	at, err := time.Parse(time.RFC3339, text)
	if err == nil && !at.IsZero() && !plan.InCalendar(at) {
		err = errors.New(
			language.English().Text(fact.New("allowed.only", "what", fact.New("allowed.calendar"))),
		) // the library puts it into a text of its own
	}
	return err
}

var errNoJSON = fact.New("import.not-json")

// lists reads the file, its lists thing by thing, and returns what else is in it; the lists are empty there.
func (read *reading) lists(file *json.Decoder, in *file) (rest map[string]any, err error) {
	rest = map[string]any{}
	begin, err := file.Token()
	if err != nil {
		return nil, notJSON(err)
	}
	if begin != json.Delim('{') {
		return nil, errNoJSON
	}
	for file.More() {
		name, err := file.Token()
		if err != nil {
			return nil, notJSON(err)
		}
		key, _ := name.(string)
		if _, twice := rest[key]; twice {
			return nil, fact.Wrap(errNoJSON, "import.key-twice", "error", errNoJSON, "key", key)
		}
		switch key {
		case "practices":
			err = list(read, file, key, &in.Practices, "ExportPractice", rest)
		case "groups":
			err = list(read, file, key, &in.Groups, "ExportGroup", rest)
		case "plans":
			err = list(read, file, key, &in.Plans, "ExportPlan", rest)
		case "classes":
			err = list(read, file, key, &in.classes, "ExportClass", rest)
		case "homes":
			err = list(read, file, key, &in.Homes, "ExportHome", rest)
		case "voices":
			err = list(read, file, key, &in.Voices, "ExportVoice", rest)
		case "programmes":
			err = list(read, file, key, &in.Programmes, "ExportProgramme", rest)
		case "rehearsals":
			err = list(read, file, key, &in.Rehearsals, "ExportRehearsal", rest)
		case "damaged":
			err = list(read, file, key, &in.Damaged, "ExportDamaged", rest)
		default:
			var value any
			err = notJSON(file.Decode(&value))
			rest[key] = value
		}
		if err != nil {
			return nil, err
		}
	}
	if _, err := file.Token(); err != nil {
		return nil, notJSON(err)
	}
	if _, err := file.Token(); !errors.Is(err, io.EOF) {
		return nil, fact.Wrap(errNoJSON, "import.more-after", "error", errNoJSON)
	}
	return rest, nil
}

func notJSON(err error) error {
	if err == nil {
		return nil
	}
	return fmt.Errorf("%w: %w", errNoJSON, err)
}

// list reads one list into its place.
func list[T any](read *reading, file *json.Decoder, name string, into *[]T, schema string, rest map[string]any) error {
	rest[name] = []any{}
	form, err := read.schemas.Compile(exportURN + "#/$defs/" + schema)
	if err != nil {
		return err
	}
	begin, err := file.Token()
	if err != nil {
		return notJSON(err)
	}
	if begin != json.Delim('[') {
		rest[name] = nil // which the schema does not take
		if _, nested := begin.(json.Delim); nested {
			return fact.New("import.not-list", "name", name)
		}
		return nil
	}
	var things []*T
	for n := 0; file.More(); n++ {
		var text json.RawMessage
		if err := file.Decode(&text); err != nil {
			return notJSON(err)
		}
		thing := new(T)
		things = append(things, thing)
		read.things <- func() {
			if err := readThing(form, text, thing); err != nil {
				read.isWrong(wrongThing{name, n, err})
			}
		}
		read.tell.note(contract.ImportProgress{Stage: contract.ImportReading, Done: file.InputOffset()})
	}
	read.finish = append(read.finish, func() { // when all of them are read
		*into = make([]T, len(things))
		for n, thing := range things {
			(*into)[n] = *thing
		}
	})
	_, err = file.Token()
	return notJSON(err)
}

// readThing reads one thing of a list. What goes wrong is reported for that thing: it runs beside a class that may be
// led.
func readThing(form *jsonschema.Schema, text []byte, into any) (err error) {
	defer func() {
		if wrong := recover(); wrong != nil {
			err = fact.New("entry.unreadable", "why", wrong)
		}
	}()
	value, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
	if err != nil {
		return err
	}
	if err := form.Validate(value); err != nil {
		return err
	}
	return json.Unmarshal(text, into)
}

// progress is how far the file that is imported at the moment is.
type progress struct {
	of  atomic.Int64 // bytes that there are to read, 0 if that is not known
	now atomic.Pointer[contract.ImportProgress]
}

func (p *progress) note(now contract.ImportProgress) {
	if now.Stage == contract.ImportReading {
		now.Of = p.of.Load()
	}
	p.now.Store(&now)
}

// Progress returns how far a file is imported at the moment.
func (tr *Transfer) Progress() contract.ImportProgress {
	if now := tr.progress.now.Load(); now != nil {
		return *now
	}
	return contract.ImportProgress{}
}
