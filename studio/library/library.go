// Package library holds the practice book and own practices, the groups, the school, and the care for a group.
package library

import "vastlantern/studio"

// Library is the room.
type Library struct{ studio *studio.Studio }

// New returns the library of a studio.
func New(s *studio.Studio) *Library { return &Library{s} }
