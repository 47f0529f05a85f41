package assess

import (
	"fmt"
	"math"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type swapRuns struct{}

func (swapRuns) Words() []string {
	return []string{"usual", "trainer same tack", "trainer changed tack", "usual again"}
}

// SwapRun is one of the four runs of the swap (section E2): the usual person
// and tack, the trainer in the same tack, the trainer in changed tack, the
// usual person again.
type SwapRun = horse.Word[swapRuns]

// Run is what the task took in one run of the swap.
type Run struct {
	Level horse.Level  `json:"level,omitzero" doc:"level it took"`
	Grade horse.Answer `json:"grade,omitzero" doc:"the horse's answer"`
}

func (r Run) whole() bool { return r.Level.Noted() && !r.Grade.IsZero() }

// better reports whether the run was 2 levels or 1 grade better than another.
func (r Run) better(than Run) bool {
	return r.whole() && than.whole() && (than.Level.Int()-r.Level.Int() >= 2 || r.Grade.Rank()-than.Grade.Rank() >= 1)
}

// hard is how hard a run was, in levels: a grade is worth two of them, as in
// the swap's own findings, and offered at level 1 is 1.
func (r Run) hard() float64 { return float64(r.Level.Int() + 2*(horse.Offered.Rank()-r.Grade.Rank())) }

// Swap says how much is person, tack and horse.
type Swap struct {
	Person   float64          `json:"person" doc:"levels easier with the trainer, same tack"`
	Tack     float64          `json:"tack" doc:"levels easier in changed tack"`
	Horse    float64          `json:"horse" doc:"levels that are left above offered at 1"`
	Shares   [3]int           `json:"shares" doc:"percent that is person, tack, horse; they add up to 100"`
	Says     []phrase.Message `json:"says" doc:"what the runs show, as sentences"`
	personUp bool
	tackUp   bool
	onFilm   [2]bool // the person's, and the tack's, were seen on a clip
}

// SwapOf computes the swap table; nil while fewer than two runs can be
// compared. Where the usual person went again, the person is compared with the
// mean of both runs, so that what the horse merely learned on the way is not
// laid to them.
func SwapOf(runs map[SwapRun]Run) *Swap {
	all := SwapRun{}.All()
	usual, same, changed, again := runs[all[0]], runs[all[1]], runs[all[2]], runs[all[3]]
	person, tack := usual.whole() && same.whole(), same.whole() && changed.whole()
	if !person && !tack {
		return nil
	}
	s := &Swap{personUp: same.better(usual), tackUp: changed.better(same)}
	say := func(key string, args phrase.Args) { s.Says = append(s.Says, phrase.Of("swap."+key, args)) }
	left := same.hard()
	if person {
		first := usual.hard()
		if again.whole() {
			first = (first + again.hard()) / 2
		}
		s.Person = max(first-same.hard(), 0)
		say(pick(s.personUp, "person", "person_same"), phrase.Args{"usual": words(usual), "trainer": words(same)})
	} else {
		say("person_unlooked", nil)
	}
	if tack {
		s.Tack, left = max(same.hard()-changed.hard(), 0), changed.hard()
		say(pick(s.tackUp, "tack", "tack_same"), phrase.Args{"same": words(same), "changed": words(changed)})
	} else {
		say("tack_unlooked", nil)
	}
	s.Horse = max(left-1, 0)
	if usual.whole() && again.whole() && again.better(usual) {
		say("again_better", phrase.Args{"first": words(usual), "again": words(again)})
	}
	s.share()
	return s
}

// share turns levels into percents that add up to 100; with nothing left to
// explain all are 0.
func (s *Swap) share() {
	sum := s.Person + s.Tack + s.Horse
	if sum == 0 {
		return
	}
	s.Shares[0] = int(math.Round(100 * s.Person / sum))
	s.Shares[1] = min(int(math.Round(100*s.Tack/sum)), 100-s.Shares[0])
	s.Shares[2] = 100 - s.Shares[0] - s.Shares[1]
}

func words(r Run) string { return fmt.Sprintf("%s at level %d", r.Grade, r.Level.Int()) }

func pick(yes bool, a, b string) string {
	if yes {
		return a
	}
	return b
}
