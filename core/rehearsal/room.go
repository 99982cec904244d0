package rehearsal

import (
	"embed"
	"slices"
	"strings"
	"sync"

	"vastlantern/core/fact"
)

//go:embed rooms/*.yaml
var files embed.FS

// Room is a simulated room, as its file has it: who is there, each kind with the ranges in which its people lie.
type Room struct {
	Name   string
	People []Kind `yaml:"people"`
}

// Title is what the room is called.
func (r *Room) Title() fact.Fact { return fact.New("simulated." + r.Name + ".title") }

// About says who is there.
func (r *Room) About() fact.Fact { return fact.New("simulated." + r.Name + ".about") }

// Kind is some people of a room who are alike. Ranges are those of Person, the least and the most.
type Kind struct {
	Count   int        `yaml:"count"`
	Comfort [2]float64 `yaml:"comfort"`
	Reach   [2]float64 `yaml:"reach"`
	Full    [2]float64 `yaml:"full"`
	Empty   [2]float64 `yaml:"empty"`
	Strokes [2]float64 `yaml:"strokes"`
	Rate    [2]float64 `yaml:"rate"`
	Growth  [2]float64 `yaml:"growth"`
	Fade    [2]float64 `yaml:"fade"`
	Limit   [2]float64 `yaml:"limit"`
	Keeps   [2]float64 `yaml:"keeps"`
	Wanders [2]float64 `yaml:"wanders"`
	Mixes   [2]float64 `yaml:"mixes"`
	Shows   [2]float64 `yaml:"shows"`
	Dizzy   [2]float64 `yaml:"dizzy"`
	Blocked string     `yaml:"blocked"`
}

// Rooms returns all rooms, by name.
func Rooms() ([]Room, error) { return rooms() }

var rooms = sync.OnceValues(func() ([]Room, error) {
	return readFolder(files, "rooms", func(r *Room, name string) { r.Name = name })
})

// Find returns the room of a name. The error lists those that there are.
func Find(name string) (Room, error) {
	rooms, err := Rooms()
	if err != nil {
		return Room{}, err
	}
	i := slices.IndexFunc(rooms, func(r Room) bool { return r.Name == name })
	if i < 0 {
		var names []string
		for _, r := range rooms {
			names = append(names, r.Name)
		}
		return Room{}, fact.New("rehearsal.no-room", "room", name, "rooms", strings.Join(names, ", "))
	}
	return rooms[i], nil
}

// Size returns how many people are in the room.
func (r Room) Size() (n int) {
	for _, kind := range r.People {
		n += kind.Count
	}
	return n
}

// Seat has people come: who they are follows from the seed.
func (r Room) Seat(seed int64) []Person {
	people := make([]Person, 0, r.Size())
	for _, kind := range r.People {
		for range kind.Count {
			who, what := int64(len(people)), int64(0)
			within := func(bounds [2]float64) float64 {
				what++
				return bounds[0] + (bounds[1]-bounds[0])*chance(seed, 0, who, what)
			}
			people = append(people, Person{
				Comfort: within(kind.Comfort),
				Reach:   within(kind.Reach),
				Full:    within(kind.Full),
				Empty:   within(kind.Empty),
				Strokes: within(kind.Strokes),
				Rate:    within(kind.Rate),
				Growth:  within(kind.Growth),
				Fade:    within(kind.Fade),
				Limit:   within(kind.Limit),
				Keeps:   within(kind.Keeps),
				Wanders: within(kind.Wanders),
				Mixes:   within(kind.Mixes),
				Shows:   within(kind.Shows),
				Dizzy:   within(kind.Dizzy),
				Blocked: kind.Blocked,
			})
		}
	}
	return people
}
