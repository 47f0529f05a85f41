package outing

import "ivorybridge/core/phrase"

// A Balance is the time of work and of rest, near home and away from it, in seconds
// (part 7: work at home, rest away).
type Balance struct {
	WorkNear int             `json:"work_near" doc:"seconds of work at home or by the companion"`
	WorkAway int             `json:"work_away" doc:"seconds of work away from them"`
	RestNear int             `json:"rest_near" doc:"seconds of rest at home or by the companion"`
	RestAway int             `json:"rest_away" doc:"seconds of rest away from them, stands on the way home among them"`
	Warns    *phrase.Message `json:"warns,omitempty" doc:"rest happens at home, or hard work away"`
}

// Plus is the balance of both.
func (b Balance) Plus(o Balance) Balance {
	return Balance{WorkNear: b.WorkNear + o.WorkNear, WorkAway: b.WorkAway + o.WorkAway, RestNear: b.RestNear + o.RestNear, RestAway: b.RestAway + o.RestAway}
}

// Stood is what the stands of an outing add: rest, away.
func (r Result) Stood() Balance {
	sum := 0.0
	for _, s := range r.Stops {
		sum += s.Seconds
	}
	return Balance{RestAway: int(sum)}
}

// Judged says whether home is where rest is.
func (b Balance) Judged() Balance {
	switch {
	case b.RestNear > b.RestAway:
		b.Warns = warn("rest_home", b.RestNear, b.RestAway)
	case b.WorkAway > b.WorkNear:
		b.Warns = warn("work_away", b.WorkAway, b.WorkNear)
	}
	return b
}

func warn(key string, more, less int) *phrase.Message {
	m := phrase.Of("outing.balance."+key, phrase.Args{"more": (more + 30) / 60, "less": (less + 30) / 60})
	return &m
}
