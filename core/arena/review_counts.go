package arena

import (
	"math"
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// Followed counts how often what was done next was what the advice had said
// (part 6): each piece of advice in force once, when the next thing is done.
type Followed struct {
	N  int `json:"n"`
	Of int `json:"of"`
}

func (r *Running) followed() Followed {
	var f Followed
	var said *track.Shown
	for _, e := range r.live {
		if e.Kind == track.KindAdvice {
			if e.Shown != nil && (said == nil || !e.Shown.Otherwise || e.Shown.After != said.After) {
				said = e.Shown // the newest stands
			} else if e.Shown != nil {
				said.Otherwise = true
			}
			continue
		}
		if said == nil || !r.answers(e, *said) {
			continue
		}
		f.Of++
		f.N += btoi(!said.Otherwise && r.isWhatWasSaid(e, *said))
		said = nil
	}
	return f
}

// answers reports whether an entry is what advice is followed or not followed
// by: an answer, another ask chosen, the end, or, where nothing was to be asked,
// how the horse is.
func (r *Running) answers(e track.Entry, said track.Shown) bool {
	if _, ok := e.AsRep(r.cat); ok || e.Kind == track.KindEnd || e.Spell != nil {
		return true
	}
	waits := slices.Contains([]track.Action{track.Wait, track.MakeSafe, track.Hold}, said.Action)
	return e.Mark != nil && (e.Mark.Ask != nil || waits && (e.Mark.Arousal.Noted() || len(e.Mark.Signs) > 0))
}

// isWhatWasSaid reports whether an entry does what was said.
func (r *Running) isWhatWasSaid(e track.Entry, said track.Shown) bool {
	rep, answered := e.AsRep(r.cat)
	chosen := e.Mark != nil && e.Mark.Ask != nil
	switch said.Action {
	case track.EndSession:
		return e.Kind == track.KindEnd
	case track.EndAsk, track.ChangeAsk:
		return e.Kind == track.KindEnd || chosen && *e.Mark.Ask != said.Next || answered && rep.Ask != said.Next
	case track.Wait, track.MakeSafe:
		return !answered && e.Spell == nil && !chosen && e.Kind != track.KindEnd
	case track.Hold:
		return e.Mark != nil && !chosen || answered && rep.Ask == said.Next
	}
	switch {
	case chosen:
		return *e.Mark.Ask == said.Next
	case e.Spell != nil:
		return e.Spell.Ask == said.Next
	}
	return answered && rep.Ask == said.Next
}

// Stopped are the unasked behaviours that were stopped in a session.
type Stopped []Behaviour

// A Behaviour is one that was stopped, with where it was headed.
type Behaviour struct {
	What      horse.WayOut `json:"what,omitzero"`
	Hurry     horse.Hurry  `json:"hurry,omitzero" doc:"a jog or pace, in place of what"`
	Slope     horse.Slope  `json:"slope,omitzero"`
	Heading   string       `json:"heading,omitempty"`
	N         int          `json:"n"`
	PerTen    float64      `json:"per_ten" doc:"per ten minutes of the session"`
	Level     horse.Level  `json:"level,omitzero" doc:"the middle level it took"`
	Seconds   float64      `json:"seconds,omitempty" doc:"the middle time it took, in seconds"`
	All       float64      `json:"all,omitempty" doc:"all of its seconds together"`
	AllPerTen float64      `json:"all_per_ten,omitempty" doc:"its seconds per ten minutes of the session"`
	Quiet     int          `json:"quiet" doc:"whole minutes since the last"`
}

// Called is what was stopped, in words.
func (b Behaviour) Called() string {
	if b.Hurry.IsZero() {
		return b.What.String()
	}
	if b.Slope.IsZero() {
		return b.Hurry.String()
	}
	return b.Hurry.String() + ", " + b.Slope.String()
}

// StoppedIn counts what was stopped in a session, by what stands of its track.
func StoppedIn(live []track.Entry, started int64) Stopped {
	list := Stopped{}
	var levels, seconds [][]float64
	last := int64(0)
	if n := len(live); n > 0 {
		last = live[n-1].At
	}
	for _, e := range live {
		u := e.Interruption
		if u == nil || e.Kind != track.KindInterruption {
			continue
		}
		of := Behaviour{What: u.Behaviour, Hurry: u.Hurry, Slope: u.Slope, Heading: u.Heading}
		i := slices.IndexFunc(list, func(b Behaviour) bool { return b.Called() == of.Called() && b.Heading == of.Heading })
		if i < 0 {
			list = append(list, of)
			levels, seconds = append(levels, nil), append(seconds, nil)
			i = len(list) - 1
		}
		list[i].N++
		list[i].Quiet = int((last - e.At) / minute)
		if u.Level.Noted() {
			levels[i] = append(levels[i], float64(u.Level.Int()))
		}
		if u.Seconds > 0 {
			seconds[i] = append(seconds[i], u.Seconds)
			list[i].All += u.Seconds
		}
	}
	minutes := Minutes(live, started)
	for i := range list {
		b := &list[i]
		b.PerTen = PerTen(float64(b.N), minutes)
		b.AllPerTen = PerTen(b.All, minutes)
		b.Seconds = horse.Median(seconds[i])
		if len(levels[i]) > 0 {
			b.Level = horse.LevelOf(int(math.Round(horse.Median(levels[i]))))
		}
	}
	return list
}

func (list Stopped) tell() []phrase.Message {
	var said []phrase.Message
	for _, b := range list {
		args := phrase.Args{"what": b.Called(), "n": b.N, "rate": b.PerTen, "heading": phrase.Message{}, "level": phrase.Message{}, "seconds": phrase.Message{}}
		if b.Heading != "" {
			args["heading"] = phrase.Of("story.heading", phrase.Args{"to": b.Heading})
		}
		if b.Level.Noted() {
			args["level"] = phrase.Of("story.with_level", phrase.Args{"n": b.Level.Int()})
		}
		if b.Seconds > 0 {
			args["seconds"] = phrase.Of("story.in_seconds", phrase.Args{"n": b.Seconds})
		}
		said = append(said, phrase.Of("story.stopped", args))
		if b.Quiet >= quietMinutes {
			said = append(said, phrase.Of("story.gone", phrase.Args{"n": b.Quiet}))
		}
	}
	return said
}

// quietMinutes without a behaviour are worth telling.
const quietMinutes = 5

// Minutes is how long a session was, from its start to its newest entry.
func Minutes(live []track.Entry, started int64) float64 {
	if len(live) == 0 {
		return 0
	}
	return max(0, float64(live[len(live)-1].At-started)/minute)
}

// PerTen is how much of something there was in ten minutes; less than a minute counts as
// one.
func PerTen(much, minutes float64) float64 { return 10 * much / max(minutes, 1) }

// Spooks counts how often the horse spooked.
func Spooks(live []track.Entry) int {
	n := 0
	for _, e := range live {
		if e.Mark != nil && e.Mark.Spooked {
			n++
		}
	}
	return n
}
