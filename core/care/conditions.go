package care

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

// Named is a condition with its name as people say it.
type Named struct {
	ID   Condition
	Name string
}

// Conditions is every condition, in the order in which a form lists them.
var Conditions = []Named{
	{Newcomers, "newcomers who are not prepared for holds"},
	{Pregnancy, "pregnancy"},
	{HighBloodPressure, "uncontrolled high blood pressure"},
	{LowBloodPressure, "low blood pressure"},
	{HeartDisease, "heart disease"},
	{Glaucoma, "glaucoma or recent eye surgery"},
	{DetachedRetina, "detached retina"},
	{Epilepsy, "epilepsy"},
	{Asthma, "asthma"},
	{LungDisease, "chronic lung disease"},
	{RecentSurgery, "recent chest or abdominal surgery"},
	{Hernia, "hernia"},
	{Ulcer, "ulcer"},
	{Reflux, "reflux"},
	{Vertigo, "vertigo"},
	{Panic, "panic"},
	{BackOrKnee, "back or knee injury"},
	{Cold, "a cold or a blocked nose"},
	{ChestCold, "a chest cold"},
	{Fever, "fever"},
	{Nosebleed, "recent nosebleed"},
	{Menstruation, "menstruation"},
}

// Name is the condition as people say it; empty for one that is not known.
func (c Condition) Name() string {
	for _, n := range Conditions {
		if n.ID == c {
			return n.Name
		}
	}
	return ""
}
