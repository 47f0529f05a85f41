// Package arena is the session as it happens: the track of entries (part 6),
// the advice after each of them, when a session may start, and how far each
// step has come. Nothing here reads a clock: time is an argument, in
// milliseconds since 1970, UTC.
package arena

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

type kinds struct{}

func (kinds) Words() []string {
	return []string{"rep", "mark", "undo", "advice", "end", "dose", "offer", "spell", "burst", "interruption", "memory"}
}

// Kind says what an entry is.
type Kind = horse.Word[kinds]

// The kinds of entry. Undo voids the entry it replaces; a rep or mark that
// replaces another corrects it; advice is what was shown, and stands.
var (
	KindRep    = horse.MustWord[kinds]("rep")
	KindMark   = horse.MustWord[kinds]("mark")
	KindUndo   = horse.MustWord[kinds]("undo")
	KindAdvice = horse.MustWord[kinds]("advice")
	KindEnd    = horse.MustWord[kinds]("end")

	KindDose         = horse.MustWord[kinds]("dose")
	KindOffer        = horse.MustWord[kinds]("offer")
	KindSpell        = horse.MustWord[kinds]("spell")
	KindBurst        = horse.MustWord[kinds]("burst")
	KindInterruption = horse.MustWord[kinds]("interruption")
	KindMemory       = horse.MustWord[kinds]("memory")
)

// An Entry is one line of the track. Its id is made where it was tapped.
type Entry struct {
	ID       string `json:"id" format:"uuid" doc:"made by the device, UUIDv7"`
	Kind     Kind   `json:"kind" doc:"what the entry is"`
	At       int64  `json:"at" minimum:"0" doc:"when, milliseconds since 1970 UTC, by the device's clock"`
	Device   string `json:"device,omitempty" maxLength:"60" doc:"which device wrote it"`
	Seq      int64  `json:"seq,omitempty" minimum:"0" doc:"the device's own count of entries"`
	Replaces string `json:"replaces,omitempty" maxLength:"60" doc:"id of the entry it undoes or corrects"`
	Rep      *Rep   `json:"rep,omitempty"`
	Mark     *Mark  `json:"mark,omitempty"`
	Shown    *Shown `json:"shown,omitempty"`

	Dose         *Dose         `json:"dose,omitempty"`
	Offer        *Offer        `json:"offer,omitempty"`
	Spell        *Spell        `json:"spell,omitempty"`
	Burst        *Burst        `json:"burst,omitempty"`
	Interruption *Interruption `json:"interruption,omitempty"`
	Memory       *Memory       `json:"memory,omitempty"`

	Note string `json:"note,omitempty" maxLength:"2000" doc:"how it ended, or anything else"`
}

// A Rep is one ask: pressure, answer, release (part 6). Only step and answer
// must be given; the rest is filled from what is known.
type Rep struct {
	horse.Ask
	Answer      horse.Answer      `json:"answer" doc:"what the horse did"`
	Manner      horse.Manner      `json:"manner,omitzero" doc:"how it was tolerated; else by face and ears"`
	Aid         horse.Aid         `json:"aid,omitzero"`
	Means       int               `json:"means,omitempty" minimum:"0" maximum:"9" doc:"which of the step's means, from 1"`
	Form        horse.Form        `json:"form,omitzero"`
	Seconds     float64           `json:"seconds,omitempty" minimum:"0" maximum:"7200" doc:"seconds of pressure"`
	ToTry       *float64          `json:"to_try,omitempty" minimum:"0" maximum:"7200" doc:"seconds to the first try"`
	Brought     horse.Level       `json:"brought,omitzero" doc:"level the horse brings"`
	Start       horse.Level       `json:"start,omitzero" doc:"level the ask began at"`
	First       horse.Level       `json:"first,omitzero" doc:"level at the first sign"`
	Peak        horse.Level       `json:"peak,omitzero" doc:"level at the finish"`
	InWords     bool              `json:"in_words,omitempty" doc:"entered as light, medium or firm"`
	Target      int               `json:"target,omitempty" minimum:"0" maximum:"10000000" doc:"the hold, count or distance asked, in the step's unit"`
	Reached     *int              `json:"reached,omitempty" minimum:"0" maximum:"10000000" doc:"what it came to, in the same unit"`
	Corrections int               `json:"corrections,omitempty" minimum:"0" maximum:"99"`
	Pulses      horse.Pulses      `json:"pulses,omitzero"`
	Tries       []Try             `json:"tries,omitempty" maxItems:"200" doc:"small releases inside a held ask"`
	Kicks       *int              `json:"kicks,omitempty" minimum:"0" maximum:"10" doc:"kicks at the tool, per 10 touches"`
	Release     horse.Release     `json:"release,omitzero" doc:"when; empty: on the try"`
	Released    horse.ReleaseSize `json:"released,omitzero" doc:"how big"`
	Arousal     horse.Arousal     `json:"arousal,omitzero" doc:"after the rep; empty: as before"`
	Face        horse.Face        `json:"face,omitzero"`
	Signs       []horse.Sign      `json:"signs,omitempty" maxItems:"20"`
	WaysOut     []horse.WayOut    `json:"ways_out,omitempty" maxItems:"20"`
	Held        horse.Held        `json:"held,omitzero"`
	From        horse.CameFrom    `json:"came_from,omitzero" doc:"from where it was come to the horse"`
	EndedBy     horse.EndedBy     `json:"ended_by,omitzero"`
	Handler     string            `json:"handler,omitempty" maxLength:"60" doc:"who holds the rope"`
	Flags       []horse.Flag      `json:"flags,omitempty" maxItems:"6"`
}

// A Mark is anything that is no rep: how the horse is, a stop reason, a new
// ask, easy time, a bump (part 6).
type Mark struct {
	Arousal     horse.Arousal  `json:"arousal,omitzero"`
	Signs       []horse.Sign   `json:"signs,omitempty" maxItems:"20"`
	WaysOut     []horse.WayOut `json:"ways_out,omitempty" maxItems:"20"`
	Stop        horse.Stop     `json:"stop,omitzero" doc:"a reason that ends the session"`
	Ask         *horse.Ask     `json:"ask,omitempty" doc:"the ask is changed to this"`
	EasyMinutes int            `json:"easy_minutes,omitempty" minimum:"0" maximum:"600" doc:"easy riding or handling, not schooling"`
	Bump        bool           `json:"bump,omitempty" doc:"bit on teeth, fall, fright, slip"`
	Halter      bool           `json:"halter,omitempty" doc:"halter refitted"`
	Incident    bool           `json:"incident,omitempty" doc:"the note is an incident note"`
	Turn        string         `json:"turn,omitempty" maxLength:"60" doc:"who holds the rope from here on"`
	Tack        string         `json:"tack,omitempty" maxLength:"60" doc:"tack was changed to this"`
	Clip        bool           `json:"clip,omitempty" doc:"a clip was filmed from here"`
}

// Shown is a piece of advice as it was shown, and whether it was overruled.
type Shown struct {
	After     string    `json:"after,omitempty" maxLength:"60" doc:"id of the entry it followed"`
	Action    Action    `json:"action"`
	Rule      string    `json:"rule" maxLength:"20"`
	Next      horse.Ask `json:"next,omitzero"`
	Otherwise bool      `json:"otherwise,omitempty" doc:"the trainer did otherwise"`
	Known     int       `json:"known,omitempty" minimum:"0" doc:"how many answers and marks stood when it was shown"`
	Reason    string    `json:"reason,omitempty" maxLength:"500"`
}

// Check says what is wrong with an entry before it is kept, or nil.
func (e Entry) Check(c *catalog.Catalog) error {
	has := func(what string, ok bool) error {
		if !ok {
			return fmt.Errorf("a %s entry needs its %s", e.Kind, what)
		}
		return nil
	}
	if e.ID == "" {
		return fmt.Errorf("an entry needs an id")
	}
	if utf8.RuneCountInString(e.Note) > 2000 {
		return fmt.Errorf("a note has 2000 characters at most")
	}
	if e.Replaces == e.ID {
		return fmt.Errorf("an entry can't replace itself")
	}
	switch e.Kind {
	case KindRep:
		if err := has("rep", e.Rep != nil); err != nil {
			return err
		}
		return e.Rep.check(c)
	case KindMark:
		if err := has("mark", e.Mark != nil); err != nil {
			return err
		}
		if a := e.Mark.Ask; a != nil && !c.HasAsk(*a) {
			return fmt.Errorf("%q is not an ask of the catalogue", a)
		}
		return nil
	case KindUndo:
		return has("replaces", e.Replaces != "")
	case KindAdvice:
		return has("shown", e.Shown != nil && !e.Shown.Action.IsZero())
	case KindEnd:
		return nil
	case KindDose, KindOffer, KindSpell, KindBurst, KindInterruption, KindMemory:
		return e.checkAnswered(c)
	}
	return fmt.Errorf("an entry needs a kind: %s", strings.Join(kinds{}.Words(), ", "))
}

func (r Rep) check(c *catalog.Catalog) error {
	step, ok := c.Step(r.Step)
	switch {
	case !ok || step.Link != "":
		return fmt.Errorf("%q is not a step of the catalogue", r.Step)
	case !c.HasAsk(r.Ask) && !r.Variant.IsZero():
		return fmt.Errorf("%q has no variant %q", r.Step, r.Variant)
	case r.Answer.IsZero():
		return fmt.Errorf("a rep needs its answer: refused, try, tolerated, accepted or offered")
	case r.Seconds < 0 || r.Seconds > 7200:
		return fmt.Errorf("seconds of pressure are from 0 to 7200, not %v", r.Seconds)
	case r.ToTry != nil && (*r.ToTry < 0 || *r.ToTry > 7200):
		return fmt.Errorf("seconds to the try are from 0 to 7200, not %v", *r.ToTry)
	case r.Target < 0 || r.Reached != nil && *r.Reached < 0 || r.Corrections < 0:
		return fmt.Errorf("a hold, count or distance is 0 or more")
	case r.Kicks != nil && (*r.Kicks < 0 || *r.Kicks > 10):
		return fmt.Errorf("kicks are counted per 10 touches, from 0 to 10")
	}
	return nil
}

// Order sorts a track by time, then device, then the device's own count.
func Order(track []Entry) {
	slices.SortStableFunc(track, before)
}

// before compares the places of two entries on a track.
func before(a, b Entry) int {
	return cmp.Or(cmp.Compare(a.At, b.At), cmp.Compare(a.Device, b.Device), cmp.Compare(a.Seq, b.Seq))
}

// standing tells for each entry whether it stands: not undone, or its undo
// undone in turn.
func standing(track []Entry) []bool {
	undos := map[string][]int{}
	for i, e := range track {
		if e.Kind == KindUndo {
			undos[e.Replaces] = append(undos[e.Replaces], i)
		}
	}
	const (
		_ = iota // not judged yet
		judging
		good
		void
	)
	state := make([]int8, len(track))
	var stands func(i int) bool
	stands = func(i int) bool {
		switch state[i] {
		case judging, void:
			return false
		case good:
			return true
		}
		state[i] = judging
		for _, u := range undos[track[i].ID] {
			if stands(u) {
				state[i] = void
				return false
			}
		}
		state[i] = good
		return true
	}
	all := make([]bool, len(track))
	for i := range track {
		all[i] = stands(i)
	}
	return all
}

// Recent lists the newest n entries that stand, corrections among them, newest
// first; undo and shown advice are left out. It is what undo goes back over.
func Recent(track []Entry, n int) []Entry {
	stands := standing(track)
	var recent []Entry
	for i, e := range slices.Backward(track) {
		if stands[i] && e.Kind != KindUndo && e.Kind != KindAdvice && len(recent) < n {
			recent = append(recent, e)
		}
	}
	return recent
}

// Live resolves undo and correction: what is left of the track, in its order,
// each corrected entry standing at the original's place with the newest
// correction's content. An undo of an undo brings the entry back. A
// correction whose original is not there yet waits.
func Live(track []Entry) []Entry {
	byID := make(map[string]int, len(track))
	for i, e := range track {
		byID[e.ID] = i
	}
	stands := standing(track)
	corrected := map[string]Entry{}
	for i, e := range track {
		if e.Replaces == "" || e.Kind == KindUndo || !stands[i] {
			continue
		}
		root, hops := i, 0
		for track[root].Replaces != "" && hops <= len(track) {
			next, there := byID[track[root].Replaces]
			if !there {
				break
			}
			root, hops = next, hops+1
		}
		if root != i && track[root].Replaces == "" {
			corrected[track[root].ID] = e
		}
	}
	var live []Entry
	for i, e := range track {
		if e.Kind == KindUndo || e.Replaces != "" || !stands[i] {
			continue
		}
		if c, ok := corrected[e.ID]; ok {
			c.ID, c.At, c.Device, c.Seq, c.Replaces = e.ID, e.At, e.Device, e.Seq, ""
			e = c
		}
		live = append(live, e)
	}
	return live
}
