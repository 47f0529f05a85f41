package demo

import (
	"fmt"
	"time"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
	"ivorybridge/store"
)

// sessions makes up the sessions of a horse, two to four days apart; some on the
// same day, some that nobody ended.
func (v *inventor) sessions() error {
	ago := v.taken - 2
	for i := range v.size.Sessions {
		if ago = max(ago, 1); v.chance(8) {
			ago++ // a second one on that day
		}
		start := time.Date(v.now.Year(), v.now.Month(), v.now.Day(), 8+i%9, v.rand.IntN(60), 0, 0, time.UTC).AddDate(0, 0, -ago)
		t := &made{inventor: v, at: start.UnixMilli(), started: start.UnixMilli()}
		t.write(i)
		actor := v.actor
		actor.At = t.at
		n := store.Session{
			ID: v.id(), CaseID: v.kase, HorseID: v.horseID, StartedAt: t.started, Zone: zone, Date: v.day(ago), School: horse.BuildAndRelease,
			Begins: t.asks[0], Handler: pick(v.rand, []string{actor.User, actor.User, v.owner}), Catalog: v.cat.Version, Rules: v.cat.Rules, Core: arena.Version,
			Readiness: arena.Readiness{Arousal: horse.ArousalOf(v.rand.IntN(3)), Handler: horse.Calm, Tack: true, Body: true},
		}
		if err := v.db.StartSession(v.ctx, actor, n); err != nil {
			return err
		}
		_, refused, err := v.db.Append(v.ctx, actor, n.ID, 0, t.entries)
		if err != nil {
			return err
		}
		for _, why := range refused {
			if why != nil {
				return fmt.Errorf("session %d: %w", i+1, why)
			}
		}
		ago -= 2 + v.rand.IntN(3)
		for a, known := range v.know {
			v.know[a] = known * 0.97
		}
	}
	return nil
}

// made is one session being made up.
type made struct {
	*inventor
	at, started int64
	entries     []track.Entry
	asks        []horse.Ask // worked, in order
}

func (t *made) add(e track.Entry) {
	t.at += 8_000 + t.rand.Int64N(40_000)
	e.ID, e.At, e.Device, e.Seq = t.id(), t.at, "tablet", int64(len(t.entries)+1)
	t.entries = append(t.entries, e)
}

// write fills the session: a few asks in turn, foundations before the ladder.
func (t *made) write(i int) {
	steps := t.toWork(i)
	for k := 0; len(t.entries) < t.size.Entries || k == 0; k++ {
		step := steps[k%len(steps)]
		t.work(step, pick(t.rand, step.Asks()), 3+t.rand.IntN(7))
		if t.chance(10) {
			t.mark()
		}
	}
	if !t.chance(4) {
		t.add(track.Entry{Kind: track.KindEnd, Note: pick(t.rand, []string{"", "stood well", "stopped on a good one"})})
	}
}

// toWork are two foundations and a piece of the ladder, further up as the
// sessions go by.
func (t *made) toWork(i int) []catalog.Step {
	var steps []catalog.Step
	for _, need := range t.ladder.StandsOn {
		if s, ok := t.cat.Step(need.Step); ok && len(steps) < 2 {
			steps = append(steps, s)
		}
	}
	at := i * len(t.ladder.Steps) / max(t.size.Sessions, 1)
	for _, s := range t.ladder.Steps[at:min(at+2, len(t.ladder.Steps))] {
		if s.Link == "" {
			steps = append(steps, s)
		}
	}
	if len(steps) == 0 {
		s, _ := t.cat.Step("lead.forward")
		steps = append(steps, s)
	}
	return steps
}

// work logs some answers on an ask, by the kinds of entry that its ladder's
// schools use.
func (t *made) work(step catalog.Step, a horse.Ask, n int) {
	if len(t.asks) > 0 && t.chance(50) {
		t.add(track.Entry{Kind: track.KindMark, Mark: &track.Mark{Ask: &a, Arousal: horse.ArousalOf(1)}})
	}
	t.asks = append(t.asks, a)
	for range n {
		r := t.answer(a, step)
		switch {
		case step.Has(catalog.MeasureDose) && t.chance(70):
			t.add(track.Entry{Kind: track.KindDose, Dose: &track.Dose{Rep: r, Given: r.Target + t.rand.IntN(4), Steps: t.rand.IntN(2) * t.rand.IntN(4)}})
		case t.chance(4):
			t.add(track.Entry{Kind: track.KindOffer, Offer: &track.Offer{Ask: a, Answer: pick(t.rand, track.Offered{}.All()), Arousal: r.Arousal, WaysOut: r.WaysOut, Handler: r.Handler}})
		case step.Trailer && t.chance(20):
			t.add(track.Entry{Kind: track.KindSpell, Spell: &track.Spell{Ask: a, Place: pick(t.rand, track.SpellPlace{}.All()), Rest: t.chance(50), Level: r.Peak, Seconds: t.rand.IntN(90), Came: pick(t.rand, track.Coming{}.All()), Arousal: r.Arousal}})
		case step.Ridden && t.chance(10):
			t.add(track.Entry{Kind: track.KindBurst, Burst: &track.Burst{Ask: a, Asks: 10, OnTouch: t.rand.IntN(11), Last: r.Answer, Arousal: r.Arousal}})
		case t.chance(1):
			t.add(track.Entry{Kind: track.KindMemory, Memory: &track.Memory{Ask: a, Tries: 3, Last: r.Answer}})
		case t.chance(2):
			t.add(track.Entry{Kind: track.KindInterruption, Interruption: &track.Interruption{Behaviour: pick(t.rand, horse.WayOut{}.All()), Level: r.Peak, Seconds: 4}})
		default:
			t.add(track.Entry{Kind: track.KindRep, Rep: &r})
		}
		t.second(r)
	}
}

// second thoughts: an entry is undone or corrected now and then, and advice was
// shown.
func (t *made) second(r track.Rep) {
	last := t.entries[len(t.entries)-1]
	switch {
	case t.chance(3):
		t.add(track.Entry{Kind: track.KindUndo, Replaces: last.ID})
	case t.chance(3) && last.Kind == track.KindRep:
		r.Answer = pick(t.rand, horse.Answer{}.All())
		t.add(track.Entry{Kind: track.KindRep, Rep: &r, Replaces: last.ID})
	case t.chance(10):
		t.add(track.Entry{Kind: track.KindAdvice, Shown: &track.Shown{After: last.ID, Action: track.Same, Rule: "15", Next: r.Ask}})
	}
}

// answer is what the horse does: it learns with each good answer.
func (t *made) answer(a horse.Ask, step catalog.Step) track.Rep {
	know := t.know[a]
	r := track.Rep{Ask: a, Start: horse.LevelOf(1), Arousal: horse.ArousalOf(t.rand.IntN(2)), EndedBy: horse.ByHandler}
	r.Peak = horse.LevelOf(1 + int((1-know)*6*t.rand.Float64()))
	x := t.rand.Float64() + know
	for i, share := range []float64{0.15, 0.35, 0.55, 1.7} {
		if x < share {
			break
		}
		r.Answer = horse.Answer{}.All()[min(i+1, 4)]
	}
	if r.Answer.IsZero() {
		r.Answer = horse.Refused
	}
	if len(step.Pass.Values) > 0 {
		r.Target = pick(t.rand, step.Pass.Values)
		if know > 0.5 {
			r.Target = step.Last()
		}
		if t.chance(80) {
			reached := r.Target
			r.Reached = &reached
		}
	}
	r.Release = pick(t.rand, []horse.Release{{}, horse.OnTheTry, horse.OnTheTry, horse.OnTheTry, horse.Late, horse.WrongMoment})
	if r.Answer == horse.Refused && t.chance(20) {
		r.WaysOut = []horse.WayOut{pick(t.rand, horse.WayOut{}.All())}
	}
	if t.chance(3) {
		r.Arousal = horse.ArousalOf(3)
	}
	if t.chance(3) {
		r.Flags = []horse.Flag{pick(t.rand, []horse.Flag{horse.NotNoticed, horse.OutsideCause})}
	}
	if t.chance(12) {
		r.Handler = t.owner
	}
	if len(step.Variants) > 0 && t.chance(3) {
		r.Variant = horse.Variant{} // the side was not tapped
	}
	if horse.Soft(r.Answer) {
		t.know[a] = know + (1-know)*0.12
	}
	return r
}

// mark notes something else.
func (t *made) mark() {
	m := track.Mark{Arousal: horse.ArousalOf(t.rand.IntN(3))}
	switch t.rand.IntN(6) {
	case 0:
		m.Bump = true
	case 1:
		m.Turn = pick(t.rand, []string{t.owner, t.actor.User})
	case 2:
		m.Incident = true
	case 3:
		m.WaysOut = []horse.WayOut{pick(t.rand, horse.WayOut{}.All())}
	case 4:
		m.EasyMinutes = 5
	}
	t.add(track.Entry{Kind: track.KindMark, Mark: &m, Note: map[bool]string{true: "it was over in a moment", false: ""}[m.Incident]})
}
