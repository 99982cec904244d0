package contract

// Expected is where a simulated room would be strained by a plan. It is a model, not a measurement.
type Expected struct {
	Rooms    []SimulatedRoom   `json:"rooms"` // to choose from
	Room     string            `json:"room"`
	Passages []ExpectedPassage `json:"passages"` // each of the plan, in its order
	Limits   string            `json:"limits"`   // of the model, in one sentence
}

// SimulatedRoom is a kind of room.
type SimulatedRoom struct {
	Name   string `json:"name"`
	Title  string `json:"title"`
	About  string `json:"about"`
	People int    `json:"people"`
}

// ExpectedPassage is for how many people a passage is beyond what is easy.
type ExpectedPassage struct {
	FromRound int            `json:"from_round"` // 0 where it is easy for all
	Low       int            `json:"low"`        // a tenth of the rooms has no more
	Median    int            `json:"median"`
	High      int            `json:"high"` // nine tenths have no more
	Ways      []ExpectedEase `json:"ways"` // what would make it easier, and by how much
}

// ExpectedEase is what would make a passage easier.
type ExpectedEase struct {
	Says   string `json:"says"`
	Low    int    `json:"low"`
	Median int    `json:"median"`
	High   int    `json:"high"`
}
