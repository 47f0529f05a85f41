package outing

import (
	"math"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

type phases struct{}

func (phases) Words() []string { return []string{"out", "moving", "standing", "home"} }

// Phase is where a walk is.
type Phase = horse.Word[phases]

// The phases.
var (
	Out      = horse.MustWord[phases]("out")
	Walking  = horse.MustWord[phases]("moving")
	Standing = horse.MustWord[phases]("standing")
	Home     = horse.MustWord[phases]("home")
)

// A State is a walk at a moment. Between two buttons its clocks run on evenly: Owed
// falls while the horse stands, Stand counts down.
type State struct {
	Phase   Phase            `json:"phase" doc:"where the walk is"`
	Since   int64            `json:"since" doc:"since when, ms"`
	Plan    Plan             `json:"plan" doc:"as it was laid out"`
	Owed    float64          `json:"owed" doc:"seconds of standing still owed at that moment"`
	Falls   bool             `json:"falls" doc:"it falls, as the horse stands"`
	Stop    int              `json:"stop" doc:"number of the stop at which it stands, or stood last"`
	Stand   float64          `json:"stand" doc:"seconds of this stand still to go; under 0: it is over"`
	Of      int              `json:"of" doc:"seconds of this stand"`
	BackUp  bool             `json:"back_up,omitempty" doc:"half way: two steps back, straight, stand again"`
	Left    int              `json:"left" doc:"stops that are still needed after this one"`
	Share   float64          `json:"share" doc:"of the moving home that is left"`
	Metres  float64          `json:"metres,omitempty" doc:"to go to the yard; absent: not known"`
	Next    float64          `json:"next,omitempty" doc:"metres to the next stop"`
	NextIn  float64          `json:"next_in" doc:"seconds of moving to the next stop"`
	OutFor  float64          `json:"out_for" doc:"seconds of the way out so far"`
	HomeFor float64          `json:"home_for" doc:"seconds of the way home so far"`
	Stops   []Stood          `json:"stops" doc:"those that were made"`
	Spots   []Spot           `json:"spots" doc:"named spots that were passed"`
	Arousal int              `json:"arousal" doc:"as noted last; 0 where nothing was"`
	Highest int              `json:"highest" doc:"highest noted"`
	Ways    []horse.WayOut   `json:"ways,omitempty" doc:"ways out, in their order"`
	Ridden  bool             `json:"ridden,omitempty"`
	Undoes  phrase.Message   `json:"undoes" doc:"what an undo takes back"`
	Last    string           `json:"last,omitempty" doc:"id of the newest button"`
	Says    []phrase.Message `json:"says" doc:"what is next"`
}

// Stood is a stop that was made.
type Stood struct {
	N       int     `json:"n" doc:"from 1"`
	Metres  float64 `json:"metres,omitempty" doc:"from the yard; absent: not known"`
	Share   float64 `json:"share" doc:"of the moving that was left there"`
	Stood   bool    `json:"stood" doc:"without breaking"`
	Mind    bool    `json:"mind,omitempty" doc:"its mind was elsewhere"`
	Broke   int     `json:"broke,omitempty" doc:"how often it was put back"`
	Seconds float64 `json:"seconds" doc:"that it stood at one time, at most"`
	Fidget  float64 `json:"fidget,omitempty" doc:"seconds until it first broke; absent: it did not"`
	Arousal int     `json:"arousal" doc:"as noted there, else before"`
}

// Ease reports a stop that was stood without breaking, its mind there, at most
// attentive.
func (s Stood) Ease() bool { return s.Stood && !s.Mind && s.Arousal <= 1 }

// Spot is a named place that was passed.
type Spot struct {
	Name    string        `json:"name"`
	Heading horse.Heading `json:"heading,omitzero" doc:"where it was going"`
	Tries   int           `json:"tries" doc:"how often it tried to turn to it"`
}

// walk is a walk as it is read, button after button.
type walk struct {
	s                 State
	set, turned, home int64
	at                int64   // of the newest button that changed what it does
	moved             float64 // seconds of moving on the way home
	began             int64   // of the stand
	standing          *Stood
}

// Live reads the newest walk of a session's entries, as they stand, at a moment. False:
// nobody set off.
func Live(entries []track.Entry, before int, now int64) (State, bool) {
	var w *walk
	for _, e := range entries {
		if e.Mark == nil {
			continue
		}
		if k := e.Mark.Walk; k != nil && k.Button == track.SetOff && k.Road != nil {
			w = &walk{set: e.At, at: e.At}
			w.s = State{Phase: Out, Since: e.At, Plan: PlanOf(*k.Road, before), Ridden: k.Road.Ridden, Stops: []Stood{}, Spots: []Spot{}, Says: []phrase.Message{}}
		}
		if w != nil {
			w.take(e)
		}
	}
	if w == nil {
		return State{}, false
	}
	w.until(now)
	return w.s, true
}

// take takes in one entry.
func (w *walk) take(e track.Entry) {
	m := e.Mark
	if m.Arousal.Noted() {
		w.s.Arousal = m.Arousal.Int()
		w.s.Highest = max(w.s.Highest, w.s.Arousal)
		if w.standing != nil {
			w.standing.Arousal = w.s.Arousal
		}
	}
	w.s.Ways = append(w.s.Ways, m.WaysOut...)
	if m.Walk == nil {
		return
	}
	w.press(e, m)
	w.s.Last, w.s.Undoes = e.ID, phrase.Of("outing.undo."+key(m.Walk.Button), phrase.Args{"n": w.s.Stop})
}

// press takes in a button.
func (w *walk) press(e track.Entry, m *track.Mark) {
	switch b := m.Walk.Button; {
	case b == track.Turned && w.s.Phase == Out:
		w.turned = e.At
		w.asWalked()
		w.to(Walking, e.At)
	case b == track.StoppedAt && w.s.Phase == Walking:
		w.moved += seconds(w.at, e.At)
		w.stop(e.At)
	case b == track.Broke && w.standing != nil:
		w.broke(e.At)
	case (b == track.Stood || b == track.Elsewhere) && w.standing != nil:
		w.stood(e.At, b == track.Elsewhere)
	case b == track.Moving && w.s.Phase == Standing:
		if w.standing != nil {
			w.stood(e.At, false)
		}
		w.to(Walking, e.At)
	case b == track.PassedBy:
		w.s.Spots = append(w.s.Spots, Spot{Name: m.Walk.Spot, Heading: m.Walk.Heading, Tries: m.Walk.Tries})
	case b == track.AtHome && w.s.Phase != Home && w.turned > 0:
		w.close(e.At)
	}
}

// key is a button's word as a key of its phrase.
func key(b track.Button) string {
	if b == track.Elsewhere {
		return "elsewhere"
	}
	if b == track.SetOff {
		return "set_off"
	}
	return b.String()
}

// asPlanned is how much shorter or longer than planned a way out may take and still
// count as walked to the place that was planned.
const asPlanned = 0.2

// asWalked shortens the way home where it was turned early, and lengthens it where it
// was turned late.
func (w *walk) asWalked() {
	p := &w.s.Plan
	walked := seconds(w.set, w.turned) / math.Max(1, float64(p.Out))
	if math.Abs(walked-1) <= asPlanned {
		return
	}
	p.Moving = int(math.Round(float64(p.Moving) * walked))
	p.Metres = int(math.Round(float64(p.Metres) * walked))
	p.Every *= walked
}

func (w *walk) to(p Phase, at int64) { w.s.Phase, w.s.Since, w.at = p, at, at }

// share is the share of the moving home that is still to go.
func (w *walk) share() float64 {
	if w.s.Plan.Moving == 0 {
		return 0
	}
	return math.Max(0, 1-w.moved/float64(w.s.Plan.Moving))
}

func (w *walk) stop(at int64) {
	w.s.Stop++
	w.standing = &Stood{N: w.s.Stop, Share: w.share(), Metres: w.share() * float64(w.s.Plan.Metres), Stood: true, Arousal: w.s.Arousal}
	w.began = at
	w.to(Standing, at)
}

func (w *walk) broke(at int64) {
	s := w.standing
	if s.Stood {
		s.Fidget = seconds(w.began, at)
	}
	s.Seconds = math.Max(s.Seconds, seconds(w.began, at))
	s.Stood, s.Broke = false, s.Broke+1
	w.began = at
}

// stood ends a stand; the horse stands on until it moves.
func (w *walk) stood(at int64, elsewhere bool) {
	s := w.standing
	s.Seconds = math.Max(s.Seconds, seconds(w.began, at))
	s.Mind = s.Mind || elsewhere
	w.s.Stops = append(w.s.Stops, *s)
	w.standing = nil
}

func (w *walk) close(at int64) {
	switch {
	case w.standing != nil:
		w.stood(at, false)
	case w.s.Phase == Walking:
		w.moved += seconds(w.at, at)
	}
	w.home = at
	w.to(Home, at)
}

// until lets the clocks run to a moment, and says what is next.
func (w *walk) until(now int64) {
	s := &w.s
	end := now
	if w.home > 0 {
		end = w.home
	}
	if w.turned == 0 {
		s.OutFor = seconds(w.set, now)
		s.Owed = float64(s.Plan.Owed)
		s.says(w)
		return
	}
	s.OutFor, s.HomeFor = seconds(w.set, w.turned), seconds(w.turned, end)
	moved := w.moved
	if s.Phase == Walking {
		moved += seconds(w.at, now)
	}
	left := math.Max(0, float64(s.Plan.Moving)-moved)
	s.Owed = math.Max(0, homeTimes*s.OutFor-s.HomeFor-left)
	s.Falls = s.Phase == Standing && s.Owed > 0
	share := left / math.Max(1, float64(s.Plan.Moving))
	s.Share, s.Metres = share, share*float64(s.Plan.Metres)
	w.stand(now)
	stands := int(math.Ceil((s.Owed - math.Max(0, s.Stand)) / float64(max(1, s.Plan.Stand))))
	s.Left = max(0, stands)
	if s.Left > 0 && s.Stop > 0 { // the first stop is where it turned
		pieces := float64(s.Left + 1)
		s.NextIn, s.Next = left/pieces, s.Metres/pieces
	}
	s.says(w)
}

// stand tells the count-down of the stand that is on.
func (w *walk) stand(now int64) {
	if w.standing == nil {
		return
	}
	s := &w.s
	s.Of = s.Plan.Stand
	if s.BackUp = len(s.Plan.Stops) > 0 && backUp(s.Plan, s.Stop); s.BackUp {
		s.Of *= 2
	}
	s.Stand = float64(s.Of) - seconds(w.began, now)
}

// backUp reports whether a stop is one for backing up; those beyond the plan go on in
// threes.
func backUp(p Plan, n int) bool {
	if n <= len(p.Stops) {
		return p.Stops[n-1].BackUp
	}
	return len(p.Stops) >= third && p.Stops[third-1].BackUp && n%third == 0
}

func (s *State) says(w *walk) {
	say := func(k string, args phrase.Args) { s.Says = append(s.Says, phrase.Of("outing.says."+k, args)) }
	switch s.Phase {
	case Out:
		say("out", phrase.Args{"minutes": int(math.Round(float64(s.Plan.Out) / 60))})
	case Home:
		say("home", nil)
	case Standing:
		switch {
		case w.standing == nil:
			say("move", nil)
		case s.BackUp:
			say("back_up", nil)
		default:
			say("stand", nil)
		}
		s.after(say)
	case Walking:
		s.after(say)
		say("quickens", nil)
	}
}

// after says where the next stop is.
func (s *State) after(say func(string, phrase.Args)) {
	switch {
	case s.Left == 0 && s.Owed <= math.Max(0, s.Stand):
		say("nothing_owed", nil)
	case s.Stop == 0:
		say("here", nil)
	case s.Next >= 1:
		say("next_metres", phrase.Args{"n": int(math.Round(s.Next))})
	default:
		say("next_seconds", phrase.Args{"n": int(math.Round(s.NextIn))})
	}
}

func seconds(from, to int64) float64 { return math.Max(0, float64(to-from)/1000) }
