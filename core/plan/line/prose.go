package line

import (
	"fmt"
	"regexp"
	"strings"
	"unicode/utf8"
)

// margin is a time that stands before a passage, and how long it lasts by that of the next line. The zero margin is
// none.
type margin struct {
	bytes   int // of the line, that the times take
	minutes int // until the next one; 0 if nobody knows
}

var (
	clockMargin = regexp.MustCompile(`^\s*(\d{1,2})[:.](\d{2})(?:\s*(?:-|–|to)\s*(\d{1,2})[:.](\d{2}` +
		`))?\s*(?:Uhr|uhr|h)?\s*[-–:|]?\s+`)
	minuteMargin = regexp.MustCompile(`^\s*(\d{1,3})\s*[-–]\s*(\d{1,3})\s*(?:min\.?|')?\s*[-–:|]?\s+`)
)

// marginsOf returns the times down the margin of lines, by their number from 0: times of day, times since the start, or
// minutes from and to. One line alone has none: "5:30 rest" is a length there. Times that go back are none either.
func marginsOf(lines []string) map[int]margin {
	for _, form := range []*regexp.Regexp{clockMargin, minuteMargin} {
		found, order := map[int]margin{}, []int{}
		begins, ends := map[int]int{}, map[int]int{}
		last, forward := -1, true
		for i, line := range lines {
			m := form.FindStringSubmatch(line)
			if m == nil || strings.HasPrefix(line, " ") || strings.HasPrefix(line, "\t") {
				continue
			}
			from, to := whole(m[1]), whole(m[2])
			if form == clockMargin {
				from, to = 60*from+to, -1
				if m[3] != "" {
					to = 60*whole(m[3]) + whole(m[4])
				}
			}
			forward = forward && from > last && (to < 0 || to > from)
			last = from
			begins[i], ends[i] = from, to
			found[i] = margin{bytes: len(m[0])}
			order = append(order, i)
		}
		if len(order) < 2 || !forward {
			continue
		}
		for k, i := range order {
			end := ends[i]
			if end < 0 && k+1 < len(order) {
				end = begins[order[k+1]]
			}
			if end > begins[i] {
				found[i] = margin{found[i].bytes, end - begins[i]}
			}
		}
		return found
	}
	return nil
}

// blank returns the line without its margin, whose place is kept so that words stay where they are, and with the length
// that the margin gives where the line says none itself.
func (m margin) blank(line string) string {
	if m.bytes == 0 || m.bytes > len(line) {
		return line
	}
	text := strings.Repeat(" ", m.bytes) + line[m.bytes:]
	words := anyLexicon()
	if m.minutes > 0 && !hasLength(words.amounts(text, tokens(text, words), noNames)) && !strings.Contains(text, "\"") {
		text += fmt.Sprintf(", %d min", m.minutes)
	}
	return text
}

// shortened are words with a full stop that ends no sentence.
var shortened = []string{"min", "mins", "sec", "secs", "ca", "approx", "vs", "etc", "st", "std", "sek", "no", "nr"}

// sentences reads a line that may be prose: each sentence is read by itself. One that names nothing and has no length
// belongs to what is above it, as a remark.
func (n *Names) sentences(line string, above []Reading) ([]Reading, error) {
	pieces := sentencesOf(line)
	if len(pieces) < 2 {
		return n.Understand(line)
	}
	var all []Reading
	for _, piece := range pieces {
		read, err := n.Understand(strings.Repeat(" ", piece[0]) + line[piece[0]:piece[1]])
		if err != nil {
			return nil, err
		}
		last := len(all) - 1
		if saysNothing(read) && last < 0 && len(above) > 0 {
			remarkOn(above[len(above)-1], line[piece[0]:piece[1]])
			continue
		}
		if saysNothing(read) && last >= 0 {
			remarkOn(all[last], line[piece[0]:piece[1]])
			all[last].Said = append(all[last].Said, "remark")
			continue
		}
		all = append(all, read...)
	}
	return all, nil
}

// saysNothing reports whether a sentence names nothing of the book, and no length.
func saysNothing(read []Reading) bool {
	if len(read) != 1 || len(read[0].Doubts) == 0 || read[0].Doubts[0].Kind != DoubtName {
		return false
	}
	return len(read[0].Said) == 1 // its title
}

func remarkOn(r Reading, text string) {
	fields := r.Fields.Values()
	if before, _ := fields["remark"].(string); before != "" {
		text = before + " " + text
	}
	fields["remark"] = strings.TrimSpace(text)
}

// sentencesOf returns where the sentences of a line begin and end, in bytes.
func sentencesOf(line string) [][2]int {
	var list [][2]int
	from := 0
	quotes := false
	for at := 0; at < len(line); {
		r, size := utf8.DecodeRuneInString(line[at:])
		at += size
		if strings.ContainsRune(openQuotes+"”", r) {
			quotes = !quotes
		}
		stops := strings.ContainsRune(".!?", r) && at < len(line) && line[at] == ' ' && !quotes
		if !stops || from == 0 && at-size < len(listMark.FindString(line)) {
			continue
		}
		words := strings.Fields(line[from : at-size])
		if len(words) == 0 {
			continue
		}
		last := strings.ToLower(words[len(words)-1])
		short := false
		for _, word := range shortened {
			short = short || strings.HasSuffix(last, word) && len(strings.TrimLeft(last, "0123456789")) == len(word)
		}
		if short && r == '.' {
			continue
		}
		list = append(list, [2]int{from, at})
		from = at
	}
	if strings.TrimSpace(line[from:]) != "" {
		list = append(list, [2]int{from, len(line)})
	}
	return list
}

// titled reports whether the first line of a class is its title: it names nothing, has no length, and ends with a colon
// or stands apart.
func (n *Names) titled(line, next string) bool {
	apart := strings.HasSuffix(strings.TrimSpace(line), ":") || strings.TrimSpace(next) == ""
	if !apart {
		return false
	}
	read, err := n.Understand(line)
	return err != nil || saysNothing(read)
}

func lineAt(lines []string, i int) string {
	if i < len(lines) {
		return lines[i]
	}
	return ""
}
