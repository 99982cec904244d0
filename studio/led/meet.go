package led

import (
	"cmp"
	"encoding/json"
	"slices"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
)

// clockError is by how much the clock of a screen may be ahead of the program's, in milliseconds: as much as half of a
// slow exchange. A press that is further ahead acts now.
const clockError = 250

// maxCopy is how many adjustments a class has at most that a screen gives back whole: three hours by hand have 4,000.
const maxCopy = 20_000

// MaxPresses is how many presses come at once; a screen that has more sends the others afterwards.
const MaxPresses = 500

// Meeting is what becomes of presses that a screen made (docs/rules/apart.md).
type Meeting struct {
	Rows []contract.Pressed // the adjustments of the class after it
	// From is the first of them that the screen may not know, counted from 0; all before it are as they were.
	From int
	// Added is how many were added at the end, where nothing else has changed; -1 where the rows are to be replaced.
	Added int
	// Others is what was done on other screens, where the teacher has to choose. Nothing is added then.
	Others []contract.Pressed
}

// Meet adds presses of a screen to the adjustments of a class at its time now (docs/rules/apart.md section 3). The
// error says what is wrong with a press.
func Meet(rows []contract.Pressed, sent contract.Presses, now int64) (Meeting, error) {
	if len(sent.Presses) > MaxPresses && sent.Choose != contract.ChooseScreen || len(sent.Copy) > maxCopy {
		return Meeting{}, fact.New("apart.too-many", "most", MaxPresses)
	}
	if sent.Since < 0 {
		return Meeting{}, fact.New("apart.since", "given", sent.Since)
	}
	same := sent.Since <= len(rows) && (sent.Since == 0 || rows[sent.Since-1].Key == sent.Last)
	m := Meeting{Rows: rows}
	if same {
		m.From = sent.Since
	}
	known := keysOf(rows)
	fresh := slices.DeleteFunc(slices.Clone(sent.Presses), func(p contract.TimedPress) bool {
		twice := known[p.Key]
		known[p.Key] = true
		return twice
	})
	if len(fresh) == 0 {
		return m, nil
	}
	others, err := m.others(sent, same)
	if err != nil {
		return m, err
	}
	switch {
	case !sent.Apart, !same && (len(others) == 0 || onlyRemarks(fresh)):
		return m, m.add(fresh, now)
	case len(others) == 0 || onlyRemarks(fresh):
		return m, m.merge(sent.Since, fresh, now)
	case sent.Choose == contract.ChooseNone:
		m.Others = others
		return m, nil
	case sent.Choose == contract.ChooseProgram:
		aside := Meeting{}
		if err := aside.add(fresh, now); err != nil {
			return m, err
		}
		for _, row := range aside.Rows {
			if err := m.setAside(row); err != nil {
				return m, err
			}
		}
		return m, nil
	case sent.Choose == contract.ChooseScreen:
		return m.takeScreen(sent, now)
	}
	return m, fact.New("apart.choice", "given", string(sent.Choose))
}

// keysOf returns the keys of adjustments.
func keysOf(rows []contract.Pressed) map[string]bool {
	keys := make(map[string]bool, len(rows))
	for _, row := range rows {
		keys[row.Key] = true
	}
	return keys
}

// others returns the adjustments which other screens made and this one does not know, without remarks. Where it has
// another beginning than the program, those are all that is not its own.
func (m *Meeting) others(sent contract.Presses, same bool) ([]contract.Pressed, error) {
	from := sent.Since
	if !same {
		from = 0
	}
	own := make(map[string]bool, len(sent.Keys)+len(sent.Presses))
	for _, key := range sent.Keys {
		own[key] = true
	}
	for _, p := range sent.Presses {
		own[p.Key] = true
	}
	var list []contract.Pressed
	for _, row := range m.Rows[from:] {
		if own[row.Key] {
			continue
		}
		a, err := sheet.ReadAdjustment(row.Line)
		if err != nil {
			return nil, err
		}
		if !a.Do.Remarks() {
			list = append(list, row)
		}
	}
	return list, nil
}

func onlyRemarks(presses []contract.TimedPress) bool {
	return !slices.ContainsFunc(presses, func(p contract.TimedPress) bool { return !p.Do.Remarks() })
}

// add adds presses, each at its moment: never before the one before it, and not later than now.
func (m *Meeting) add(presses []contract.TimedPress, now int64) error {
	rows := slices.Clip(m.Rows)
	last, err := lastOf(rows)
	if err != nil {
		return err
	}
	for _, p := range presses {
		at := p.AtMS
		if at > now+clockError {
			at = now
		}
		last = max(last, at, 0)
		_, line, err := Adjustment(last, p.Adjust)
		if err != nil {
			return err
		}
		if p.Key == "" {
			return fact.New("lead.needs-key")
		}
		rows = append(rows, contract.Pressed{Key: p.Key, Origin: p.Origin, Line: line})
	}
	m.Rows, m.Added = rows, m.Added+len(presses)
	return nil
}

// merge adds presses among the adjustments from a number on, by their moments: one side has remarks only, and those
// have no effect on the other.
func (m *Meeting) merge(since int, presses []contract.TimedPress, now int64) error {
	theirs := m.Rows[since:]
	mine := Meeting{Rows: slices.Clip(m.Rows[:since])}
	if err := mine.add(presses, now); err != nil {
		return err
	}
	if len(theirs) == 0 {
		m.Rows, m.Added = mine.Rows, mine.Added
		return nil
	}
	type timed struct {
		contract.Pressed
		at int64
	}
	var all []timed
	for _, row := range slices.Concat(theirs, mine.Rows[since:]) { // theirs first where the moment is the same
		a, err := sheet.ReadAdjustment(row.Line)
		if err != nil {
			return err
		}
		all = append(all, timed{row, a.At})
	}
	slices.SortStableFunc(all, func(a, b timed) int { return cmp.Compare(a.at, b.at) })
	m.Rows, m.Added = slices.Clip(m.Rows[:since]), -1
	for _, row := range all {
		m.Rows = append(m.Rows, row.Pressed)
	}
	return nil
}

func lastOf(rows []contract.Pressed) (int64, error) {
	if len(rows) == 0 {
		return 0, nil
	}
	a, err := sheet.ReadAdjustment(rows[len(rows)-1].Line)
	return a.At, err
}

// takeScreen makes the class of the screen that of the program: its adjustments in its order and at its moments; what
// only the program had is set aside.
func (m *Meeting) takeScreen(sent contract.Presses, now int64) (Meeting, error) {
	taken, made := Meeting{}, make(map[string]int, len(sent.Presses))
	for i, p := range sent.Presses {
		made[p.Key] = i
	}
	for _, row := range sent.Copy {
		// What the screen does not know to have arrived is taken as a press; all else as the screen has it: the program
		// may have given it another moment since.
		if i, is := made[row.Key]; is {
			if err := taken.add(sent.Presses[i:i+1], now); err != nil {
				return *m, err
			}
			continue
		}
		a, err := sheet.ReadAdjustment(row.Line)
		if err != nil {
			return *m, err
		}
		last, err := lastOf(taken.Rows)
		if err != nil {
			return *m, err
		}
		if a.At < last {
			return *m, fact.New("apart.times-fall", "key", row.Key)
		}
		taken.Rows = append(taken.Rows, row)
	}
	copied := keysOf(sent.Copy)
	for _, row := range m.Rows {
		if copied[row.Key] {
			continue
		}
		if err := taken.setAside(row); err != nil {
			return *m, err
		}
	}
	taken.Added = -1
	return taken, nil
}

// asideLine is the line of an adjustment that was set aside: a note, which carries the line that it was.
type asideLine struct {
	At    int64           `json:"at_ms"`
	Do    pace.Verb       `json:"do"`
	Text  string          `json:"text"`
	Aside json.RawMessage `json:"aside"`
}

// setAside adds an adjustment as a remark without effect, with its key and its device. A remark stays as it is. Times
// never fall.
func (m *Meeting) setAside(row contract.Pressed) error {
	a, err := sheet.ReadAdjustment(row.Line)
	if err != nil {
		return err
	}
	last, err := lastOf(m.Rows)
	if err != nil {
		return err
	}
	at := max(last, a.At)
	if a.Do.Remarks() {
		row.Line, err = retimed(row.Line, at)
	} else {
		row.Line, err = json.Marshal(asideLine{
			at, pace.Note, fact.Clock(a.At) + " " + string(a.Do), row.Line, // for readers who do not know of "aside"
		})
	}
	m.Rows, m.Added = append(slices.Clip(m.Rows), row), m.Added+1
	return err
}

// retimed returns a line of a script at another time.
func retimed(line []byte, at int64) ([]byte, error) {
	var fields map[string]json.RawMessage
	if err := json.Unmarshal(line, &fields); err != nil {
		return nil, err
	}
	moment, err := json.Marshal(at)
	if err != nil {
		return nil, err
	}
	fields["at_ms"] = moment
	return json.Marshal(fields)
}
