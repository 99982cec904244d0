package stage

import (
	"errors"
	"strings"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/cdp"
)

// replacedMessages are parts of what Chromium says when a page or a node goes away while it is looked at. The protocol
// has no numbers for them: all are of code -32000.
var replacedMessages = []string{
	"navigated or closed", "context was destroyed", "Cannot find context", "Could not find object",
	"Promise was collected",
	"Not attached to an active page", "detached", "does not belong to the document", "No node", "Could not find node",
	"Could not compute box model", "Node does not have a layout object",
}

// Replaced reports whether the error only says that the page was loaded anew, or drawn anew, while something looked at
// it: not a failure, but a reason to look again.
func Replaced(err error) bool {
	var gone *rod.ObjectNotFoundError
	var covered *rod.CoveredError
	var shapeless *rod.NoPointerEventsError
	var invisible *rod.InvisibleShapeError
	if errors.As(err, &gone) || errors.As(err, &covered) || errors.As(err, &shapeless) || errors.As(err, &invisible) {
		return true
	}
	var protocol *cdp.Error
	if !errors.As(err, &protocol) {
		return false
	}
	for _, part := range replacedMessages {
		if strings.Contains(protocol.Message, part) {
			return true
		}
	}
	return false
}
