// Package track is what happened in a session, as it was logged (part 6): the
// entries and their kinds, what can't be in one, their order, and which of them
// stand once undo and correction are resolved. It knows nothing of what is advised.
//
// A track is read by Order, then Live; what an entry counts as is AsRep.
package track

import (
	"ivorybridge/core/catalog"
	"ivorybridge/core/gait"
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
	At       int64  `json:"at" minimum:"0" maximum:"7258118400000" doc:"when, milliseconds since 1970 UTC, by the device's clock"`
	Device   string `json:"device,omitempty" maxLength:"60" doc:"which device wrote it"`
	Seq      int64  `json:"seq,omitempty" minimum:"0" doc:"the device's own count of entries"`
	Replaces string `json:"replaces,omitempty" maxLength:"60" doc:"id of the entry it undoes or corrects"`
	Rep      *Rep   `json:"rep,omitempty" doc:"with kind rep: one ask"`
	Mark     *Mark  `json:"mark,omitempty" doc:"with kind mark: what was seen between asks"`
	Shown    *Shown `json:"shown,omitempty" doc:"with kind advice: what was shown"`

	Dose         *Dose         `json:"dose,omitempty" doc:"with kind dose: a stimulus on until it stands; without an answer, one that had to go on while the horse moved is refused, any other accepted"`
	Offer        *Offer        `json:"offer,omitempty" doc:"with kind offer: a question in ask and listen"`
	Spell        *Spell        `json:"spell,omitempty" doc:"with kind spell: work or rest in a place"`
	Burst        *Burst        `json:"burst,omitempty" doc:"with kind burst: many asks seconds apart"`
	Interruption *Interruption `json:"interruption,omitempty" doc:"with kind interruption: an unasked behaviour that was stopped"`
	Memory       *Memory       `json:"memory,omitempty" doc:"with kind memory: one ask written down afterwards; it tells how far the ask came and that it was worked, and is not counted"`

	Note string `json:"note,omitempty" maxLength:"2000" doc:"how it ended, or anything else"`
}

// A Rep is one ask: pressure, answer, release (part 6). Only step and answer
// must be given; the rest is filled from what is known.
type Rep struct {
	horse.Ask
	Answer      horse.Answer      `json:"answer" doc:"what the horse did"`
	Manner      horse.Manner      `json:"manner,omitzero" doc:"how it was tolerated; else by face and ears"`
	Aid         horse.Aid         `json:"aid,omitzero" doc:"what asked"`
	Means       int               `json:"means,omitempty" minimum:"0" maximum:"9" doc:"which of the step's means, from 1"`
	Form        horse.Form        `json:"form,omitzero" doc:"how the pressure was put on"`
	Seconds     float64           `json:"seconds,omitempty" minimum:"0" maximum:"7200" doc:"seconds of pressure"`
	ToTry       *float64          `json:"to_try,omitempty" minimum:"0" maximum:"7200" doc:"seconds to the first try"`
	Brought     horse.Level       `json:"brought,omitzero" doc:"level the horse brings"`
	Start       horse.Level       `json:"start,omitzero" doc:"level the ask began at"`
	First       horse.Level       `json:"first,omitzero" doc:"level at the first sign"`
	Peak        horse.Level       `json:"peak,omitzero" doc:"level at the finish"`
	InWords     bool              `json:"in_words,omitempty" doc:"entered as light, medium or firm"`
	Target      int               `json:"target,omitempty" minimum:"0" maximum:"10000000" doc:"the hold, count or distance asked, in the step's unit"`
	Reached     *int              `json:"reached,omitempty" minimum:"0" maximum:"10000000" doc:"what it came to, in the same unit"`
	Corrections int               `json:"corrections,omitempty" minimum:"0" maximum:"99" doc:"corrections during a hold"`
	Pulses      horse.Pulses      `json:"pulses,omitzero" doc:"pulses until the try"`
	Tries       []Try             `json:"tries,omitempty" maxItems:"200" doc:"small releases inside a held ask"`
	Kicks       *int              `json:"kicks,omitempty" minimum:"0" maximum:"10" doc:"kicks at the tool, per 10 touches"`
	Release     horse.Release     `json:"release,omitzero" doc:"when; empty: on the try"`
	Released    horse.ReleaseSize `json:"released,omitzero" doc:"how big"`
	Arousal     horse.Arousal     `json:"arousal,omitzero" doc:"after the rep; empty: as before"`
	Face        horse.Face        `json:"face,omitzero" doc:"0 easy, 1 turns to look, 2 ears tip back, 3 muzzle towards the person, 4 bites"`
	Signs       []horse.Sign      `json:"signs,omitempty" maxItems:"20" doc:"what was seen of its mind"`
	WaysOut     []horse.WayOut    `json:"ways_out,omitempty" maxItems:"20" doc:"how it left the ask"`
	Held        horse.Held        `json:"held,omitzero" doc:"how the horse was held"`
	From        horse.CameFrom    `json:"came_from,omitzero" doc:"from where it was come to the horse"`
	EndedBy     horse.EndedBy     `json:"ended_by,omitzero" doc:"who ended it"`
	Handler     string            `json:"handler,omitempty" maxLength:"60" doc:"who holds the rope"`
	LetDown     *float64          `json:"let_down,omitempty" minimum:"0" maximum:"7200" doc:"seconds from the release until the whole body let down"`
	Place       horse.BodyPlace   `json:"place,omitzero" doc:"where on the body it was"`
	Spot        string            `json:"spot,omitempty" maxLength:"60" doc:"the named place that was passed"`
	Heading     horse.Heading     `json:"heading,omitzero" doc:"in which direction it was passed"`
	Drawn       int               `json:"drawn,omitempty" minimum:"0" maximum:"99" doc:"how often it tried to turn to it"`
	Trial       *Trial            `json:"trial,omitempty" doc:"on a review: what was looked at or changed; it answers where no answer is given"`
	Thing       string            `json:"thing,omitempty" maxLength:"60" doc:"the thing it was asked with, on a ladder that is about one"`
	Flags       []horse.Flag      `json:"flags,omitempty" maxItems:"6" doc:"why it may not count"`
}

// A Mark is anything that is no rep: how the horse is, a stop reason, a new
// ask, easy time, a bump (part 6).
type Mark struct {
	Arousal     horse.Arousal   `json:"arousal,omitzero" doc:"from now on"`
	Signs       []horse.Sign    `json:"signs,omitempty" maxItems:"20" doc:"what was seen of its mind"`
	WaysOut     []horse.WayOut  `json:"ways_out,omitempty" maxItems:"20" doc:"what it did unasked"`
	Stop        horse.Stop      `json:"stop,omitzero" doc:"a reason that ends the session"`
	Ask         *horse.Ask      `json:"ask,omitempty" doc:"the ask is changed to this"`
	New         *catalog.OwnAsk `json:"new,omitempty" doc:"an own ask, from here on one of this horse's"`
	Why         string          `json:"why,omitempty" maxLength:"200" doc:"why it is asked although it waits for something"`
	Despite     *Despite        `json:"despite,omitempty" doc:"it is asked although a fact or a danger speaks against it"`
	School      horse.School    `json:"school,omitzero" doc:"from here on the ladder at work is worked in this school"`
	Plan        int64           `json:"plan,omitempty" minimum:"0" doc:"from here on it is worked by the plan made then, ms"`
	EasyMinutes int             `json:"easy_minutes,omitempty" minimum:"0" maximum:"600" doc:"easy riding or handling, not schooling"`
	Bump        bool            `json:"bump,omitempty" doc:"bit on teeth, fall, fright, slip"`
	Halter      bool            `json:"halter,omitempty" doc:"halter refitted"`
	Incident    bool            `json:"incident,omitempty" doc:"the note is an incident note"`
	Turn        string          `json:"turn,omitempty" maxLength:"60" doc:"who holds the rope from here on"`
	Tack        string          `json:"tack,omitempty" maxLength:"60" doc:"tack was changed to this"`
	Place       string          `json:"place,omitempty" maxLength:"60" doc:"it is worked here from now on"`
	Company     string          `json:"company,omitempty" maxLength:"60" doc:"who is with it from now on"`
	Distraction string          `json:"distraction,omitempty" maxLength:"60" doc:"what draws its eye from now on"`
	Walk        *Walk           `json:"walk,omitempty" doc:"a button of an outing"`
	Mind        horse.Attention `json:"mind,omitzero" doc:"a sample of where its mind is"`
	Spooked     bool            `json:"spooked,omitempty" doc:"it spooked"`
	Clip        bool            `json:"clip,omitempty" doc:"a clip was filmed from here"`
	Footfall    *Footfall       `json:"footfall,omitempty" doc:"the hooves as they landed, tapped while it went, or what the eye says"`
}

// Footfall is an ask in which the hooves were tapped as they landed, or in which somebody
// who could not tap saw four even beats.
type Footfall struct {
	horse.Ask
	gait.Taps
	Eye bool `json:"eye,omitempty" doc:"four even beats were seen, and nothing was tapped"`
}

// Despite is who answers for an ask that a body item, a rule for this horse or a
// danger speaks against, and why it is asked all the same (part 6, "Any ask can be
// logged"). Only a lead trainer gives it.
type Despite struct {
	Reason  string `json:"reason" minLength:"1" maxLength:"200" doc:"why"`
	Answers string `json:"answers" minLength:"1" maxLength:"120" doc:"who answers for it: the vet released it, seen by somebody, or the trainer's own decision"`
}

// Shown is a piece of advice as it was shown, and whether it was overruled.
type Shown struct {
	After     string    `json:"after,omitempty" maxLength:"60" doc:"id of the entry it followed"`
	Action    Action    `json:"action" doc:"what was advised"`
	Rule      string    `json:"rule" maxLength:"20" doc:"number or name of the rule that advised it"`
	Next      horse.Ask `json:"next,omitzero" doc:"the ask it was advised for"`
	Otherwise bool      `json:"otherwise,omitempty" doc:"the trainer did otherwise"`
	Known     int       `json:"known,omitempty" minimum:"0" doc:"how many answers and marks stood when it was shown"`
	Reason    string    `json:"reason,omitempty" maxLength:"500" doc:"why the trainer did otherwise"`
}

// Own lists the own asks that entries bring, those that can't be left out.
func Own(entries []Entry) []catalog.OwnAsk {
	var asks []catalog.OwnAsk
	for _, e := range entries {
		if e.Mark != nil && e.Mark.New != nil && e.Mark.New.Check() == nil {
			asks = append(asks, *e.Mark.New)
		}
	}
	return asks
}
