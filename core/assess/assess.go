// Package assess judges an assessment (part 3): how dangerous the work is and
// which precautions that brings, what the body blocks, and where to start. It
// holds the horse's record and the sections walked so far: A the owner's
// story, B the body in short, E the problem itself once.
package assess

import (
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type sexes struct{}

func (sexes) Words() []string { return []string{"mare", "gelding", "stallion"} }

// Sex of the horse.
type Sex = horse.Word[sexes]

type pasts struct{}

func (pasts) Words() []string { return []string{"none", "ordinary", "unhappy", "unknown"} }

// Past is the ridden past.
type Past = horse.Word[pasts]

type energies struct{}

func (energies) Words() []string { return []string{"low", "usual", "high"} }

// Energy of the horse.
type Energy = horse.Word[energies]

type foods struct{}

func (foods) Words() []string { return []string{"yes", "no", "only after standing"} }

// Food says whether food may be used.
type Food = horse.Word[foods]

// Record is the horse's record, asked once. Dates are YYYY-MM-DD.
type Record struct {
	Sex          Sex    `json:"sex,omitzero"`
	Born         string `json:"born,omitempty" format:"date" doc:"date of birth; the year's first day if only the year is known"`
	Gelded       string `json:"gelded,omitempty" format:"date"`
	HeightMM     int    `json:"height_mm,omitempty" minimum:"500" maximum:"2200"`
	WeightG      int    `json:"weight_g,omitempty" minimum:"30000" maximum:"1500000"`
	Breed        string `json:"breed,omitempty" maxLength:"120"`
	Gaited       bool   `json:"gaited,omitempty"`
	Rides        *int   `json:"rides,omitempty" minimum:"0" maximum:"100000" doc:"rides so far; empty: not known"`
	Arrived      string `json:"arrived,omitempty" format:"date"`
	Living       string `json:"living,omitempty" maxLength:"200" doc:"stable, field, herd, hours out"`
	LastWorked   string `json:"last_worked,omitempty" format:"date"`
	RiddenPast   Past   `json:"ridden_past,omitzero"`
	Energy       Energy `json:"energy,omitzero"`
	Sensitivity  Energy `json:"sensitivity,omitzero"`
	Food         Food   `json:"food,omitzero"`
	Unhandled    bool   `json:"unhandled,omitempty" doc:"an unhandled adult"`
	GuardsItself bool   `json:"guards_itself,omitempty" doc:"tight, head high, no move at people"`
}

type begins struct{}

func (begins) Words() []string {
	return []string{"always", "gradually", "suddenly", "after an event", "after a change of tack or rider", "after time off"}
}

// Began says how a problem began.
type Began = horse.Word[begins]

type dones struct{}

func (dones) Words() []string {
	return []string{"put away", "given a rest", "the person gives up", "got free by itself", "kept at it", "called somebody"}
}

// Done is what is done when it happens.
type Done = horse.Word[dones]

// Story is section A for one problem.
type Story struct {
	Since       string `json:"since,omitempty" format:"date"`
	Began       Began  `json:"began,omitzero"`
	Tries       *int   `json:"tries,omitempty" minimum:"0" maximum:"9999"`
	Successes   *int   `json:"successes,omitempty" minimum:"0" maximum:"9999"`
	UsualMin    *int   `json:"usual_minutes,omitempty" minimum:"0" maximum:"1440"`
	WorstMin    *int   `json:"worst_minutes,omitempty" minimum:"0" maximum:"1440"`
	WithWhom    string `json:"with_whom,omitempty" maxLength:"200"`
	Where       string `json:"where,omitempty" maxLength:"200"`
	Done        []Done `json:"done,omitempty" maxItems:"6"`
	Tried       string `json:"tried,omitempty" maxLength:"1000"`
	Helpers     *int   `json:"helpers,omitempty" minimum:"0" maximum:"20"`
	WhoAlone    string `json:"who_alone,omitempty" maxLength:"200" doc:"who must be able to do it alone"`
	HandlerIs   string `json:"handler_is,omitempty" enum:"beginner,improving,sound,professional" doc:"the main handler"`
	Description string `json:"description,omitempty" maxLength:"2000" doc:"what happens, in the owner's words"`
}

// BodyNote is what is known of one body item (section B).
type BodyNote struct {
	Item  horse.BodyItem  `json:"item"`
	State horse.BodyState `json:"state"`
	Note  string          `json:"note,omitempty" maxLength:"300"`
}

// Baseline is section E: the problem itself, once, low.
type Baseline struct {
	Done       bool           `json:"done,omitempty" doc:"it was asked"`
	Reached    string         `json:"reached,omitempty" maxLength:"60" doc:"last step of an unbroken run of accepted ones; empty: none"`
	WaysOut    []horse.WayOut `json:"ways_out,omitempty" maxItems:"20"`
	Arousal    horse.Arousal  `json:"arousal,omitzero" doc:"peak"`
	Recovery   *int           `json:"recovery_s,omitempty" minimum:"0" maximum:"7200" doc:"seconds from the peak until back at 1 or 0"`
	Minutes    *int           `json:"minutes,omitempty" minimum:"0" maximum:"600" doc:"time in all"`
	Tries      *int           `json:"tries,omitempty" minimum:"0" maximum:"200"`
	WarnedLook bool           `json:"warning_look,omitempty"`
	Note       string         `json:"note,omitempty" maxLength:"1000"`
}

// Assessment is one horse on one day.
type Assessment struct {
	Story    Story      `json:"story"`
	Body     []BodyNote `json:"body,omitempty" maxItems:"10"`
	Events   []Event    `json:"events,omitempty" maxItems:"40"`
	Baseline Baseline   `json:"baseline"`
}

// relevant lists, for a problem, the body items that bear on it (part 3, ¹).
var relevant = map[horse.Problem][]horse.BodyItem{
	horse.Loading: {horse.FeetLegs, horse.HindLeg, horse.Balance, horse.Eyes},
}

// BodyOf tells the state of an item; not noted is not looked at.
func (a Assessment) BodyOf(item horse.BodyItem) horse.BodyState {
	for _, b := range a.Body {
		if b.Item == item && !b.State.IsZero() {
			return b.State
		}
	}
	return horse.NotLookedAt
}

// BodyClear reports whether all items relevant to the problem are clear or
// cleared. What was not looked at is not clear.
func (a Assessment) BodyClear(p horse.Problem) bool {
	items, ok := relevant[p]
	if !ok {
		items = (horse.BodyItem{}).All()
	}
	return !slices.ContainsFunc(items, func(item horse.BodyItem) bool {
		state := a.BodyOf(item)
		return state != horse.Clear && state != horse.Cleared
	})
}

// Block is a step that a fact blocks, and what lifts it.
type Block struct {
	Step  string         `json:"step"`
	Why   phrase.Message `json:"why"`
	Lifts phrase.Message `json:"lifts"`
}

func ill(s horse.BodyState) bool { return s == horse.Suspect || s == horse.InTreatment }

// Blocks lists the steps that the body blocks, in the catalogue's order.
func Blocks(c *catalog.Catalog, a Assessment) []Block {
	var blocks []Block
	for _, l := range c.Ladders {
		for _, step := range l.Steps {
			for _, item := range step.Blocked {
				state := a.BodyOf(item)
				if !ill(state) {
					continue
				}
				args := phrase.Args{"item": item.String(), "state": state.String(), "who": whoLooks(item)}
				blocks = append(blocks, Block{Step: step.Key, Why: phrase.Of("block.body", args), Lifts: phrase.Of("block.body.lifts", args)})
				break
			}
		}
	}
	return blocks
}

// Limits gives the last value a step may reach while a fact holds: with a hind
// leg not seen by a vet, backing is one step at most (part 9).
func Limits(a Assessment) map[string]int {
	if ill(a.BodyOf(horse.HindLeg)) {
		return map[string]int{"lead.back": 1}
	}
	return nil
}

// Referral is somebody to be asked before training goes on.
type Referral struct {
	Item horse.BodyItem `json:"item"`
	Who  string         `json:"who"`
	Why  phrase.Message `json:"why"`
}

// Referrals lists who is to be asked about suspect items (part 9).
func Referrals(a Assessment) []Referral {
	var refs []Referral
	for _, b := range a.Body {
		if b.State == horse.Suspect {
			who := whoLooks(b.Item)
			refs = append(refs, Referral{Item: b.Item, Who: who, Why: phrase.Of("referral", phrase.Args{"item": b.Item.String(), "who": who})})
		}
	}
	return refs
}

func whoLooks(item horse.BodyItem) string {
	switch item.String() {
	case "mouth":
		return "dentist"
	case "back":
		return "vet or back therapist"
	case "saddle fit":
		return "saddle fitter"
	case "feet legs":
		return "vet or farrier"
	}
	return "vet"
}

// Start is the step a problem ladder begins at: the one after the last of an
// unbroken run of accepted steps, one lower if arousal at baseline was 2, two
// lower if 3 or 4; never a blocked one (part 3).
func Start(c *catalog.Catalog, ladder string, a Assessment) (string, bool) {
	l, ok := c.Ladder(ladder)
	if !ok {
		return "", false
	}
	at := 0
	if step, ok := c.Step(a.Baseline.Reached); ok && step.Ladder == ladder {
		at = min(step.Place+1, len(l.Steps)-1)
	}
	switch arousal := a.Baseline.Arousal.Int(); {
	case arousal >= 3:
		at -= 2
	case arousal == 2:
		at--
	}
	blocked := map[string]bool{}
	for _, b := range Blocks(c, a) {
		blocked[b.Step] = true
	}
	for at = max(at, 0); at >= 0; at-- {
		if key := l.Steps[at].Key; !blocked[key] && l.Steps[at].Link == "" {
			return key, true
		}
	}
	if n := len(l.StandsOn); n > 0 {
		return l.StandsOn[n-1].Step, true
	}
	return "", false
}

// Unlooked lists the sections of this slice that were not looked at; they are
// never shown as clear.
func (a Assessment) Unlooked() []phrase.Message {
	var gaps []phrase.Message
	if a.Story.Began.IsZero() {
		gaps = append(gaps, phrase.Of("unlooked.began", nil))
	}
	if a.Story.Tries == nil || a.Story.Successes == nil {
		gaps = append(gaps, phrase.Of("unlooked.tries", nil))
	}
	for _, item := range (horse.BodyItem{}).All() {
		if a.BodyOf(item) == horse.NotLookedAt {
			gaps = append(gaps, phrase.Of("unlooked.body", phrase.Args{"item": item.String()}))
		}
	}
	if !a.Baseline.Done {
		gaps = append(gaps, phrase.Of("unlooked.baseline", nil))
	}
	return gaps
}
