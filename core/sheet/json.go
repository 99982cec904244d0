package sheet

import (
	"bytes"
	"fmt"
	"strconv"
)

// MostDepth is how deep objects and lists of a plan file may be nested. The plan itself needs five; the rest is room
// for what other programs keep in it. Deeper nesting would cost memory out of all proportion to the file.
const MostDepth = 100

// Depth returns how deep objects and lists are nested in a JSON text, whether or not it is right JSON otherwise.
func Depth(text []byte) int {
	depth, deepest := 0, 0
	for i := 0; i < len(text); i++ {
		switch text[i] {
		case '{', '[':
			depth++
			deepest = max(deepest, depth)
		case '}', ']':
			depth--
		case '"':
			i = endOfString(text, i)
		}
	}
	return deepest
}

// endOfString returns where the string that begins at the place ends; the end of the text where it does not.
func endOfString(text []byte, start int) int {
	for i := start + 1; i < len(text); i++ {
		switch text[i] {
		case '\\':
			i++
		case '"':
			return i
		}
	}
	return len(text)
}

// ControlCharacter returns the first control character that a string of a JSON text stands for, other than a tab or the
// end of a line, as U+0000; empty if there is none. Such characters cannot be shown, and some cannot be stored.
func ControlCharacter(text []byte) string {
	for i := 0; i < len(text); i++ {
		if text[i] != '\\' {
			continue
		}
		rest := text[i+1:]
		i++ // what is escaped is no backslash of its own
		if len(rest) < 5 || rest[0] != 'u' {
			continue
		}
		code, err := strconv.ParseUint(string(rest[1:5]), 16, 16)
		if err == nil && code < ' ' && !bytes.ContainsRune([]byte("\t\n\r"), rune(code)) {
			return fmt.Sprintf("U+%04X", code)
		}
	}
	return ""
}
