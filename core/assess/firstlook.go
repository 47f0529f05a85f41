package assess

import (
	"slices"

	"ivorybridge/core/gait"
	"ivorybridge/core/horse"
)

type (
	heads     struct{}
	ears      struct{}
	mouths    struct{}
	contacts  struct{}
	turns     struct{}
	legs      struct{}
	attends   struct{}
	mountings struct{}
	noses     struct{}
	riderLegs struct{}
	gaits     struct{}
)

func (heads) Words() []string    { return []string{"high", "level", "low"} }
func (ears) Words() []string     { return []string{"forward", "moving", "back"} }
func (mouths) Words() []string   { return []string{"quiet", "busy", "gapes"} }
func (contacts) Words() []string { return []string{"soft", "grabs", "leans", "tosses", "hides"} }
func (turns) Words() []string    { return []string{"follows", "dragged", "head tips in"} }
func (legs) Words() []string     { return []string{"answers", "dull", "explodes"} }
func (attends) Words() []string  { return []string{"the person", "home or herd", "objects"} }
func (mountings) Words() []string {
	return []string{"still", "moves", "hollow", "ears back", "mouth open", "hind leg unweighted", "must be held"}
}
func (noses) Words() []string { return []string{"poked out", "easy", "tucked"} }
func (riderLegs) Words() []string {
	return []string{"relaxed and close", "held away", "stiff", "bouncing", "spur touching"}
}
func (gaits) Words() []string { return []string{"walk", "trot", "canter", "other gait"} }

// The words of the first look (section C).
type (
	Head      = horse.Word[heads]
	Ears      = horse.Word[ears]
	Mouth     = horse.Word[mouths]
	Contact   = horse.Word[contacts]
	Turn      = horse.Word[turns]
	Leg       = horse.Word[legs]
	Attention = horse.Word[attends]
	Mounting  = horse.Word[mountings]
	Nose      = horse.Word[noses]
	RiderLeg  = horse.Word[riderLegs]
	Gait      = horse.Word[gaits]
)

// FirstLook is the horse with its usual person, tack and task (section C).
type FirstLook struct {
	Head      Head              `json:"head,omitzero" doc:"how it carries its head"`
	Ears      Ears              `json:"ears,omitzero" doc:"what its ears say"`
	Mouth     Mouth             `json:"mouth,omitzero" doc:"what its mouth does"`
	Nose      Nose              `json:"nose,omitzero" doc:"where its nose is"`
	Contact   []Contact         `json:"contact,omitempty" maxItems:"5" doc:"what it does when the rein is taken"`
	Turn      []Turn            `json:"turn,omitempty" maxItems:"3" doc:"how it turns"`
	Leg       Leg               `json:"leg,omitzero" doc:"how it answers the leg"`
	Attention []Attention       `json:"attention,omitempty" maxItems:"3" doc:"where its attention is"`
	Mounting  []Mounting        `json:"mounting,omitempty" maxItems:"7" doc:"what it does while somebody gets on"`
	Gait      string            `json:"gait,omitempty" maxLength:"120" doc:"as the rider names it"`
	Timed     *gait.Taps        `json:"timed,omitempty" doc:"its hooves as they landed, tapped while it went"`
	RiderLeg  map[Gait]RiderLeg `json:"rider_leg,omitempty" doc:"the person's leg per gait"`
}

func has[V horse.Vocabulary](list []horse.Word[V], words ...string) bool {
	return slices.ContainsFunc(list, func(w horse.Word[V]) bool { return slices.Contains(words, w.String()) })
}

// heavy contact grabs or leans.
func (l FirstLook) heavy() bool { return has(l.Contact, "grabs", "leans") }

// noted reports whether anything of the horse was noted.
func (l FirstLook) noted() bool {
	return !l.Head.IsZero() || !l.Ears.IsZero() || !l.Mouth.IsZero() || !l.Nose.IsZero() || !l.Leg.IsZero() ||
		len(l.Contact)+len(l.Turn)+len(l.Attention)+len(l.Mounting) > 0
}

// NoMounting reports whether nobody gets on: ears back with the mouth open or
// a hind leg unweighted at mounting, or it must be held (part 9).
func (l FirstLook) NoMounting() bool {
	return has(l.Mounting, "must be held") || has(l.Mounting, "ears back") && has(l.Mounting, "mouth open", "hind leg unweighted")
}

// unsteady reports whether the rider's leg is: no spurs then (part 9).
func (l FirstLook) unsteady() bool {
	for _, leg := range l.RiderLeg {
		if leg.Rank() > 1 {
			return true
		}
	}
	return false
}

// handsOn reports whether somebody has had the horse before them: a basic was
// tried, a spot touched, an item of the body or the problem looked at, in
// person.
func (a Assessment) handsOn() bool {
	seen := func(section string) bool { return a.SourceIn(section) == horse.Seen }
	tried := seen("D") && (len(a.Basics) > 0 || len(a.Zones) > 0 || a.NotYet) || seen("C") && a.First.noted()
	for _, n := range a.Body {
		tried = tried || seen("B") && (!n.State.IsZero() && n.State != horse.NotLookedAt || len(n.Checks) > 0)
	}
	for _, p := range a.Problems {
		tried = tried || seen("E") && p.Baseline.Asked()
	}
	return tried
}
