// Package desk answers for the arena where there is no server: one running
// session, asked and answered in JSON as the API's. The browser's build of the
// rules is this and nothing else, so that what it says is what the server says.
package desk

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog"
	"ivorybridge/core/gait"
	"ivorybridge/core/horse"
	"ivorybridge/core/outing"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// A Desk keeps the catalogue, and the session that is open.
type Desk struct {
	shipped *catalog.Catalog
	running *arena.Running
	ladders []string // of the horse whose session is open
	book    phrase.Book
}

// Asking is what the gate is asked before a session.
type Asking struct {
	Brief     arena.Brief     `json:"brief"`
	Today     string          `json:"today" format:"date"`
	Readiness arena.Readiness `json:"readiness"`
	Lead      bool            `json:"lead,omitempty" doc:"a lead trainer holds the rope"`
	Words     phrase.Words    `json:"words"`
}

// Verdict says whether and where a session may begin.
type Verdict struct {
	arena.Gate
	Ask  horse.Ask      `json:"ask,omitzero" doc:"the ask to begin with; absent when nothing may be asked"`
	Name string         `json:"name,omitempty"`
	Says phrase.Slotted `json:"says,omitempty" doc:"what is asked for"`
}

// Opening is a session as it is opened.
type Opening struct {
	Brief     arena.Brief        `json:"brief"`
	Beginning arena.Beginning    `json:"beginning"`
	Rules     catalog.HouseRules `json:"rules" doc:"as the session pinned them"`
	Words     phrase.Words       `json:"words"`
	Track     []track.Entry      `json:"track"`
}

// Added are entries for the open session.
type Added struct {
	Entries []track.Entry `json:"entries"`
	Now     int64         `json:"now" doc:"the clock, ms"`
}

// Refused says why an entry can't be kept.
type Refused struct {
	ID  string `json:"id"`
	Say string `json:"say"`
}

// Answered is what is said after entries.
type Answered struct {
	Refused []Refused     `json:"refused"`
	Told    arena.Picture `json:"told"`
}

// Reviewed is what the open session came to, with all its beads.
type Reviewed struct {
	arena.Review
	Beads []arena.Told `json:"beads"`
}

// Choosing asks what may be asked: in the open session, or with a brief in one that
// would begin now.
type Choosing struct {
	Brief *arena.Brief `json:"brief,omitempty"`
	Words phrase.Words `json:"words"`
}

// Chosen are all asks that can be chosen, and the cards by which they are answered.
type Chosen struct {
	Asks  []arena.Choice `json:"asks"`
	Cards []arena.Card   `json:"cards"`
}

// CardAsked is a tick on a sequence card.
type CardAsked struct {
	Key string `json:"key"`
	catalog.Tick
	Words phrase.Words `json:"words"`
}

func (d *Desk) card(in CardAsked) (catalog.Now, error) {
	now, ok := d.shipped.Methods.Tick(in.Key, in.Tick)
	if !ok {
		return catalog.Now{}, fmt.Errorf("there is no card %q with a run %q", in.Key, in.Tick.Run)
	}
	phrase.English(in.Words).Tell(&now)
	return now, nil
}

// Document is the advisor's input by itself, with the house rules where they
// are not the shipped ones.
type Document struct {
	arena.Input
	Rules *catalog.HouseRules `json:"rules,omitempty" doc:"house rules where they are not the shipped ones; pass marks of shipped steps are written out, so pass_run and pass_level change nothing for them"`
	Words phrase.Words        `json:"words" doc:"the reader's words"`
}

var errNothingOpen = errors.New("no session is open here")

// Call answers one question. The names are: catalog, gate, open, add, tell,
// review, asks, card, advise, road, walk, footfall.
func (d *Desk) Call(name string, asked []byte) ([]byte, error) {
	if name == "catalog" {
		c, err := catalog.Decode(asked)
		d.shipped = c
		return []byte("{}"), err
	}
	if d.shipped == nil {
		return nil, errors.New("the catalogue comes first")
	}
	switch name {
	case "gate":
		return call(asked, d.gate)
	case "open":
		return call(asked, d.open)
	case "add":
		return call(asked, d.add)
	case "tell":
		return call(asked, d.tell)
	case "asks":
		return call(asked, d.asks)
	case "card":
		return call(asked, d.card)
	case "review":
		return call(asked, d.review)
	case "footfall":
		return call(asked, d.footfall)
	case "road":
		return call(asked, d.road)
	case "walk":
		return call(asked, d.walk)
	case "advise":
		return call(asked, d.advise)
	}
	return nil, fmt.Errorf("nothing is called %q here", name)
}

func call[I, O any](asked []byte, answer func(I) (O, error)) ([]byte, error) {
	var in I
	if err := json.Unmarshal(asked, &in); err != nil {
		return nil, fmt.Errorf("reading what was asked: %w", err)
	}
	out, err := answer(in)
	if err != nil {
		return nil, err
	}
	var told bytes.Buffer
	enc := json.NewEncoder(&told)
	enc.SetEscapeHTML(false)
	err = enc.Encode(out)
	return bytes.TrimSuffix(told.Bytes(), []byte("\n")), err
}

// VerdictOf asks a brief's gate, with the catalogue that is fitted to it.
func VerdictOf(c *catalog.Catalog, b arena.Brief, today string, r arena.Readiness, lead bool) Verdict {
	gate, ask := b.Gate(c, today, r, lead)
	v := Verdict{Gate: gate, Ask: ask}
	if step, ok := c.Step(ask.Step); ok {
		v.Name, v.Says = step.FullName(), step.Ask
	}
	return v
}

func (d *Desk) gate(in Asking) (Verdict, error) {
	c, err := d.shipped.Fit(in.Brief.Fitting)
	if err != nil {
		return Verdict{}, err
	}
	v := VerdictOf(c, in.Brief, in.Today, in.Readiness, in.Lead)
	phrase.English(in.Words).Tell(&v)
	return v, nil
}

// Open opens a session with the catalogue that is fitted to it. An entry that
// was kept once and can't be read by it any more is passed over.
func Open(c *catalog.Catalog, o Opening) (*arena.Running, error) {
	r, err := arena.Run(c, o.Rules, o.Brief.Session(c, o.Beginning))
	if err != nil {
		return nil, err
	}
	r.Add(o.Track...)
	return r, nil
}

func (d *Desk) open(in Opening) (arena.Picture, error) {
	c, err := d.shipped.Fit(in.Brief.Fitting)
	if err != nil {
		return arena.Picture{}, err
	}
	d.book = phrase.English(in.Words)
	if d.running, err = Open(c, in); err != nil {
		return arena.Picture{}, err
	}
	d.ladders = in.Brief.Fitting.Ladders
	at := in.Beginning.Started
	for _, e := range in.Track {
		at = max(at, e.At)
	}
	return d.picture(at), nil
}

func (d *Desk) asks(in Choosing) (Chosen, error) {
	r, ladders, book := d.running, d.ladders, d.book
	if in.Brief != nil {
		c, err := d.shipped.Fit(in.Brief.Fitting)
		if err != nil {
			return Chosen{}, err
		}
		if r, err = Open(c, Opening{Brief: *in.Brief, Beginning: arena.Beginning{Ask: in.Brief.First(c)}, Rules: c.Rules}); err != nil {
			return Chosen{}, err
		}
		ladders, book = in.Brief.Fitting.Ladders, phrase.English(in.Words)
	}
	if r == nil {
		return Chosen{}, errNothingOpen
	}
	out := ChosenOf(r, ladders)
	book.Tell(&out)
	return out, nil
}

// ChosenOf are the asks that can be chosen in a session, those of a horse's ladders
// first.
func ChosenOf(r *arena.Running, ladders []string) Chosen {
	return Chosen{Asks: r.Choices(ladders), Cards: r.Cards()}
}

func (d *Desk) picture(now int64) arena.Picture {
	p := d.running.Since(now)
	d.book.Tell(&p.Advice)
	d.book.Tell(&p.Live)
	p.Beads, p.Recent, p.Would = list(p.Beads), list(p.Recent), list(p.Would)
	return p
}

// list is an empty list where there is none, as the API tells it.
func list[T any](l []T) []T {
	if l == nil {
		return []T{}
	}
	return l
}

func (d *Desk) add(in Added) (Answered, error) {
	if d.running == nil {
		return Answered{}, errNothingOpen
	}
	out := Answered{Refused: []Refused{}}
	for i, err := range d.running.Add(in.Entries...) {
		if err != nil {
			out.Refused = append(out.Refused, Refused{ID: in.Entries[i].ID, Say: err.Error() + "."})
		}
	}
	out.Told = d.picture(in.Now)
	return out, nil
}

func (d *Desk) tell(in Added) (arena.Picture, error) {
	if d.running == nil {
		return arena.Picture{}, errNothingOpen
	}
	return d.picture(in.Now), nil
}

func (d *Desk) review(struct{}) (Reviewed, error) {
	if d.running == nil {
		return Reviewed{}, errNothingOpen
	}
	r := Reviewed{Review: d.running.Review(), Beads: list(slices.Clone(d.running.Beads()))}
	d.book.Tell(&r.Review)
	return r, nil
}

// Laying is an outing to be laid out.
type Laying struct {
	Road   track.Road   `json:"road"`
	Before int          `json:"before" doc:"outings that the horse had"`
	Words  phrase.Words `json:"words"`
}

// Laid is an outing as it is laid out, or what is wrong with its road.
type Laid struct {
	Plan  *outing.Plan `json:"plan,omitempty"`
	Wrong string       `json:"wrong,omitempty"`
}

func (d *Desk) road(in Laying) (Laid, error) {
	if err := in.Road.Check(); err != nil {
		return Laid{Wrong: phrase.Raised(err.Error()) + "."}, nil
	}
	p := outing.PlanOf(in.Road, in.Before)
	phrase.English(in.Words).Tell(&p)
	return Laid{Plan: &p}, nil
}

// TapsAsked are taps to be timed.
type TapsAsked struct {
	gait.Taps
	Words phrase.Words `json:"words"`
}

// Timed is what the footfall comes to, or what is wrong with the taps.
type Timed struct {
	Result *gait.Result `json:"result,omitempty"`
	Wrong  string       `json:"wrong,omitempty"`
}

func (d *Desk) footfall(in TapsAsked) (Timed, error) {
	r, err := gait.Time(in.Taps)
	if err != nil {
		return Timed{Wrong: phrase.Raised(err.Error()) + "."}, nil
	}
	phrase.English(in.Words).Tell(&r)
	return Timed{Result: &r}, nil
}

// WalkAsked is the open session's outing at a moment.
type WalkAsked struct {
	Before int   `json:"before" doc:"outings that the horse had"`
	Now    int64 `json:"now" doc:"the clock, ms"`
}

// Walked is the outing, and once it is at home what it counts as and what comes next.
type Walked struct {
	State *outing.State   `json:"state,omitempty" doc:"absent: nobody has set off"`
	Next  *outing.Advised `json:"next,omitempty"`
	Reps  []track.Rep     `json:"reps,omitempty" doc:"to be logged, where the step at work is one of the way home, or of places that are passed"`
}

func (d *Desk) walk(in WalkAsked) (Walked, error) {
	if d.running == nil {
		return Walked{}, errNothingOpen
	}
	s, ok := outing.Live(d.running.Live(), in.Before, in.Now)
	if !ok {
		return Walked{}, nil
	}
	w := Walked{State: &s}
	if s.Phase == outing.Home {
		next := outing.After(s.Result())
		w.Next = &next
		at := d.running.At()
		step, _ := d.running.Catalog().Step(at.Step)
		switch {
		case step.Is(catalog.WalkedHome):
			w.Reps = []track.Rep{s.Result().Rep(at, step.Is(catalog.CalmStops))}
		case step.Is(catalog.PassesSpots):
			w.Reps = s.Result().Passed(at)
		}
	}
	d.book.Tell(&w)
	return w, nil
}

func (d *Desk) advise(in Document) (arena.Advice, error) { return Advise(d.shipped, in) }

// Advise answers the advisor's document.
func Advise(c *catalog.Catalog, in Document) (arena.Advice, error) {
	rules := c.Rules
	if in.Rules != nil {
		rules = *in.Rules
	}
	advice, err := arena.Advise(c, rules, in.Input)
	if err != nil {
		return arena.Advice{}, err
	}
	phrase.English(in.Words).Tell(&advice)
	return advice, nil
}
