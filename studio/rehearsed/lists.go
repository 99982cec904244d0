package rehearsed

import (
	"bytes"
	"encoding/json"

	"vastlantern/core/fact"
	"vastlantern/core/rehearsal"
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
)

// Count notes a rehearsal at its task.
func Count(scenarios []contract.Scenario, one contract.Rehearsal) {
	for i := range scenarios {
		if scenarios[i].Name != one.Scenario || one.Level < 1 || one.Level > len(scenarios[i].Levels) {
			continue
		}
		level := &scenarios[i].Levels[one.Level-1]
		level.Tries++
		level.Reached = level.Reached || one.Digest != nil && one.Digest.Aims > 0 && one.Digest.Reached == one.Digest.Aims
	}
}

// Scenarios returns the tasks, with what is to be known of their levels.
func (d *Desk) Scenarios() ([]contract.Scenario, error) {
	list := []contract.Scenario{}
	scenarios, err := rehearsal.Scenarios()
	if err != nil {
		return list, err
	}
	for i := range scenarios {
		one := d.scenario(&scenarios[i])
		for n := range one.Levels {
			if err := d.fill(&one.Levels[n], &scenarios[i], n+1); err != nil {
				return list, err
			}
		}
		list = append(list, one)
	}
	return list, nil
}

// Rooms returns the simulated rooms.
func (d *Desk) Rooms() ([]contract.SimulatedRoom, error) {
	rooms, err := rehearsal.Rooms()
	list := make([]contract.SimulatedRoom, len(rooms))
	for i, one := range rooms {
		list[i] = contract.SimulatedRoom{
			Name: one.Name, Title: d.Tell(one.Title()), About: d.Tell(one.About()), People: one.Size(),
		}
	}
	return list, err
}

func (d *Desk) scenario(s *rehearsal.Scenario) contract.Scenario {
	one := contract.Scenario{
		Name:   s.Name,
		Title:  d.Tell(s.Title()),
		Learn:  d.Tell(s.Learn()),
		Task:   d.Tell(s.Task()),
		Away:   s.Away,
		Levels: []contract.ScenarioLevel{},
	}
	for i := range s.Levels {
		level := contract.ScenarioLevel{Says: d.Tell(s.Like(i + 1)), Aims: []fact.Fact{}}
		for _, aim := range s.Levels[i].Aims {
			level.Aims = append(level.Aims, aim.Says())
		}
		one.Levels = append(one.Levels, level)
	}
	return one
}

// fill tells of the room and the length of a level.
func (d *Desk) fill(to *contract.ScenarioLevel, of *rehearsal.Scenario, number int) error {
	level := &of.Levels[number-1]
	room, err := rehearsal.Find(level.Room)
	if err != nil {
		return err
	}
	people, err := level.Seat(level.Seed)
	if err != nil {
		return err
	}
	document, err := level.Document(of.Name)
	if err != nil {
		return err
	}
	_, p, err := sheet.ReadPlan(bytes.NewReader(document))
	if err != nil {
		return err
	}
	to.Room, to.People, to.LengthMS = d.Tell(room.Title()), len(people), p.Length().Round()
	return nil
}

// Entry returns a rehearsal as the list has it.
func (d *Desk) Entry(row Kept) (contract.Rehearsal, error) {
	var set Setting
	if err := json.Unmarshal(row.Setting, &set); err != nil {
		return contract.Rehearsal{}, err
	}
	_, p, err := sheet.ReadPlan(bytes.NewReader(row.Document))
	if err != nil {
		return contract.Rehearsal{}, err
	}
	room, err := rehearsal.Find(set.Room)
	if err != nil {
		return contract.Rehearsal{}, err
	}
	one := contract.Rehearsal{
		ID:        row.ID,
		Title:     p.Title,
		Scenario:  set.Scenario,
		Level:     set.Level,
		Room:      d.Tell(room.Title()),
		StartedMS: contract.Millis(row.StartedAt),
		AtMS:      row.AtMS,
		Over:      !row.EndedAt.IsZero(),
	}
	if one.Over {
		one.Digest = &contract.RehearsalDigest{}
		err = json.Unmarshal(row.Digest, one.Digest)
	}
	return one, err
}
