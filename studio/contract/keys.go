package contract

import "cmp"

// UsualKeys returns what pedals mean if nothing was chosen: one pedal is enough to lead a whole class, with a short
// press to go on, and a long one or two for natural breath. down and up are what was chosen for Page Down and Page Up
// before there was more to choose.
func UsualKeys(down, up string) Keys {
	return Keys{Letters: map[string]string{}, Remote: []RemoteKey{
		{Key: "PageDown", Press: Short, Means: cmp.Or(down, "go-on")},
		{Key: "PageDown", Press: Long, Means: "pause"},
		{Key: "PageDown", Press: Double, Means: "pause"},
		{Key: "PageUp", Press: Short, Means: cmp.Or(up, "pause")},
	}}
}
