package demo

import (
	"ivorybridge/core/arena"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// logged is an answer as the school of its ladder logs it: a dose, an offer, a rest in
// a place, a held ask with its tries, or a rep.
func (s *telling) logged(r track.Rep) track.Entry {
	step, _ := s.file.Catalog.Step(r.Step)
	ladder, _ := s.file.Catalog.Ladder(step.Ladder)
	card := arena.CardOf(s.file.Catalog, step, s.file.Schools()[ladder.Key])
	switch card.Pad.String() {
	case "review":
		return track.Entry{Kind: track.KindRep, Rep: &track.Rep{Ask: r.Ask, Trial: s.trial()}}
	case "dose":
		return track.Entry{Kind: track.KindDose, Dose: s.dosed(r)}
	case "offer":
		if len(card.Values) == 0 {
			return track.Entry{Kind: track.KindOffer, Offer: offered(r)}
		}
	case "places":
		return track.Entry{Kind: track.KindSpell, Spell: spell(r, card.Places)}
	case "tries":
		r.Seconds *= 6
		first := r.Seconds / 3
		r.ToTry = &first
		r.Tries = []track.Try{{At: s.at + int64(first*1000)}, {At: s.at + int64(r.Seconds*900)}}
		if horse.Soft(r.Answer) {
			down := 10 + 30*s.rand.Float64()
			r.LetDown = &down
		}
	}
	return track.Entry{Kind: track.KindRep, Rep: &r}
}

// trial is the next thing of a review.
func (s *telling) trial() *track.Trial {
	items := (horse.TackItem{}).All()
	t := &track.Trial{What: items[s.reps%len(items)], Was: "as it came"}
	if s.reps%3 == 1 {
		t.Changed, t.Milder, t.Seconds, t.Saw, t.Verdict = "a milder one", true, 300, "chewed, head lower", horse.Better
	}
	return t
}

func (s *telling) dosed(r track.Rep) *track.Dose {
	d := &track.Dose{Rep: r, Given: r.Target, Stood: r.Answer}
	d.Answer, d.Peak, d.Reached, d.Thing = horse.Answer{}, horse.LevelOf(1), nil, s.thing
	switch {
	case r.Answer == horse.Refused:
		d.Steps, d.Given, d.Stood = 3, r.Target+4, horse.Tolerated
	case r.Answer == horse.Try:
		d.Stood = horse.Tolerated
	}
	if s.problem == "aggression" {
		kicks := max(0, 6-s.session)
		d.Kicks = &kicks
		d.WaysOut = nil
	}
	return d
}

func offered(r track.Rep) *track.Offer {
	o := &track.Offer{Ask: r.Ask, Answer: track.Stayed, Arousal: r.Arousal, Signs: r.Signs}
	switch r.Answer {
	case horse.Refused:
		o.Answer = track.Left
	case horse.Try, horse.Tolerated:
		o.Answer = track.Hesitated
	}
	return o
}

// spell is a rest where the horse is wanted, as long as its answer was good.
func spell(r track.Rep, places []arena.PlaceToBe) *track.Spell {
	p := &track.Spell{Ask: r.Ask, Rest: true, Arousal: r.Arousal, Signs: r.Signs, Seconds: 20, EndedBy: horse.ByHorse}
	for _, place := range places {
		if place.Rest {
			p.Place = place.Place
		}
	}
	if horse.Soft(r.Answer) {
		p.Seconds, p.EndedBy = max(60, r.Target), horse.ByHandler
	}
	return p
}
