package arena

import (
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Says tells how far an ask has come and where that is known from: met at the
// assessment, seen on video, said to be good, or concluded and seen by nobody.
func (k Known) Says() phrase.Message {
	state := k.State
	if state.IsZero() {
		state = horse.Untried
	}
	key := "sessions"
	switch {
	case k.KeptAt != "":
		return phrase.Of("known.home", phrase.Args{"on": phrase.Date(k.KeptAt)})
	case k.Source == horse.Told && state == horse.Untried:
		key = "said"
	case k.Concluded:
		key = "concluded"
	case k.Source == horse.Seen && k.Good && !k.Passed():
		key = "good"
	case k.Source == horse.Seen:
		key = "seen"
	case k.Source == horse.OnVideo:
		key = "video"
	}
	return phrase.Of("known."+key, phrase.Args{"state": state.String(), "on": phrase.Date(k.Assessed)})
}

// Elsewhere tells the same of what no session saw; false where sessions are where it
// is known from.
func (k Known) Elsewhere() (phrase.Message, bool) {
	says := k.Says()
	return says, says.Key != "known.sessions"
}

// StepKnown is what is known of a whole step: the least of its asks.
func StepKnown(s catalog.Step, of func(horse.Ask) Known) Known {
	var least Known
	for i, a := range s.Asks() {
		if k := of(a); i == 0 || k.State.Rank() < least.State.Rank() {
			least = k
		}
	}
	return least
}
