package arena

import (
	"fmt"
	"reflect"
	"slices"
	"strings"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// A Running session keeps its decoded track and all that was read of it, so
// that one more entry costs one more step and not the whole track again. It
// says what a fresh reading of the same track would say.
type Running struct {
	cat   *catalog.Catalog
	rules catalog.HouseRules
	in    Input

	track []track.Entry   // in order, with what was undone
	have  map[string]bool // ids
	named map[string]bool // ids that an undo or a correction names
	live  []track.Entry   // as it was read
	now   reading
	marks []reading // on the way, to go back to
	fresh int       // beads before it are as they were told last
}

// A reading is a session with what was read of its first live entries.
type reading struct {
	s     *session
	n     int // live entries
	beads []Told
	would []Would
}

// kept is a reading that stays as it is while the session goes on.
func (r reading) kept() reading {
	r.s, r.beads, r.would = r.s.clone(), slices.Clip(r.beads), slices.Clip(r.would)
	return r
}

// markEvery is how many live entries lie between readings to go back to, so
// that a correction of the newest reads a few entries again and not all.
const markEvery = 16 // mutate: of speed only

// A Picture is how a session stands after its newest entry.
type Picture struct {
	Advice Advice       `json:"advice"`
	Beads  []Told       `json:"beads" doc:"the reps as the rules read them, from the one that From counts"`
	From   int          `json:"from,omitempty" doc:"how many beads stand as they were told before"`
	Recent []Newest     `json:"recent" doc:"the newest entries that stand, newest first"`
	Would  []Would      `json:"would" doc:"advice that was shown and would now be another"`
	Live   Live         `json:"live" doc:"what is counted while the ask at work is worked"`
	At     Next         `json:"at" doc:"the ask at work: chosen by hand, or answered last"`
	Last   *track.Entry `json:"last,omitempty" doc:"the newest answer as it stands, to be corrected"`
	Holds  string       `json:"holds,omitempty" doc:"who holds the rope now"`
	Count  int          `json:"count" doc:"entries on the track"`
	Stands int          `json:"stands" doc:"answers and marks that stand; advice that is shown says how many it knew"`
	Ended  bool         `json:"ended"`
}

// Newest is an entry that was not undone.
type Newest struct {
	ID      string     `json:"id"`
	Kind    track.Kind `json:"kind"`
	Answers bool       `json:"answers,omitempty" doc:"it is an answer, of which more can be said"`
}

// Would is advice that was shown, and what would be said now that the tracks
// of two devices have met. What was shown stands.
type Would struct {
	ID    string       `json:"id" doc:"of the entry that holds what was shown"`
	Shown track.Action `json:"shown"`
	Now   track.Action `json:"now"`
	Next  horse.Ask    `json:"next,omitzero" doc:"what would be asked"`
}

// recentEntries is how many standing entries are told, for undo.
const recentEntries = 12

// Run opens a session with its track so far.
func Run(c *catalog.Catalog, rules catalog.HouseRules, in Input) (*Running, error) {
	if _, ok := columnOf(in.School); !ok {
		return nil, fmt.Errorf("a school is one of %s", strings.Join(horse.School{}.Words(), ", "))
	}
	if err := rules.Check(); err != nil {
		return nil, err
	}
	if err := in.check(c); err != nil {
		return nil, err
	}
	r := &Running{cat: c, rules: rules, in: in, have: map[string]bool{}, named: map[string]bool{}, now: reading{s: newSession(c, rules, in)}}
	entries := in.Track
	r.in.Track = nil
	for _, err := range r.Add(entries...) {
		if err != nil {
			return nil, err
		}
	}
	return r, nil
}

// Add takes in entries and tells for each why it can't be, or nil. One whose id
// is there already is passed over.
func (r *Running) Add(entries ...track.Entry) []error {
	r.learn(track.Own(entries))
	refused := make([]error, len(entries))
	good := make([]track.Entry, 0, len(entries))
	for i, e := range entries {
		if err := e.Check(r.cat); err != nil {
			refused[i] = fmt.Errorf("entry %s: %w", e.ID, err)
		} else if !r.have[e.ID] {
			r.have[e.ID] = true
			good = append(good, e)
		}
	}
	track.Order(good)
	inTurn := true
	for _, e := range good {
		last := len(r.track) - 1
		inTurn = inTurn && e.Replaces == "" && !r.named[e.ID] && (last < 0 || track.Before(r.track[last], e) <= 0)
		r.track = append(r.track, e)
		if e.Replaces != "" {
			r.named[e.Replaces] = true
		}
		if inTurn {
			r.follow(e)
		}
	}
	if !inTurn {
		r.again()
	}
	return refused
}

// learn takes own asks into the catalogue of the session.
func (r *Running) learn(asks []catalog.OwnAsk) {
	c := r.cat.WithOwn(asks...)
	if c == r.cat {
		return
	}
	r.cat, r.now.s.cat = c, c
	for _, m := range r.marks {
		m.s.cat = c
	}
}

// Catalog is the catalogue as the session has it, with the horse's own asks.
func (r *Running) Catalog() *catalog.Catalog { return r.cat }

// again reads the track where an entry came out of turn, from the last mark
// before which nothing has changed.
func (r *Running) again() {
	told, was := r.now.beads, r.live
	track.Order(r.track)
	live := track.Live(r.track)
	same := 0
	for same < min(len(was), len(live)) && was[same].Is(live[same]) {
		same++
	}
	r.now, r.live = reading{s: newSession(r.cat, r.rules, r.in)}, nil
	for len(r.marks) > 0 {
		last := r.marks[len(r.marks)-1]
		if last.n <= same {
			r.now, r.live = last.kept(), slices.Clip(live[:last.n])
			break
		}
		r.marks = r.marks[:len(r.marks)-1]
	}
	kept := len(r.now.beads)
	for _, e := range live[len(r.live):] {
		r.follow(e)
	}
	beads := r.now.beads
	kept = min(kept, r.fresh)
	for kept < min(r.fresh, len(beads)) && reflect.DeepEqual(told[kept], beads[kept]) {
		kept++
	}
	r.fresh = kept
}

// follow takes in the next live entry. Advice that was shown is compared with
// what the rules say at that moment of the track as it is now.
func (r *Running) follow(e track.Entry) {
	n := &r.now
	n.beads = n.s.tell(n.beads, e)
	d := n.s.decide(max(e.At, n.s.now))
	if e.Kind == track.KindAdvice && r.unknown(e) && (d.action != e.Shown.Action || d.ask != e.Shown.Next) {
		n.would = append(n.would, Would{ID: e.ID, Shown: e.Shown.Action, Now: d.action, Next: d.ask})
	}
	n.s.note(d)
	n.n++
	r.live = append(r.live, e)
	if n.n%markEvery == 0 {
		r.marks = append(r.marks, n.kept())
	}
}

// unknown reports whether entries of another device stand before advice that was
// shown, more than it knew of: those came in later.
func (r *Running) unknown(shown track.Entry) bool {
	n, others := 0, false
	for _, e := range r.live {
		if e.Kind != track.KindAdvice {
			n++
			others = others || e.Device != shown.Device
		}
	}
	return others && n > shown.Shown.Known
}

// standing counts the answers and marks that stand.
func (r *Running) standing() int {
	n := 0
	for _, e := range r.live {
		n += btoi(e.Kind != track.KindAdvice)
	}
	return n
}

// Advise says one thing to do next.
func (r *Running) Advise(now int64) Advice {
	s := r.now.s
	at := s.now
	a := s.advice(s.decide(max(now, at)))
	s.now = at // the clock of the track is that of its entries
	return a
}

// Beads lists the reps as the rules read them.
func (r *Running) Beads() []Told { return r.now.beads }

// Live lists the entries that stand, in their order.
func (r *Running) Live() []track.Entry { return r.live }

// At is the ask at work.
func (r *Running) At() horse.Ask {
	at, _ := r.now.s.current()
	return at
}

// Picture tells how the session stands, with all beads.
func (r *Running) Picture(now int64) Picture {
	p := Picture{Advice: r.Advise(now), Beads: r.now.beads, Would: r.now.would, Count: len(r.track), Stands: r.standing()}
	for _, e := range track.Recent(r.track, recentEntries) {
		_, answers := e.AsRep(r.cat)
		p.Recent = append(p.Recent, Newest{ID: e.ID, Kind: e.Kind, Answers: answers})
	}
	for i := len(r.live) - 1; i >= 0 && p.Last == nil; i-- {
		if _, answers := r.live[i].AsRep(r.cat); answers {
			p.Last = &r.live[i]
		}
	}
	at, target := r.now.s.current()
	p.At = Next{Ask: at, Target: target, StartLevel: 1}
	p.Live = r.counting(at)
	p.Ended, p.Holds = r.now.s.ended, r.now.s.handler
	return p
}

// Since tells how the session stands with the beads that are new, or are read
// otherwise, since it was asked last.
func (r *Running) Since(now int64) Picture {
	p := r.Picture(now)
	p.Beads, p.From = p.Beads[r.fresh:], r.fresh
	r.fresh = len(r.now.beads)
	return p
}

// Advise reads the track and says one thing to do next. It is a pure function
// of its input; a school that is none is an error.
func Advise(c *catalog.Catalog, rules catalog.HouseRules, in Input) (Advice, error) {
	r, err := Run(c, rules, in)
	if err != nil {
		return Advice{}, err
	}
	return r.Advise(in.Now), nil
}
