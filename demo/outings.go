package demo

import (
	"math"
	"time"

	"ivorybridge/core/arena"
	"ivorybridge/core/horse"
	"ivorybridge/core/outing"
	"ivorybridge/core/track"
	"ivorybridge/store"
)

// walked is one outing of a story: how it was stood at each stop of the way home, from
// the turning point on: s stood, b broke once, e stood with its mind elsewhere.
type walked struct {
	ago     int
	minutes float64
	metres  int
	stops   string
	spot    int // tries at the mill on the way out
	arousal int
}

// walks tells the outings of a story, each a session of its own.
func (t *teller) walks() error {
	for _, w := range t.outings {
		start := time.Date(t.now.Year(), t.now.Month(), t.now.Day(), 16, 20, 0, 0, time.UTC).AddDate(0, 0, -w.ago)
		actor := t.actor
		actor.At = start.UnixMilli()
		near := horse.Ask{Step: "home.near"}
		n := store.Session{
			ID: t.id(), CaseID: t.caseID, HorseID: t.horseID, StartedAt: actor.At, Zone: zone, Date: t.day(w.ago), School: horse.ReliefPlace, Begins: near, Handler: actor.User,
			Readiness: arena.Readiness{Arousal: horse.ArousalOf(1), Handler: horse.Calm, Tack: true, Body: true}, Catalog: t.cat.Version, Rules: t.cat.Rules, Core: arena.Version,
		}
		if err := t.db.StartSession(t.ctx, actor, n); err != nil {
			return err
		}
		s := &telling{teller: t, today: track.Day{ID: n.ID, Date: n.Date, Started: actor.At, Handler: actor.User}, at: actor.At + 60_000}
		s.walk(w)
		s.add(track.Entry{Kind: track.KindEnd, Note: "walked home on a slack rope"})
		actor.At = s.at
		_, refused, err := t.db.Append(t.ctx, actor, n.ID, 0, s.today.Track)
		for _, r := range refused {
			if r != nil {
				return r
			}
		}
		if err != nil {
			return err
		}
		t.days = append(t.days, s.today)
	}
	return nil
}

// walk presses the buttons of one outing, and logs what it counts as.
func (s *telling) walk(w walked) {
	press := func(k track.Walk, after float64) {
		s.at += int64(math.Round(after * 1000))
		s.add(track.Entry{Kind: track.KindMark, Mark: &track.Mark{Walk: &k}})
	}
	out := w.minutes * 60
	n := float64(len(w.stops))
	stand, piece := math.Ceil(out/n)+2, out/n
	press(track.Walk{Button: track.SetOff, Road: &track.Road{Minutes: w.minutes, Metres: w.metres, Plain: len(w.stops)}}, 0)
	if w.spot > 0 {
		away := horse.Heading{}
		read(&away, "away")
		press(track.Walk{Button: track.PassedBy, Spot: "the mill", Tries: w.spot, Heading: away}, out/2)
		out /= 2
	}
	press(track.Walk{Button: track.Turned}, out)
	s.add(track.Entry{Kind: track.KindMark, Mark: &track.Mark{Arousal: horse.ArousalOf(w.arousal)}})
	for _, how := range w.stops {
		press(track.Walk{Button: track.StoppedAt}, 0)
		switch how {
		case 'b':
			press(track.Walk{Button: track.Broke}, 8+3*float64(7-w.ago))
			press(track.Walk{Button: track.Stood}, stand)
		case 'e':
			press(track.Walk{Button: track.Elsewhere}, stand)
		default:
			press(track.Walk{Button: track.Stood}, stand)
		}
		press(track.Walk{Button: track.Moving}, 2)
		s.at += int64(piece * 1000)
	}
	press(track.Walk{Button: track.AtHome}, 0)
	state, _ := outing.Live(s.today.Track, 1, s.at)
	rep := state.Result().Rep(horse.Ask{Step: "home.near"}, false)
	s.at += 1000
	s.add(track.Entry{Kind: track.KindRep, Rep: &rep})
}
