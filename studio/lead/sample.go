package lead

import (
	"context"
	_ "embed"
	"encoding/json"
	"errors"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// sampleName is the setting that says which plan is the sample's, so that it is removed also after a crash.
const sampleName = "sample"

// sample is the class that somebody tries the program with, and its plan: real while it is led, and gone when it is
// over.
type sample struct {
	Plan int64 `json:"plan"`
	last *live // it as it ended, for the screens that still show it
}

// BeginSample begins the sample class, as any other class is begun. It is not saved.
func (c *Classes) BeginSample(ctx context.Context) (contract.Score, error) {
	c.leading.Lock() // until it runs: a sample that does not is removed
	defer c.leading.Unlock()
	if running, err := c.InProgress(ctx); err != nil || running != nil {
		if err == nil {
			err = studio.FailRunning(running, "class.running-go-back")
		}
		return contract.Score{}, err
	}
	if err := c.removeSample(ctx); err != nil {
		return contract.Score{}, err
	}
	document, err := led.SamplePlan()
	if err != nil {
		return contract.Score{}, err
	}
	planned, err := c.plans.Add(ctx, document, 0)
	if err != nil {
		return contract.Score{}, err
	}
	value, err := json.Marshal(sample{Plan: planned.ID})
	if err == nil {
		err = c.studio.Store.With(ctx).SaveSetting(sampleName, value)
	}
	if err != nil {
		return contract.Score{}, err
	}
	c.sample.Store(&sample{Plan: planned.ID})
	return c.begin(ctx, contract.Lead{PlanID: planned.ID, Acknowledged: contract.StrongCautions(planned)})
}

// samplePlan returns the plan of the sample, 0 if there is none.
func (c *Classes) samplePlan(ctx context.Context) (int64, error) {
	if known := c.sample.Load(); known != nil {
		return known.Plan, nil
	}
	value, err := c.studio.Store.With(ctx).Setting(sampleName)
	if errors.Is(err, store.ErrNotFound) {
		c.sample.Store(&sample{})
		return 0, nil
	}
	if err != nil {
		return 0, err
	}
	var stored sample
	if err := json.Unmarshal(value, &stored); err != nil {
		stored = sample{} // nobody can say which it was: it is a plan like others then
	}
	c.sample.Store(&stored)
	return stored.Plan, nil
}

// removeSample removes the sample for good, where it is not being led. Whoever still shows it is answered from memory.
func (c *Classes) removeSample(ctx context.Context) error {
	id, err := c.samplePlan(ctx)
	if err != nil || id == 0 {
		return err
	}
	if err := c.studio.Store.With(ctx).RemovePlanAndClasses(id); err != nil {
		return err
	}
	if err := c.studio.Store.With(ctx).SaveSetting(sampleName, []byte(`{"plan": 0}`)); err != nil {
		return err
	}
	c.sample.Store(&sample{last: c.sample.Load().last})
	c.studio.NotifyAll()
	return nil
}

// isSample reports whether a class of the plan is the sample.
func (c *Classes) isSample(plan int64) bool {
	known := c.sample.Load()
	return known != nil && known.Plan != 0 && known.Plan == plan
}

// endedSample returns the sample that was led last, if the number is its class; else nil.
func (c *Classes) endedSample(id int64) *live {
	if known := c.sample.Load(); known != nil && known.last != nil && known.last.stored.ID == id {
		return known.last
	}
	return nil
}
