package history

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/horse"
	"ivorybridge/core/outing"
	"ivorybridge/core/track"
)

// said is an entry at so many seconds of the session.
func said(id string, seconds int, e track.Entry) track.Entry {
	e.ID, e.At = id, int64(seconds)*1000+1
	return e
}

func TestWhatIsCountedOverASession(t *testing.T) {
	five := 5
	kinds := func(k track.Kind, e track.Entry) track.Entry { e.Kind = k; return e }
	d := track.Day{Started: 1, Handler: "wren", Track: []track.Entry{
		said("a", 0, kinds(track.KindMark, track.Entry{Mark: &track.Mark{Arousal: horse.ArousalOf(3)}})),
		said("b", 40, kinds(track.KindMark, track.Entry{Mark: &track.Mark{Arousal: horse.ArousalOf(2)}})),
		said("c", 70, kinds(track.KindMark, track.Entry{Mark: &track.Mark{Arousal: horse.ArousalOf(1), WaysOut: []horse.WayOut{horse.Reared}}})),
		said("d", 80, kinds(track.KindOffer, track.Entry{Offer: &track.Offer{Answer: track.Came}})),
		said("e", 90, kinds(track.KindOffer, track.Entry{Offer: &track.Offer{Answer: track.Left}})),
		said("f", 100, kinds(track.KindSpell, track.Entry{Spell: &track.Spell{Rest: true, Seconds: 30}})),
		said("g", 110, kinds(track.KindSpell, track.Entry{Spell: &track.Spell{Seconds: 60}})),
		said("h", 115, kinds(track.KindInterruption, track.Entry{Interruption: &track.Interruption{Behaviour: horse.TurnedAway}})),
		said("i", 120, kinds(track.KindDose, track.Entry{Dose: &track.Dose{Rep: track.Rep{Target: 4, Kicks: &five}, Given: 7}})),
		said("j", 120, kinds(track.KindMark, track.Entry{Mark: &track.Mark{Spooked: true, Mind: horse.OnHomeOrHerd}})),
		said("k", 120, kinds(track.KindMark, track.Entry{Mark: &track.Mark{Mind: horse.OnThePerson}})),
	}}
	m := measuredIn(shipped(t), d, d.Track, nil)
	require.NotNil(t, m.Recovery)
	require.NotNil(t, m.Kicks)
	assert.Equal(t, []float64{70, 5, 2}, []float64{*m.Recovery, *m.Kicks, m.Minutes})
	assert.Equal(t, []int{1, 2, 1, 1}, []int{m.Spooks, m.Samples, m.OnHome, m.OnPerson})
	assert.InDelta(t, 5, m.SpooksInTen(), 0, "one in two minutes")
	assert.Equal(t, []int{1, 0, 1, 30, 60, 2, 1, 1, 3}, []int{m.Events, m.Caught, m.Interruptions, m.Rest, m.Work, m.Offers, m.Yes, m.Doses, m.Surplus})
}

func TestAnAskWithEachPersonAndItsFirstSoftAnswer(t *testing.T) {
	rep := func(seconds int, by string, answer horse.Answer, level, means int) arena.Told {
		return arena.Told{At: int64(seconds) * 1000, Graded: answer, Counted: true, Rep: track.Rep{Handler: by, Peak: horse.LevelOf(level), Means: means}}
	}
	f := figure(horse.Ask{Step: "lead.back"}, []arena.Told{
		rep(10, "", horse.Refused, 6, 2), rep(30, "ines", horse.Refused, 5, 1), rep(50, "", horse.Accepted, 2, 1), rep(70, "", horse.Accepted, 4, 1),
	}, track.Day{Handler: "wren"}, nil)
	require.NotNil(t, f.SoftAt)
	assert.Equal(t, []float64{10, 50}, []float64{f.First, *f.SoftAt})
	assert.Equal(t, 2, f.Means)
	require.Len(t, f.By, 2)
	assert.Equal(t, Held{"wren", How{N: 3, Soft: 2, Level: f.By[0].Level}}, f.By[0])
	assert.InDelta(t, 4, *f.By[0].Level, 0)
	assert.Equal(t, "ines", f.By[1].Person)
}

// Work and rest near home and away, of the ladders that are worked away from it; the
// stands of an outing are rest, away.
func TestWorkAndRestNearHomeAndAway(t *testing.T) {
	spell := func(step string, place track.SpellPlace, rest bool, seconds int) track.Entry {
		return track.Entry{ID: step + place.String(), Kind: track.KindSpell, Spell: &track.Spell{Ask: horse.Ask{Step: step}, Place: place, Rest: rest, Seconds: seconds}}
	}
	walk := func(at int64, w track.Walk) track.Entry {
		return track.Entry{ID: w.Button.String(), At: at * 1000, Kind: track.KindMark, Mark: &track.Mark{Walk: &w}}
	}
	f := FiguresOf(shipped(t), track.Day{ID: "s", Date: "2026-06-01", Track: []track.Entry{
		spell("away.work", track.NearHome, false, 100), spell("away.work", track.Away, true, 40), spell("home.turn", track.ByTheOther, true, 7),
		spell("away.work", track.Away, false, 9), spell("load.front", track.Away, true, 1000),
		walk(1, track.Walk{Button: track.SetOff, Road: &track.Road{Minutes: 1, Metres: 80}}), walk(60, track.Walk{Button: track.Turned}), walk(60, track.Walk{Button: track.StoppedAt}),
		walk(110, track.Walk{Button: track.Stood}), walk(170, track.Walk{Button: track.AtHome}),
	}}, nil, Visit{})
	assert.Equal(t, outing.Balance{WorkNear: 100, WorkAway: 9, RestNear: 7, RestAway: 90}, f.Day.Balance)
	require.Len(t, f.Outings, 1)
	assert.Equal(t, []string{"s", "2026-06-01"}, []string{f.Outings[0].Session, f.Outings[0].On})
	assert.True(t, f.Outings[0].Whole)
}

// What was written down stands until something else of its kind is; what came before
// it is under nothing.
func TestAnAskUnderWhatWasWrittenDown(t *testing.T) {
	mark := func(id string, m track.Mark) track.Entry { return track.Entry{ID: id, Kind: track.KindMark, Mark: &m} }
	under := surroundings([]track.Entry{
		{ID: "a"}, mark("b", track.Mark{Tack: "old saddle", Place: "road"}), {ID: "c"}, mark("d", track.Mark{Tack: "new saddle"}), {ID: "e"},
	})
	assert.Empty(t, under["a"])
	old, now, road := Under{What: InTack, Which: "old saddle"}, Under{What: InTack, Which: "new saddle"}, Under{What: InPlace, Which: "road"}
	assert.Equal(t, []Under{old, road}, under["c"])
	assert.Equal(t, []Under{road, now}, under["e"])

	rep := func(id string, answer horse.Answer, level int) arena.Told {
		return arena.Told{ID: id, N: 1, Graded: answer, Counted: true, Kind: track.KindOffer, Rep: track.Rep{Peak: horse.LevelOf(level)}, Passed: id == "e"}
	}
	f := figure(horse.Ask{Step: "lead.back"}, []arena.Told{rep("a", horse.Refused, 8), rep("c", horse.Refused, 6), rep("e", horse.Accepted, 2)}, track.Day{}, under)
	six, two, four := 6.0, 2.0, 4.0
	assert.Equal(t, []Under{
		{InTack, "old saddle", How{1, 0, &six}}, {InPlace, "road", How{2, 1, &four}}, {InTack, "new saddle", How{1, 1, &two}},
	}, f.Under)
	assert.Equal(t, []int{3, 1, 1}, []int{f.Offers, f.Yes, f.Passed})
}

func TestSpooksOfTheSessionsBefore(t *testing.T) {
	spooked := func(n int) (live []track.Entry) {
		for i := range n {
			live = append(live, track.Entry{At: int64(1 + i), Mark: &track.Mark{Spooked: true}})
		}
		return append(live, track.Entry{At: 10*60_000 + 1, Mark: &track.Mark{}})
	}
	assert.Empty(t, spooksAfter(nil, spooked(0), 1), "nobody has looked yet")
	list := spooksAfter(nil, spooked(2), 1)
	assert.InDelta(t, 2, list[0], 0.01)
	assert.InDelta(t, 0, spooksAfter(list, spooked(0), 1)[1], 0, "from then on none is a number")
	for range 30 {
		list = spooksAfter(list, spooked(1), 1)
	}
	assert.Len(t, list, mostSpooks)
}
