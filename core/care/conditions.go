package care

import (
	"slices"

	"vastlantern/core/fact"
)

// Condition is something that may be so for somebody in the room. A group notes which are present, as ticks and
// numbers, never with names.
type Condition string

// The conditions that the rules know.
const (
	Pregnancy         Condition = "pregnancy"
	HighBloodPressure Condition = "high-blood-pressure"
	LowBloodPressure  Condition = "low-blood-pressure"
	HeartDisease      Condition = "heart-disease"
	Glaucoma          Condition = "glaucoma"
	DetachedRetina    Condition = "detached-retina"
	Epilepsy          Condition = "epilepsy"
	RecentSurgery     Condition = "recent-surgery"
	Hernia            Condition = "hernia"
	Ulcer             Condition = "ulcer"
	Reflux            Condition = "reflux"
	LungDisease       Condition = "lung-disease"
	Asthma            Condition = "asthma"
	Cold              Condition = "cold"
	ChestCold         Condition = "chest-cold"
	Fever             Condition = "fever"
	Nosebleed         Condition = "nosebleed"
	Vertigo           Condition = "vertigo"
	Panic             Condition = "panic"
	Menstruation      Condition = "menstruation"
	BackOrKnee        Condition = "back-or-knee"
	Newcomers         Condition = "newcomers"
)

// Conditions is every condition, in the order in which a form lists them.
var Conditions = []Condition{
	Newcomers, Pregnancy, HighBloodPressure, LowBloodPressure, HeartDisease, Glaucoma, DetachedRetina, Epilepsy, Asthma,
	LungDisease,
	RecentSurgery, Hernia, Ulcer, Reflux, Vertigo, Panic, BackOrKnee, Cold, ChestCold, Fever, Nosebleed, Menstruation,
}

// Known reports whether the rules know the condition.
func (c Condition) Known() bool { return slices.Contains(Conditions, c) }

// Name returns the condition as people say it.
func (c Condition) Name() fact.Fact { return fact.New("condition." + string(c)) }
