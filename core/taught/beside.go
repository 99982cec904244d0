package taught

import (
	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// Lane is one stretch of a passage in which a gentler lane ran beside. Nothing is held in it (pacing.md section 6).
// Times are milliseconds.
type Lane struct {
	Beside       plan.Beside
	At           int64 // from the start of the class
	Length       int64
	Breaths      int          // of those who took it, in kept rounds
	PerMinute    breath.Exact // breaths a minute in kept rounds
	LeftInhales  int          // in kept rounds
	RightInhales int
}

// addLanes reports what those breathed who took what ran beside, from the rows of the lane.
func (r *Record) addLanes(rows []pace.Row) {
	var lane *Lane
	var kept int64
	for i, row := range rows {
		fresh := i == 0 || rows[i-1].Passage != row.Passage || rows[i-1].Beside != row.Beside
		if fresh {
			lane, kept = nil, 0
		}
		if row.Beside.None() {
			continue
		}
		passage := &r.Passages[row.Passage-1]
		if lane == nil {
			passage.Lanes = append(passage.Lanes, Lane{Beside: row.Beside, At: row.At})
			lane = &passage.Lanes[len(passage.Lanes)-1]
		}
		lane.Length = row.End() - lane.At
		if row.Stage != pace.Round || !row.Kept {
			continue
		}
		kept += row.Dur
		if row.Phase.Begins() && (fresh && row.Count <= 1 || !fresh && startsPhase(rows[i-1], row)) {
			lane.inhale(row.Through)
		}
		if kept > 0 {
			lane.PerMinute = breath.Ratio(60_000*int64(lane.Breaths), kept)
		}
	}
}

func (l *Lane) inhale(through breath.Through) {
	l.Breaths++
	switch through {
	case breath.Left:
		l.LeftInhales++
	case breath.Right:
		l.RightInhales++
	}
}
