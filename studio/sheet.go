package studio

import (
	"bytes"
	"io"
	"slices"
	"strings"

	"vastlantern/core/pace"
	"vastlantern/core/sheet"
)

// sheets is the forms of a cue sheet.
var sheets = map[string]struct {
	kind  string
	write func(io.Writer, pace.Timeline) error
}{
	"csv":  {"text/csv; charset=utf-8", writeForSpreadsheets},
	"json": {"application/json", sheet.WriteJSON},
	"vtt":  {"text/vtt; charset=utf-8", sheet.WriteVTT},
}

// SheetFile returns a cue sheet in the form: csv, json or vtt. The name is without its ending.
func SheetFile(name, form string, t pace.Timeline) (File, error) {
	as, known := sheets[form]
	if !known {
		return File{}, Fail(ErrNotFound, "sheet.form", "given", form)
	}
	var text bytes.Buffer
	err := as.write(&text, t)
	return File{name + "." + form, as.kind, text.Bytes()}, err
}

// writeForSpreadsheets writes a cue sheet as CSV in which no spreadsheet takes a teacher's own word for a formula. The
// commands, whose sheets other programs read, write the words as they are.
func writeForSpreadsheets(w io.Writer, t pace.Timeline) error {
	t.Rows = slices.Clone(t.Rows)
	for i, row := range t.Rows {
		t.Rows[i].Say, t.Rows[i].Practice = PlainCell(row.Say), PlainCell(row.Practice)
	}
	return sheet.WriteCSV(w, t)
}

// PlainCell returns a cell that no spreadsheet takes for a formula (common practice, as OWASP's "CSV Injection"
// advises).
func PlainCell(cell string) string {
	if cell != "" && strings.ContainsRune("=+-@\t\r", rune(cell[0])) {
		return "'" + cell
	}
	return cell
}
