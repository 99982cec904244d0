// Package rehearsal simulates a group to practise on (handbook.md section 10): people who follow a class, and the signs
// they show. It is a model for training, made of plausible parts; it does not predict anybody's body. docs/rehearsal.md
// describes its limits.
//
// What people do is a function of the timeline and a seed; there is no clock and no other source of chance. Random
// values are keyed by event (which person, which breath), never drawn in sequence, so that a press changes neither the
// past nor whether somebody is distracted later.
package rehearsal

import (
	"hash/fnv"
	"math"
)

// Person is one simulated person. Lengths are in seconds. Where no source is named the figure is a guess.
type Person struct {
	// a comfortable breath in and out, without its holds, once attended to: 8 to 14 s (common practice; resting adults
	// breathe 12 to 20 times a minute)
	Comfort float64
	Reach   float64 // how many times Comfort a breath may last before it strains, 1.2 to 2
	Full    float64 // a full hold that stays easy: newcomers 2 to 6 s, practised 10 to 25 (common practice)
	Empty   float64 // an empty hold that stays easy: newcomers 0 to 3 s, practised 5 to 12 (common practice)
	Strokes float64 // strokes in a row that stay easy, 15 to 80
	Rate    float64 // strokes a minute that are followed easily, 50 to 110
	Growth  float64 // strain for each second beyond what is easy, 0.02 to 0.1
	Fade    float64 // seconds of natural breath in which strain halves, 10 to 40
	Limit   float64 // strain at which one stops following until the next rest, 0.5 to 1; those who push through have more
	Keeps   float64 // how far from the count one is at a cue, 0 to 0.8 s (standard deviation)
	Wanders float64 // how often a minute attention is away, 0 to 1
	Mixes   float64 // how often left and right are mixed up at a switch, 0 to 0.2
	Shows   float64 // how likely a sign is to be seen of strain that is there, 0.2 to 0.95
	Blocked string  // the nostril that is blocked, left or right; empty for none
	Dizzy   float64 // how likely one gets dizzy in a breath of great strain, 0 to 0.03
}

// Strain is from 0, at ease, to a person's Limit. From Visible on there is something to be seen.
const Visible = 0.2

// What a breath through a blocked nostril asks for, and an empty hold beside a full one. Guesses.
const (
	throughBlocked = 1.4  // times its length
	emptyHarder    = 1.5  // times the strain
	easesABreath   = 0.96 // of the strain is left after a breath that was at ease
)

// chance returns a number from 0 up to 1 for something that happens to somebody: always the same for the same seed.
func chance(seed int64, what ...int64) float64 {
	h := fnv.New64a()
	var bytes [8]byte
	for _, n := range append(what, seed) {
		for i := range bytes {
			bytes[i] = byte(n >> (8 * i))
		}
		h.Write(bytes[:]) // it never fails
	}
	x := h.Sum64()
	x ^= x >> 33 // what is written last changes few bits of the sum: mixed once more
	x *= 0xff51afd7ed558ccd
	x ^= x >> 33
	return float64(x>>11) / (1 << 53)
}

// normal returns a chance with a mean of 0 and a standard deviation of 1.
func normal(seed int64, what ...int64) float64 {
	u := chance(seed, append(what, 1)...)
	v := chance(seed, append(what, 2)...)
	return math.Sqrt(-2*math.Log(1-u)) * math.Cos(2*math.Pi*v)
}
