package breath

// Pulse is equally spaced positions: the counts of a stretch that runs at one tempo. After many changes of tempo an
// exact position is a fraction of many digits; a pulse needs it once, and rounds all its counts in whole numbers.
type Pulse struct {
	from, step Exact

	// from + 1/2 is whole + x with 0 <= x < 1, part is floor(x*den), and step is num/den. Count n is then shown at
	// floor(from + n*step + 1/2) = whole + floor((part + n*num)/den), since den is a whole number.
	whole, part, num, den int64
}

// NewPulse returns a pulse whose count 0 begins at from and whose counts last step, both in milliseconds, step not
// below 0.
func NewPulse(from, step Exact) Pulse {
	p := Pulse{from: from, step: step}
	if step.big != nil {
		return p
	}
	half := from.Add(Exact{num: 1, less: 1})
	p.whole, p.num, p.den = half.Floor(), step.num, step.den()
	p.part = half.Sub(Int(p.whole)).Mul(Int(p.den)).Floor()
	return p
}

// At returns where count n begins.
func (p *Pulse) At(n int) Exact {
	if n == 0 {
		return p.from
	}
	return p.from.Add(p.step.Times(n))
}

// Round returns where count n begins in whole milliseconds, rounded half up.
func (p *Pulse) Round(n int) int64 {
	if p.den != 0 {
		if run, ok := times(int64(n), p.num); ok {
			if sum, ok := plus(run, p.part); ok {
				return p.whole + sum/p.den
			}
		}
	}
	return p.At(n).Round()
}

// Reached reports whether the whole millisecond t is at the beginning of count n or after it.
func (p *Pulse) Reached(t int64, n int) bool {
	// The exact position is within half a millisecond of the rounded one, so only there it must be checked.
	if shown := p.Round(n); t != shown {
		return t > shown
	}
	return !Int(t).Less(p.At(n))
}

// Still reports whether the counts have no length.
func (p *Pulse) Still() bool { return p.step.Sign() == 0 }
