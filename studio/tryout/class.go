package tryout

import (
	"encoding/json"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/studio/apart"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// errMissing is of a class or a rehearsal that is not there: the page was opened again since.
var errMissing = fact.New("tryout.gone")

// class is the sample class, led as a lead screen leads its own copy.
type class struct {
	*apart.Screen
	id    int64
	began int64 // ms since 1970
}

// begin begins the sample class anew.
func (t *Tryout) begin(r request) (any, error) {
	document, err := led.SamplePlan()
	if err != nil {
		return nil, err
	}
	c := &class{id: 1, began: r.nowMS()}
	if t.class != nil {
		c.id = t.class.id + 1
	}
	kit := contract.Kit{ClassID: c.id, StartedMS: c.began, Document: string(document), Sample: true}
	if c.Screen, err = apart.Open(kit, nil); err != nil {
		return nil, err
	}
	t.class = c
	return c.score(r), nil
}

func (t *Tryout) running(r request) contract.Running {
	if t.class == nil {
		return contract.Running{}
	}
	score := t.class.score(r)
	if score.Over {
		return contract.Running{}
	}
	return contract.Running{ClassID: t.class.id, Title: score.Title}
}

// at returns how far the class is.
func (c *class) at(r request) int64 { return r.nowMS() - c.began }

func (c *class) score(r request) contract.Score { return c.Score(c.at(r)) }

// ofClass answers for the class of the question.
func ofClass(ask func(*class, request) (any, error)) func(*Tryout, request) (any, error) {
	return func(t *Tryout, r request) (any, error) {
		if t.class == nil || t.class.id != r.id {
			return nil, errMissing
		}
		return ask(t.class, r)
	}
}

func withClass[In any](ask func(*class, request, In) (any, error)) func(*class, request) (any, error) {
	return func(c *class, r request) (any, error) {
		var in In
		if err := json.Unmarshal(r.body, &in); err != nil {
			return nil, err
		}
		return ask(c, r, in)
	}
}

func (c *class) adjust(r request, want contract.Adjust) (any, error) {
	return c.pressed(r, c.at(r), want)
}

func (c *class) pressed(r request, at int64, want contract.Adjust) (any, error) {
	want.PressedMS = nil // it acts now
	if _, err := c.Press(at, want); err != nil {
		return nil, err
	}
	answers := c.Done()
	return contract.Adjusted{Answer: answers[len(answers)-1], Score: c.score(r)}, nil
}

func (c *class) would(r request, wants []contract.Adjust) (any, error) {
	return c.Would(c.at(r), wants)
}

func (c *class) saw(r request, saw contract.Saw) (any, error) {
	proposed, err := c.Propose(c.at(r), saw.See)
	if err != nil {
		return nil, err
	}
	if _, err := c.Press(c.at(r), contract.Adjust{Key: saw.Key, Do: pace.Signal, See: &saw.See}); err != nil {
		return nil, err
	}
	proposed.Score = c.score(r)
	return proposed, nil
}

func (c *class) tapped(r request, taps contract.Taps) (any, error) { return c.Tapped(c.at(r), taps) }

func (c *class) heardStrokes(r request, heard contract.HeardStrokes) (any, error) {
	return c.ProposeHeard(c.at(r), heard)
}

// listens needs not be told to anybody: there is one screen.
func (c *class) listens(r request, _ contract.Listens) (any, error) { return c.score(r), nil }

// heard keeps nothing: the class is a sample.
func (c *class) heard(request, contract.HeardMore) (any, error) { return contract.HeardKept{}, nil }

func (c *class) turn(r request, to contract.CardUp) (any, error) {
	c.Turn(to)
	return c.score(r), nil
}

func (c *class) gap(r request) (any, error) { return c.Gap(number64(r, "from_ms"), c.at(r)), nil }

// again takes what was missed again: a pause from there on, and the round starts over.
func (c *class) again(r request, want contract.TakeAgain) (any, error) {
	if _, err := c.Press(want.FromMS, contract.Adjust{Key: want.Key + "-lost", Do: pace.ToPause}); err != nil {
		return nil, err
	}
	return c.pressed(r, c.at(r), contract.Adjust{Key: want.Key, Do: pace.Resume})
}
