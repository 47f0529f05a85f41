package track

import (
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// A Try is a small release inside a held ask: a hind foot moved, and the feel
// was off for a moment.
type Try struct {
	At   int64  `json:"at" minimum:"0" maximum:"7258118400000" doc:"when, ms"`
	What string `json:"what,omitempty" maxLength:"60" doc:"what moved"`
}

// A Trial is one thing of a review: as it was on, and what one change of it brought
// (part 5, the reviews of tack and aids). Without a change it was found right.
type Trial struct {
	What    horse.TackItem `json:"what" doc:"what was looked at"`
	Was     string         `json:"was,omitempty" maxLength:"120" doc:"what was on"`
	Changed string         `json:"changed,omitempty" maxLength:"120" doc:"the one change; empty: right as it is"`
	Milder  bool           `json:"milder,omitempty" doc:"milder than what was on"`
	Seconds int            `json:"seconds,omitempty" minimum:"0" maximum:"36000" doc:"how long it was tried"`
	Saw     string         `json:"saw,omitempty" maxLength:"300" doc:"what was seen"`
	Verdict horse.Verdict  `json:"verdict,omitzero" doc:"how it went with the change"`
}

// answer is what a trial comes to: right as it was, or better, is accepted; a milder
// change that takes nothing away is too.
func (t Trial) answer() horse.Answer {
	switch {
	case t.Changed == "" || t.Verdict == horse.Better:
		return horse.Accepted
	case t.Verdict == horse.Worse:
		return horse.Refused
	case t.Milder && !t.Verdict.IsZero():
		return horse.Accepted
	}
	return horse.Try
}

// answered is the rep with the answer that its trial comes to, where none is given.
func (r Rep) answered() Rep {
	if r.Trial != nil && r.Answer.IsZero() {
		r.Answer = r.Trial.answer()
	}
	return r
}

// A Dose is a stimulus that stays on until the horse stands (part 6). It holds
// what a rep holds; Target is the dose planned. Without an answer, a dose that
// had to go on while it moved is refused, any other accepted.
type Dose struct {
	Rep
	Given int `json:"given,omitempty" minimum:"0" maximum:"100000" doc:"dose given until it stood"`
	Steps int `json:"steps,omitempty" minimum:"0" maximum:"10000" doc:"steps it took"`

	Stood horse.Answer `json:"stood,omitzero" doc:"how it stood in the end; counts where it had not moved"`
}

// Moved reports whether the horse moved off under the dose.
func (d Dose) Moved() bool { return d.Steps > 0 || d.Given > d.Target && d.Target > 0 }

func (d Dose) rep() Rep {
	r := d.Rep
	switch {
	case !r.Answer.IsZero():
	case d.Moved():
		r.Answer = horse.Refused
	case !d.Stood.IsZero():
		r.Answer = d.Stood
	default:
		r.Answer = horse.Accepted
	}
	if d.Given > 0 && !d.Moved() {
		if r.Target == 0 {
			r.Target = d.Given
		}
		if r.Reached == nil {
			r.Reached = &d.Given
		}
	}
	return r
}

type offers struct{}

func (offers) Words() []string { return []string{"came", "stayed", "hesitated", "left"} }

// Offered is what the horse did of its own will (part 6).
type Offered = horse.Word[offers]

// The answers to an offer.
var (
	Came      = horse.MustWord[offers]("came")
	Stayed    = horse.MustWord[offers]("stayed")
	Hesitated = horse.MustWord[offers]("hesitated")
	Left      = horse.MustWord[offers]("left")
)

// An Offer is one question in ask and listen: came and stayed are accepted,
// hesitated a try, left a no.
type Offer struct {
	horse.Ask
	From    string         `json:"from,omitempty" maxLength:"60" doc:"distance or object"`
	To      string         `json:"to,omitempty" maxLength:"60" doc:"distance or object it went to"`
	Quarter horse.CameFrom `json:"came_from,omitzero" doc:"from where it was come to the horse"`
	Answer  Offered        `json:"answer" doc:"what the horse did"`
	Arousal horse.Arousal  `json:"arousal,omitzero" doc:"after it"`
	Signs   []horse.Sign   `json:"signs,omitempty" maxItems:"20" doc:"what was seen of its mind"`
	WaysOut []horse.WayOut `json:"ways_out,omitempty" maxItems:"20" doc:"how it left the ask"`
	Handler string         `json:"handler,omitempty" maxLength:"60" doc:"who held the rope; empty: who began the session"`
	Flags   []horse.Flag   `json:"flags,omitempty" maxItems:"6" doc:"why it may not count"`
}

func (o Offer) rep() Rep {
	r := Rep{Ask: o.Ask, Answer: horse.Accepted, Peak: horse.LevelOf(1), Arousal: o.Arousal, From: o.Quarter, Signs: o.Signs, WaysOut: o.WaysOut, Handler: o.Handler, Flags: o.Flags}
	switch o.Answer {
	case Hesitated:
		r.Answer = horse.Try
	case Left:
		r.Answer = horse.Refused
	}
	return r
}

type spellPlaces struct{}

func (spellPlaces) Words() []string {
	return []string{
		"away", "beside left", "beside right", "at the door", "front feet in", "in", "near home", "companion",
	}
}

// SpellPlace is where a spell of work or rest was (part 6).
type SpellPlace = horse.Word[spellPlaces]

// The places that rules name.
var (
	BesideLeft  = horse.MustWord[spellPlaces]("beside left")
	BesideRight = horse.MustWord[spellPlaces]("beside right")
	Away        = horse.MustWord[spellPlaces]("away")
	InIt        = horse.MustWord[spellPlaces]("in")
	NearHome    = horse.MustWord[spellPlaces]("near home")
	ByTheOther  = horse.MustWord[spellPlaces]("companion")
)

type comings struct{}

func (comings) Words() []string { return []string{"by itself", "asked"} }

// Coming is how the horse came to a place.
type Coming = horse.Word[comings]

// AskedTo says that it was led there: a rest that was not chosen earns no pass.
var AskedTo = horse.MustWord[comings]("asked")

// A Spell is work or rest in a place (relief place).
type Spell struct {
	horse.Ask
	Place   SpellPlace     `json:"place" doc:"where it was"`
	Rest    bool           `json:"rest,omitempty" doc:"rest; else work"`
	Level   horse.Level    `json:"level,omitzero" doc:"of the work"`
	Work    horse.Work     `json:"work,omitzero" doc:"what the work was"`
	Seconds int            `json:"seconds" minimum:"0" maximum:"36000" doc:"how long"`
	Came    Coming         `json:"came,omitzero" doc:"how it came there"`
	EndedBy horse.EndedBy  `json:"ended_by,omitzero" doc:"who ended it"`
	FeetIn  int            `json:"feet_in,omitempty" minimum:"0" maximum:"4" doc:"feet in the trailer, 0 to 4"`
	Arousal horse.Arousal  `json:"arousal,omitzero" doc:"at its end"`
	Signs   []horse.Sign   `json:"signs,omitempty" maxItems:"20" doc:"what was seen of its mind"`
	WaysOut []horse.WayOut `json:"ways_out,omitempty" maxItems:"20" doc:"how it left the place"`
	Handler string         `json:"handler,omitempty" maxLength:"60" doc:"who held the rope; empty: who began the session"`
}

// WrongPlace reports rest where there should be work: at home or with the
// companion on a way away from them, and away from the trailer's door.
func (p Spell) WrongPlace(c *catalog.Catalog) bool {
	step, _ := c.Step(p.Step)
	if ladder, _ := c.Ladder(step.Ladder); step.Trailer || ladder.AtTrailer {
		return p.Place == Away
	}
	return p.Near()
}

// Near reports a spell at home, or by the companion.
func (p Spell) Near() bool { return p.Place == NearHome || p.Place == ByTheOther }

// rep is what a chosen rest counts as: accepted once it lasted as long as the
// step asks, else a try. Work is no answer.
func (p Spell) rep(c *catalog.Catalog) Rep {
	step, _ := c.Step(p.Step)
	r := Rep{Ask: p.Ask, Answer: horse.Try, Peak: horse.LevelOf(p.Level.Int()), Arousal: p.Arousal, Signs: p.Signs, WaysOut: p.WaysOut, Handler: p.Handler, Target: step.Last()}
	if p.Seconds >= RestFor(step) && !p.WrongPlace(c) && p.Came != AskedTo {
		r.Answer = horse.Accepted
	}
	r.Reached = &p.Seconds
	return r
}

// UsualRest is the rest asked where a step names no seconds (part 6's case 14).
const UsualRest = 30

func RestFor(step catalog.Step) int {
	if step.Pass.Unit == "s" && step.Last() > 0 {
		return step.Last()
	}
	return UsualRest
}

// A Burst is many asks seconds apart, mostly mounted; it counts as one rep.
type Burst struct {
	horse.Ask
	Asks    int            `json:"asks,omitempty" minimum:"0" maximum:"1000" doc:"how many"`
	OnTouch int            `json:"on_touch,omitempty" minimum:"0" maximum:"1000" doc:"answered on the touch"`
	Most    horse.Pulses   `json:"most_pulses,omitzero" doc:"most pulses that one took"`
	Last    horse.Answer   `json:"last,omitzero" doc:"the last answer"`
	Each    []int          `json:"each,omitempty" maxItems:"1000" doc:"in place of the four above: the pulses that each ask took, 0 on the touch, -1 for no answer"`
	Arousal horse.Arousal  `json:"arousal,omitzero" doc:"after the last; empty: as before"`
	Signs   []horse.Sign   `json:"signs,omitempty" maxItems:"20" doc:"what was seen of its mind"`
	WaysOut []horse.WayOut `json:"ways_out,omitempty" maxItems:"20" doc:"how it left the asks"`
	Handler string         `json:"handler,omitempty" maxLength:"60" doc:"who held the rope; empty: who began the session"`
}

// counted is the burst with its asks counted, where each was tapped.
func (b Burst) counted() Burst {
	if len(b.Each) == 0 {
		return b
	}
	b.Asks, b.OnTouch, b.Last = len(b.Each), 0, horse.Accepted
	most := 0
	for _, pulses := range b.Each {
		most = max(most, pulses)
		if pulses == 0 {
			b.OnTouch++
		}
	}
	if most > 0 {
		b.Most = horse.PulsesOf(most)
	}
	if b.Each[len(b.Each)-1] < 0 {
		b.Last = horse.Refused
	}
	return b
}

func (b Burst) rep() Rep {
	b = b.counted()
	r := Rep{Ask: b.Ask, Answer: horse.Try, Form: horse.Pulsed, Pulses: b.Most, Arousal: b.Arousal, Signs: b.Signs, WaysOut: b.WaysOut, Handler: b.Handler}
	if horse.Soft(b.Last) && b.OnTouch*10 >= b.Asks*8 {
		r.Answer, r.Peak = horse.Accepted, horse.LevelOf(1)
	}
	return r
}

// An Interruption is an unasked behaviour that is stopped; it is counted, and
// is no answer.
type Interruption struct {
	Behaviour horse.WayOut  `json:"behaviour,omitzero" doc:"what was stopped; or else hurry"`
	Hurry     horse.Hurry   `json:"hurry,omitzero" doc:"a jog or pace in place of a walk, for as long as it lasted"`
	Slope     horse.Slope   `json:"slope,omitzero" doc:"how the ground lay"`
	Heading   string        `json:"heading,omitempty" maxLength:"60" doc:"towards what"`
	Level     horse.Level   `json:"level,omitzero" doc:"the pressure that stopped it"`
	Seconds   float64       `json:"seconds,omitempty" minimum:"0" maximum:"3600" doc:"to its end"`
	Arousal   horse.Arousal `json:"arousal,omitzero" doc:"after it; empty: as before"`
	Handler   string        `json:"handler,omitempty" maxLength:"60" doc:"who held the rope; empty: who began the session"`
}

// A Memory is one ask of a session written down afterwards, as it is remembered.
// It tells how far the ask came and that it was worked; it is not counted
// towards a pass mark, nor used for seconds, cycle or trends (part 6).
type Memory struct {
	horse.Ask
	Tries   int          `json:"tries" minimum:"1" maximum:"200" doc:"how many, 1 or more"`
	Worst   horse.Answer `json:"worst,omitzero" doc:"the worst answer"`
	Last    horse.Answer `json:"last" doc:"the last answer"`
	Worked  string       `json:"worked,omitempty" maxLength:"300" doc:"what worked"`
	Minutes int          `json:"minutes,omitempty" minimum:"0" maximum:"600" doc:"how long"`
	Handler string       `json:"handler,omitempty" maxLength:"60" doc:"who held the rope; empty: who began the session"`
}

// AsRep is what an entry counts as; false for one that is no answer.
func (e Entry) AsRep(c *catalog.Catalog) (Rep, bool) {
	switch {
	case e.Kind == KindRep && e.Rep != nil:
		return e.Rep.answered(), true
	case e.Kind == KindDose && e.Dose != nil:
		return e.Dose.rep(), true
	case e.Kind == KindOffer && e.Offer != nil:
		return e.Offer.rep(), true
	case e.Kind == KindBurst && e.Burst != nil:
		return e.Burst.rep(), true
	case e.Kind == KindSpell && e.Spell != nil && e.Spell.Rest:
		return e.Spell.rep(c), true
	}
	return Rep{}, false
}

// Ways lists the ways out that an entry noted, and whether the lead trainer
// cleared a rear among them.
func (e Entry) Ways() (ways []horse.WayOut, flags []horse.Flag) {
	switch {
	case e.Rep != nil:
		return e.Rep.WaysOut, e.Rep.Flags
	case e.Dose != nil:
		return e.Dose.WaysOut, e.Dose.Flags
	case e.Offer != nil:
		return e.Offer.WaysOut, e.Offer.Flags
	case e.Spell != nil:
		return e.Spell.WaysOut, nil
	case e.Burst != nil:
		return e.Burst.WaysOut, nil
	case e.Interruption != nil && !e.Interruption.Behaviour.IsZero():
		return []horse.WayOut{e.Interruption.Behaviour}, nil
	case e.Mark != nil:
		return e.Mark.WaysOut, nil
	}
	return nil, nil
}

// Soft reports whether an entry is an answer that was accepted or offered.
func (e Entry) Soft() bool {
	switch {
	case e.Rep != nil:
		return horse.Soft(e.Rep.answered().Answer)
	case e.Dose != nil:
		return horse.Soft(e.Dose.rep().Answer)
	case e.Offer != nil:
		return horse.Soft(e.Offer.rep().Answer)
	case e.Burst != nil:
		return horse.Soft(e.Burst.rep().Answer)
	}
	return false
}

// lateBy is the release delay in seconds over which a release is late.
const lateBy = 1.0

// IsLate reports whether a release came late; where each try was tapped, each
// was its own release.
func (r Rep) IsLate() bool {
	delay, ok := r.Delay()
	return r.Release == horse.Late || ok && delay > lateBy
}

// Delay is the time from the last try that was tapped before the pressure ended
// until it ended, in seconds; false where it was not measured.
func (r Rep) Delay() (float64, bool) {
	if r.ToTry == nil || r.Seconds < *r.ToTry {
		return 0, false
	}
	last := *r.ToTry
	if n := len(r.Tries); n > 1 {
		last += float64(r.Tries[n-1].At-r.Tries[0].At) / 1000 // ms; mutate: a unit
	}
	return max(r.Seconds-last, 0), true
}
