package library

import (
	"cmp"
	"regexp"
	"slices"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// meanings is what a pedal, or a key of a presenter's remote, can mean.
var meanings = []contract.Way{
	{ID: "go-on", Says: "go on, resume, or take what is proposed"},
	{ID: "pause", Says: "natural breath for everybody"},
	{ID: "slower", Says: "slower"},
	{ID: "faster", Says: "faster"},
	{ID: "release", Says: "release the hold; enough, in strokes"},
	{ID: "holds", Says: "no holds from here on, or holds back"},
	{ID: "fewer", Says: "one round fewer"},
	{ID: "more", Says: "one round more"},
	{ID: "last", Says: "last round"},
	{ID: "again", Says: "this round again"},
	{ID: "lane", Says: "open or close the gentler lane"},
	{ID: "undo", Says: "undo"},
	{ID: "none", Says: "nothing"},
}

// usualKeys is what pedals mean where nothing was chosen: one pedal is enough to lead a whole class, with a short press to go
// on, and a long one or two for natural breath. down and up are what was chosen for Page Down and Page Up before there was
// more to choose.
func usualKeys(down, up string) contract.Keys {
	return contract.Keys{Letters: map[string]string{}, Remote: []contract.RemoteKey{
		{Key: "PageDown", Press: contract.Short, Means: cmp.Or(down, "go-on")},
		{Key: "PageDown", Press: contract.Long, Means: "pause"},
		{Key: "PageDown", Press: contract.Double, Means: "pause"},
		{Key: "PageUp", Press: contract.Short, Means: cmp.Or(up, "pause")},
	}}
}

var (
	letter   = regexp.MustCompile(`^[a-z0-9]?$`)
	nameOf   = regexp.MustCompile(`^[a-z-]{1,20}$`)
	pressWay = []contract.PressWay{contract.Short, contract.Long, contract.Double}
)

const mostKeys = 60

// checkKeys tells what is wrong with the keys, and fills in what is not there.
func checkKeys(k *contract.Keys) error {
	k.Letters = contract.OrEmpty(k.Letters)
	k.Remote = append([]contract.RemoteKey{}, k.Remote...)
	if len(k.Letters) > mostKeys || len(k.Remote) > mostKeys {
		return studio.Fail(studio.ErrInvalid, "Keys: at most %d of each.", mostKeys)
	}
	used := map[string]string{}
	for control, key := range k.Letters {
		if !nameOf.MatchString(control) || !letter.MatchString(key) {
			return studio.Fail(studio.ErrInvalid, "Keys: given %q for %q, allowed: one letter from a to z, one digit, or nothing.", key, control)
		}
		if other, taken := used[key]; taken && key != "" {
			return studio.Fail(studio.ErrInvalid, "Keys: %q is given to both %q and %q.", key, other, control)
		}
		used[key] = control
	}
	for i, r := range k.Remote {
		switch same := func(o contract.RemoteKey) bool { return o.Key == r.Key && o.Press == r.Press }; {
		case r.Key == "" || len(r.Key) > 40:
			return studio.Fail(studio.ErrInvalid, "Pedals and remotes: given %q, allowed: the name of a key.", r.Key)
		case !slices.Contains(pressWay, r.Press):
			return studio.Fail(studio.ErrInvalid, "Pedals and remotes: given %q, allowed: %q.", r.Press, pressWay)
		case !slices.ContainsFunc(meanings, func(w contract.Way) bool { return w.ID == r.Means }):
			return studio.Fail(studio.ErrInvalid, "Pedals and remotes: %q is an unknown action.", r.Means)
		case slices.ContainsFunc(k.Remote[:i], same):
			return studio.Fail(studio.ErrInvalid, "Pedals and remotes: %s (%s) is there twice.", r.Key, r.Press)
		}
	}
	return nil
}
