package main

import (
	"encoding/base64"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strings"

	"vastlantern/studio/contract"
)

// shapes makes bodies of requests by the JSON Schemas of the contract: nearly right, and wrong in a place or two.
type shapes struct{ defs map[string]any }

// readShapes reads the schemas of what screens send, and that of a file of everything, which one route takes.
func readShapes() (*shapes, error) {
	screens, err := os.ReadFile(filepath.Join(root(), "ui", "contract.schema.json"))
	if err != nil {
		return nil, err
	}
	everything, err := contract.Schemas.ReadFile("schema/export.schema.json")
	if err != nil {
		return nil, err
	}
	s := &shapes{map[string]any{}}
	for _, text := range [][]byte{everything, screens} {
		var schema map[string]any
		if err := json.Unmarshal(text, &schema); err != nil {
			return nil, err
		}
		defs, _ := schema["$defs"].(map[string]any)
		maps.Copy(s.defs, defs)
		if _, named := schema["properties"]; named && s.defs["Export"] == nil {
			s.defs["Export"] = schema
		}
	}
	return s, nil
}

// root returns the folder of the project, from here or from a test.
func root() string {
	for folder := "."; ; folder = filepath.Join(folder, "..") {
		if _, err := os.Stat(filepath.Join(folder, "go.mod")); err == nil || len(folder) > 40 {
			return folder
		}
	}
}

// of returns a body for what a route reads.
func (s *shapes) of(body reflect.Type, random *rand.Rand) string {
	if body == nil {
		return pick(random, "", "{}", "null", "[1]")
	}
	if body.Kind() == reflect.Slice {
		list := make([]string, many(random, 0))
		for i := range list {
			list[i] = s.of(body.Elem(), random)
		}
		return "[" + strings.Join(list, ",") + "]"
	}
	return s.value(body.Name(), map[string]any{"$ref": "#/$defs/" + body.Name()}, random, 0)
}

// many returns how many items a list has: mostly few, now and then very many where it is not within another.
func many(random *rand.Rand, depth int) int {
	if depth <= 1 && random.IntN(40) == 0 {
		return 500 + random.IntN(2000)
	}
	return random.IntN(4)
}

// value returns a value of a field of that name, as JSON.
func (s *shapes) value(field string, schema any, random *rand.Rand, depth int) string {
	if random.IntN(25) == 0 {
		return pick(random, values...)
	}
	form, _ := schema.(map[string]any)
	if ref, is := form["$ref"].(string); is {
		form, _ = s.defs[strings.TrimPrefix(ref, "#/$defs/")].(map[string]any)
	}
	if choices, is := form["enum"].([]any); is {
		text, _ := json.Marshal(choices[random.IntN(len(choices))])
		return string(text)
	}
	if depth > 6 {
		return "null"
	}
	kind, _ := form["type"].(string)
	switch kind {
	case "object":
		return s.object(form, random, depth)
	case "array":
		items := make([]string, many(random, depth))
		for i := range items {
			items[i] = s.value(field, form["items"], random, depth+1)
		}
		return "[" + strings.Join(items, ",") + "]"
	case "integer", "number":
		return pick(random, numbers...)
	case "boolean":
		return pick(random, "true", "false")
	case "string":
		return text(field, random)
	}
	return document(random) // anything: a plan, or a part of one
}

func (s *shapes) object(form map[string]any, random *rand.Rand, depth int) string {
	properties, _ := form["properties"].(map[string]any)
	var fields []string
	for _, name := range slices.Sorted(maps.Keys(properties)) {
		if random.IntN(12) > 0 {
			fields = append(fields, fmt.Sprintf("%q:%s", name, s.value(name, properties[name], random, depth+1)))
		}
	}
	if more, is := form["additionalProperties"].(map[string]any); is {
		for range many(random, depth) {
			fields = append(fields, fmt.Sprintf("%s:%s", text("", random), s.value("", more, random, depth+1)))
		}
	}
	return "{" + strings.Join(fields, ",") + "}"
}

func pick(random *rand.Rand, of ...string) string { return of[random.IntN(len(of))] }

// numbers is of every size; those of three digits and more are moments and lengths, too.
var numbers = []string{
	"0", "1", "2", "3", "-1", "7", "60", "0.5", "1.5", "-0.0", "999", "1000", "60000", "900000", "43200000",
	"1764547200000", "253402300800000", "7289654400001",
	"9007199254740993", "9223372036854775807", "9223372036854775808", "1e300", "1e400", "1e-400",
}

// moments is times of day and dates, of this calendar and beyond it.
var moments = []string{
	"2026-12-01T18:30:00+01:00", "9999-12-31T23:59:59-12:00", "1969-12-31T23:59:59Z", "2201-01-01T00:00:00Z",
	"-0001-01-01T00:00:00Z", "2026-02-31", "18:30", "25:00", "2026-12-01T18:30:00.000000000000001Z",
}

// text returns a text for a field of that name, as JSON.
func text(field string, random *rand.Rand) string {
	switch {
	case field == "sound":
		return quoted(base64.StdEncoding.EncodeToString(sound(random)))
	case (field == "text" || field == "file") && random.IntN(2) == 0:
		return quoted(practiceFile(random))
	case field == "text" && random.IntN(2) == 0:
		return quoted(pick(random, lines...))
	}
	switch random.IntN(30) {
	case 0:
		return `"` + strings.Repeat("y", 1<<(4+random.IntN(16))) + `"`
	case 1:
		return pick(
			random,
			`"\u0000"`,
			`"\ud800"`,
			"\"\xff\xfe\"",
			`"\uFEFFx"`,
			`"ｆｕｌｌ"`,
			"\"\xc0\xaf\"",
			"\"\u200b\"",
			`"é"`,
		)
	case 2, 3, 4:
		return quoted(pick(random, moments...))
	case 5, 6, 7:
		return quoted(pick(random, numbers...))
	}
	return quoted(pick(random, words...))
}

func quoted(text string) string {
	json, _ := json.Marshal(text) // it never fails on a text
	return string(json)
}

// lines is what is typed.
var lines = []string{
	"nadi 4:4:8 x6", "# Monday\ntempo 60\nalternate nostril 4:4:8 x160 no lead-in\n", "rest 2 min",
	strings.Repeat("talk\n", 300), strings.Repeat("4:4 ", 300), "4:4:8 x999999999", strings.Repeat("(", 2000),
	"counted breath 4:4 x9 " + strings.Repeat("; ", 500),
}

// practiceFile returns the file of a practice in YAML, whole or made to be hard to read.
func practiceFile(random *rand.Rand) string {
	const good = "id: own-x\nname: X\nkind: counted\nairway: nose\ncounts: 4:6\nrounds: 6\nabout: x\nfigure:\n- {phase: " +
		"inhale, through: both, counts: a}\n- {phase: exhale, through: both, counts: c}\n"
	switch random.IntN(8) {
	case 0:
		return strings.Repeat("[", 1<<random.IntN(17))
	case 1:
		return strings.Repeat("- ", 1<<random.IntN(14)) + "x"
	case 2: // aliases of aliases
		bomb := "a0: &a0 [x, x, x, x, x, x, x, x, x]\n"
		for i := range 9 {
			bomb += fmt.Sprintf(
				"a%d: &a%d [%s]\n",
				i+1,
				i+1,
				strings.TrimSuffix(strings.Repeat(fmt.Sprintf("*a%d, ", i), 9), ", "),
			)
		}
		return bomb
	case 3:
		return "id: &x *x\n" + good
	case 4:
		return strings.Replace(good, "6", pick(random, numbers...), 1)
	}
	cut := random.IntN(len(good))
	return good[:cut] + pick(random, values...) + good[min(len(good), cut+random.IntN(20)):]
}

// sound returns a WAV file whose chunks lie about their sizes.
func sound(random *rand.Rand) []byte {
	size := func(true uint32) uint32 {
		if random.IntN(3) > 0 {
			return true
		}
		return []uint32{0, 1, true - 1, true + 1, 1 << 20, 1 << 31, 1<<32 - 1}[random.IntN(7)]
	}
	samples := make([]byte, 2*(1+random.IntN(5000)))
	for i := range samples {
		samples[i] = byte(random.IntN(256))
	}
	chunk := func(id string, content []byte) []byte {
		return append(binary.LittleEndian.AppendUint32([]byte(id), size(uint32(len(content)))), content...)
	}
	rate := []uint32{0, 1, 8000, 44100, 48000, 1<<32 - 1}[random.IntN(6)]
	format := binary.LittleEndian.AppendUint16(nil, []uint16{1, 1, 1, 3, 0xFFFE}[random.IntN(5)])
	format = binary.LittleEndian.AppendUint16(format, []uint16{1, 1, 2, 0, 65535}[random.IntN(5)])
	format = binary.LittleEndian.AppendUint32(format, rate)
	format = binary.LittleEndian.AppendUint32(format, 2*rate)
	format = binary.LittleEndian.AppendUint16(format, 2)
	format = binary.LittleEndian.AppendUint16(format, []uint16{16, 16, 8, 0, 65535}[random.IntN(5)])
	body := append([]byte("WAVE"), chunk("fmt ", format)...)
	for range random.IntN(3) {
		body = append(
			body,
			chunk(pick(random, "LIST", "smpl", "cue ", "fact", "id3 "), samples[:random.IntN(len(samples))])...)
	}
	body = append(body, chunk("data", samples)...)
	return append(binary.LittleEndian.AppendUint32([]byte("RIFF"), size(uint32(len(body)))), body...)
}

// document returns a plan, or what takes the place of one.
func document(random *rand.Rand) string {
	const passage = `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 6, "closing": ` +
		`[{"breaths": 2}]}`
	passages := []string{`{"type": "talk", "wait": true}`}
	for range many(random, 1) / 4 {
		passages = append(passages, strings.Replace(passage, "6", pick(random, numbers...), 1))
	}
	return fmt.Sprintf(
		`{"format": "vast-lantern-plan", "version": 1, "title": %s, "tempo": %s, "slot_min": 25, "starts_at": %q, `+
			`"passages": [%s]}`,
		text("", random),
		pick(random, "60", "50", pick(random, numbers...)),
		pick(random, moments...),
		strings.Join(passages, ","),
	)
}
