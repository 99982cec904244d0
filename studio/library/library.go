// Package library is what a teacher works with: the practice book and own practices, the groups, the school, and what
// care asks for a group.
package library

import "vastlantern/studio"

// Library is the room.
type Library struct{ studio *studio.Studio }

// New is the library of a studio.
func New(s *studio.Studio) *Library { return &Library{s} }
