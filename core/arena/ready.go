package arena

import (
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

type settlings struct{}

func (settlings) Words() []string {
	return []string{"within a minute", "within five minutes", "not in five minutes"}
}

// Settling is how long a ridden horse takes to settle after days off.
type Settling = horse.Word[settlings]

// The ends of it that rules name.
var (
	AtOnce    = horse.MustWord[settlings]("within a minute")
	NotInFive = horse.MustWord[settlings]("not in five minutes")
)

// Readiness is what is asked in under a minute before a session (part 6).
type Readiness struct {
	Arousal horse.Arousal `json:"arousal" doc:"at the gate"`
	Handler horse.Mind    `json:"handler" doc:"the person who holds the rope"`
	Tack    bool          `json:"tack" doc:"tack and kit looked over"`
	Body    bool          `json:"body" doc:"body as last time"`
	Weather string        `json:"weather,omitempty" maxLength:"200" doc:"weather, ground, distraction, who is there"`
	Stop    horse.Stop    `json:"stop,omitzero" doc:"heat, ice, storm or another reason not to begin"`
	Alone   bool          `json:"alone,omitempty" doc:"nobody else at the yard"`
	Settled Settling      `json:"settled,omitzero" doc:"ridden after days off: how soon it settled"`
	NoPen   bool          `json:"no_pen,omitempty" doc:"there is no safe pen for loose movement"`
	Trailer string        `json:"trailer,omitempty" maxLength:"36" doc:"the trailer that is worked at, by its id"`
	Memory  bool          `json:"from_memory,omitempty" doc:"the session is written down afterwards: nothing was asked at the gate"`
	Asked   horse.Ask     `json:"ask,omitzero" doc:"where the trainer wants to begin; else proposed"`
}

// Gate says whether and where a session may begin.
type Gate struct {
	May         bool             `json:"may"`
	Foundations bool             `json:"foundations_only" doc:"arousal 3 at the gate: foundations only, once it is back at 1"`
	Lower       int              `json:"lower" doc:"steps below the last one met"`
	Baseline    bool             `json:"baseline" doc:"14 days off and more: the baseline again"`
	Settles     bool             `json:"settles,omitempty" doc:"ridden after days off: how soon it settles in hand is asked first"`
	Reasons     []phrase.Message `json:"reasons"`
}

// Ready judges readiness. daysOff counts days since any logged work, -1 for
// never; bumped tells of a bump that was not followed by two accepted answers.
func Ready(r Readiness, daysOff int, bumped bool) Gate {
	g := Gate{May: true}
	if r.Memory {
		return g // it has happened
	}
	say := func(key string, args phrase.Args) { g.Reasons = append(g.Reasons, phrase.Of("gate."+key, args)) }
	switch {
	case !r.Stop.IsZero():
		g.May = false
		say("stop", phrase.Args{"reason": r.Stop.String()})
	case r.Arousal.Int() == 4:
		g.May = false
		say("explosive", nil)
	case r.Handler == horse.Scared || r.Handler == horse.Angry:
		g.May = false
		say("handler", phrase.Args{"mind": r.Handler.String()})
	case !r.Body:
		g.May = false
		say("body", nil)
	}
	if r.Arousal.Int() == 3 {
		g.Foundations = true
		say("over", nil)
	}
	args := phrase.Args{"n": daysOff}
	switch {
	case daysOff >= 14:
		g.Baseline = true
		say("days.baseline", args)
	case daysOff >= 4:
		g.Lower = 2
		say("days.two", args)
	case daysOff >= 2:
		g.Lower = 1
		say("days.one", args)
	}
	if bumped {
		g.Lower = max(g.Lower, 2)
		say("bump", nil)
	}
	if r.Handler == horse.Tight {
		say("tight", nil)
	}
	if !r.Tack {
		say("tack", nil)
	}
	return g
}

// Begin proposes where to start: the wanted ask, lowered as the gate says and
// never on a shut step. When nothing may be asked it is empty.
func Begin(c *catalog.Catalog, in Input, g Gate) horse.Ask {
	if !g.May {
		return horse.Ask{}
	}
	s := newSession(c, c.Rules, in)
	a := in.Ask
	step, ok := c.Step(a.Step)
	if !ok {
		return horse.Ask{}
	}
	ladder, _ := c.Ladder(step.Ladder)
	lower := g.Lower
	if g.Baseline {
		lower = step.Place
	}
	if g.Foundations && ladder.Kind != catalog.Foundation {
		lower = step.Place + 1
	}
	for range lower {
		if low, ok := s.oneLower(a); ok {
			a = low
		}
	}
	for s.shut(a.Step) {
		low, ok := s.oneLower(a)
		if !ok {
			return horse.Ask{}
		}
		a = low
	}
	if step, _ = c.Step(a.Step); a.Variant.IsZero() {
		a.Variant = s.variantFor(step, a.Variant)
	}
	return a
}

// bumped reports whether what stands of a track had a bump not followed by two
// accepted answers.
func bumped(live []track.Entry) bool {
	accepted, bumped := 0, false
	for _, e := range live {
		switch {
		case e.Kind == track.KindMark && e.Mark != nil && e.Mark.Bump:
			bumped, accepted = true, 0
		case e.Soft():
			if accepted++; accepted >= 2 {
				bumped = false
			}
		}
	}
	return bumped
}
