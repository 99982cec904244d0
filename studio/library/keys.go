package library

import (
	"regexp"
	"slices"

	"vastlantern/core/fact"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// meanings is what a pedal, or a key of a presenter's remote, can mean.
var meanings = pedals()

func pedals() []contract.Means {
	list := []contract.Means{meaning("pause")}
	for _, c := range contract.Controls {
		if c.Pedal {
			list = append(list, meaning(c.ID))
		}
	}
	return append(list, meaning("none"))
}

func meaning(control string) contract.Means {
	return contract.Means{ID: control, Says: fact.New("control." + control + ".card")}
}

var (
	letter   = regexp.MustCompile(`^[a-z0-9]?$`)
	nameOf   = regexp.MustCompile(`^[a-z-]{1,20}$`)
	pressWay = []contract.PressWay{contract.Short, contract.Long, contract.Double}
)

const mostKeys = 60

// checkKeys reports what is wrong with the keys, and fills in what is not there.
func checkKeys(k *contract.Keys) error {
	k.Letters = contract.OrEmpty(k.Letters)
	k.Remote = append([]contract.RemoteKey{}, k.Remote...)
	if len(k.Letters) > mostKeys || len(k.Remote) > mostKeys {
		return studio.Fail(studio.ErrInvalid, "keys.too-many", "most", mostKeys)
	}
	used := map[string]string{}
	for control, key := range k.Letters {
		if !nameOf.MatchString(control) || !letter.MatchString(key) {
			return studio.Fail(studio.ErrInvalid, "keys.letter", "given", key, "control", control)
		}
		if other, taken := used[key]; taken && key != "" {
			return studio.Fail(studio.ErrInvalid, "keys.twice", "key", key, "first", other, "second", control)
		}
		used[key] = control
	}
	for i, r := range k.Remote {
		switch same := func(o contract.RemoteKey) bool { return o.Key == r.Key && o.Press == r.Press }; {
		case r.Key == "" || len(r.Key) > 40:
			return studio.Fail(studio.ErrInvalid, "remote.key", "given", r.Key)
		case !slices.Contains(pressWay, r.Press):
			return studio.Fail(studio.ErrInvalid, "remote.press", "given", r.Press, "allowed", pressWay)
		case !slices.ContainsFunc(meanings, func(m contract.Means) bool { return m.ID == r.Means }):
			return studio.Fail(studio.ErrInvalid, "remote.action", "given", r.Means)
		case slices.ContainsFunc(k.Remote[:i], same):
			return studio.Fail(studio.ErrInvalid, "remote.twice", "key", r.Key, "press", r.Press)
		}
	}
	return nil
}
