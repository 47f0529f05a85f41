// Package assess judges an assessment (part 3): what is probably behind a
// behaviour and what speaks for and against it, how dangerous the work is and
// which precautions that brings, whom to ask first, what the body blocks, and
// where and in which school to start.
//
// An assessment is of one horse on one day. It is a document that grows tap by
// tap: a Mark puts one value in its place, and Fold makes the document from
// the marks. What nobody looked at is absent from it, and is never judged
// clear.
package assess

import (
	"maps"
	"strings"

	"ivorybridge/core/horse"
)

// Assessment is one horse on one day, sections A to H (part 3).
type Assessment struct {
	From      horse.Source                `json:"from,omitzero" doc:"where the findings come from unless they say; empty: seen in person, and told in section A"`
	Sources   map[string]horse.Source     `json:"sources,omitempty" doc:"by section, where it is another"`
	Problems  map[horse.Problem]Account   `json:"problems,omitempty" doc:"A, E and E2 of each problem"`
	Events    map[string]Event            `json:"events,omitempty" doc:"dangerous things that happened, by an id of the device"`
	Ways      map[string][]horse.WayOut   `json:"ways_out,omitempty" doc:"ways out seen in C, D and F, by section; those of E stand with the problem"`
	Body      map[horse.BodyItem]BodyNote `json:"body,omitempty" doc:"B"`
	Checkups  Checkups                    `json:"checkups,omitzero" doc:"B: dates of the last care"`
	Tack      Tack                        `json:"tack,omitzero" doc:"C: what is on the horse"`
	First     FirstLook                   `json:"first_look,omitzero" doc:"C: the horse with its usual person, nobody interfering"`
	Findings  map[string]horse.Source     `json:"findings,omitempty" doc:"findings ticked in B, C, D, F, G, by key"`
	Looked    map[horse.Look]horse.Source `json:"looked,omitempty" doc:"looks taken that found nothing of their list"`
	NotYet    bool                        `json:"not_possible_yet,omitempty" doc:"D: cannot be caught or haltered"`
	Basics    map[string]Basic            `json:"basics,omitempty" doc:"D and D2, by test and side"`
	Zones     map[Spot]Touch              `json:"zones,omitempty" doc:"D: touched all over"`
	Mind      Mind                        `json:"mind,omitzero" doc:"F"`
	Place     Place                       `json:"place,omitzero" doc:"G"`
	Handlers  map[string]Handler          `json:"handlers,omitempty" doc:"H: who will handle the horse, by an id of the device"`
	Referrals map[string]Asked            `json:"referrals,omitempty" doc:"what was asked of professionals, by the referral's key"`
	Overruled map[string]Overruling       `json:"overruled,omitempty" doc:"results the trainer judges otherwise"`
}

// Account is what is told and tried of one problem: sections A, E and E2.
type Account struct {
	Story    Story                       `json:"story,omitzero" doc:"what the owner tells"`
	Baseline Baseline                    `json:"baseline,omitzero" doc:"the problem as it was met"`
	Swap     map[SwapRun]Run             `json:"swap,omitempty" doc:"the swap test, by who held the rope"`
	SwapRows []SwapRow                   `json:"swap_rows,omitempty" maxItems:"6" doc:"the swap row by row, where one thing was changed at a time; the first is the usual person in the usual tack"`
	Findings map[string]horse.Source     `json:"findings,omitempty" doc:"findings ticked in A, E and G, by key"`
	Looked   map[horse.Look]horse.Source `json:"looked,omitempty" doc:"looks taken that found nothing of their list"`
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
	Description string `json:"description,omitempty" maxLength:"2000" doc:"what happens, in the owner's words"`
	Since       string `json:"since,omitempty" maxLength:"10" doc:"YYYY-MM-DD"`
	Began       Began  `json:"began,omitzero" doc:"when it began"`
	Tries       *int   `json:"tries,omitempty" doc:"how often it was tried of late"`
	Successes   *int   `json:"successes,omitempty" doc:"how often it went well"`
	UsualMin    *int   `json:"usual_minutes,omitempty" doc:"minutes it usually takes"`
	WorstMin    *int   `json:"worst_minutes,omitempty" doc:"minutes it took at worst"`
	WithWhom    string `json:"with_whom,omitempty" maxLength:"200" doc:"with whom it happens"`
	Where       string `json:"where,omitempty" maxLength:"200" doc:"where it happens"`
	Done        []Done `json:"done,omitempty" maxItems:"6" doc:"what people did about it"`
	Tried       string `json:"tried,omitempty" maxLength:"1000" doc:"what else was tried"`
	Sent        string `json:"sent,omitempty" maxLength:"300" doc:"how it is lunged or sent"`
	Helpers     *int   `json:"helpers,omitempty" doc:"how many people helped"`
	Goal        string `json:"goal,omitempty" maxLength:"300" doc:"one checkable sentence"`
	NeededBy    string `json:"needed_by,omitempty" maxLength:"10" doc:"day by which the owner needs it"`
	WhoAlone    string `json:"who_alone,omitempty" maxLength:"200" doc:"who must be able to do it alone"`
}

// Baseline is section E: the problem itself, once, low.
type Baseline struct {
	Done     bool           `json:"done,omitempty" doc:"it was asked"`
	Reached  string         `json:"reached,omitempty" maxLength:"60" doc:"last step of an unbroken run of accepted ones; empty: none"`
	WaysOut  []horse.WayOut `json:"ways_out,omitempty" maxItems:"20" doc:"how it left the ask"`
	Arousal  horse.Arousal  `json:"arousal,omitzero" doc:"peak"`
	Recovery *int           `json:"recovery_s,omitempty" doc:"seconds from the peak until back at 1 or 0"`
	Minutes  *int           `json:"minutes,omitempty" doc:"time in all"`
	Tries    *int           `json:"tries,omitempty" doc:"how often it was tried"`
	Note     string         `json:"note,omitempty" maxLength:"1000" doc:"anything else seen"`
	Anew     bool           `json:"anew,omitempty" doc:"noted in this assessment, not only carried over from the one before"`
}

// Asked reports whether the problem was asked once.
func (b Baseline) Asked() bool {
	return b.Done || b.Reached != "" || b.Arousal.Noted() || len(b.WaysOut) > 0
}

type looks struct{}

func (looks) Words() []string { return []string{"soft look", "warning look"} }

// LookGiven is how the horse looks at the handler (part 2).
type LookGiven = horse.Word[looks]

type stills struct{}

func (stills) Words() []string { return []string{"when held only", "when free"} }

// Still says when the horse stands still.
type Still = horse.Word[stills]

// Mind is section F, beyond its findings.
type Mind struct {
	Look  LookGiven `json:"look,omitzero" doc:"the look it gives"`
	Still Still     `json:"still,omitzero" doc:"how it stands still"`
	Down  *int      `json:"down_s,omitempty" doc:"comes down in so many seconds"`
}

func (m Mind) warns() bool { return m.Look.String() == "warning look" }

type pulls struct{}

func (pulls) Words() []string { return []string{"place", "feed", "one companion", "group"} }

// Pull is what draws the horse (section G).
type Pull = horse.Word[pulls]

type floors struct{}

func (floors) Words() []string { return []string{"hollow sound", "gives way", "neither matters"} }

// Floor is what matters of the floor under it (section G).
type Floor = horse.Word[floors]

// Place is section G, beyond its findings.
type Place struct {
	Pulls   []Pull  `json:"pulls,omitempty" maxItems:"4" doc:"what draws it away"`
	Floor   []Floor `json:"floor,omitempty" maxItems:"3" doc:"the ground"`
	Worse   string  `json:"worse,omitempty" maxLength:"300" doc:"where or when it is worse"`
	Herd    string  `json:"herd,omitempty" maxLength:"300" doc:"herd and stable life"`
	Changes string  `json:"changes,omitempty" maxLength:"300" doc:"changes lately"`
}

type steadies struct{}

func (steadies) Words() []string { return []string{"steady", "unsteady"} }

// Steadiness of a handler (section H).
type Steadiness = horse.Word[steadies]

// Handler is a person who will handle the horse (section H).
type Handler struct {
	Name       string           `json:"name,omitempty" maxLength:"120" doc:"who"`
	Main       bool             `json:"main,omitempty" doc:"handles it most"`
	Experience horse.Experience `json:"experience,omitzero" doc:"how much they have done with horses"`
	Steadiness Steadiness       `json:"steadiness,omitzero" doc:"how they are with this horse"`
	Shoulder   bool             `json:"shoulder,omitempty" doc:"a shoulder injury: no arm over the neck when bridling"`
	Note       string           `json:"note,omitempty" maxLength:"300" doc:"strength, injuries that matter, what they do"`
}

// About is the assessment with these problems in it, looked at or not.
func (a Assessment) About(problems ...horse.Problem) Assessment {
	all := maps.Clone(a.Problems)
	if all == nil {
		all = map[horse.Problem]Account{}
	}
	for _, p := range problems {
		if _, ok := all[p]; !ok {
			all[p] = Account{}
		}
	}
	a.Problems = all
	return a
}

// ExperienceOf is the experience of a person who was looked at as a handler; of
// another it is the main handler's.
func (a Assessment) ExperienceOf(person string) horse.Experience {
	if h, ok := a.Handlers[person]; ok && !h.Experience.IsZero() {
		return h.Experience
	}
	return a.Main()
}

// Main is the experience of the main handler: the one named so, else the least
// experienced of those written down; zero if nobody is.
func (a Assessment) Main() horse.Experience {
	var main horse.Experience
	for _, h := range a.Handlers {
		if h.Main && !h.Experience.IsZero() {
			return h.Experience
		}
		if main.IsZero() || !h.Experience.IsZero() && h.Experience.Rank() < main.Rank() {
			main = h.Experience
		}
	}
	return main
}

// Overruling is a result that the trainer judges otherwise; both are kept.
type Overruling struct {
	To     string `json:"to" maxLength:"60" doc:"the trainer's own judgement"`
	Reason string `json:"reason" maxLength:"500" doc:"why, in the trainer's words"`
}

// source is where a section's findings come from, as the section or else the
// assessment says: if neither does, section A is told, all else seen in person.
func (a Assessment) source(l horse.Look) horse.Source {
	section, _, _ := strings.Cut(l.String(), ".")
	return a.SourceIn(section)
}

// SourceIn is where what a section noted comes from.
func (a Assessment) SourceIn(section string) horse.Source {
	switch said := a.Sources[section]; {
	case !said.IsZero():
		return said
	case section == "A":
		return horse.Told
	case a.From.IsZero():
		return horse.Seen
	}
	return a.From
}
