package demo

import (
	"math/rand/v2"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// seeded is a reader of repeatable bytes, for ids.
type seeded struct{ r *rand.ChaCha8 }

func newSeeded(n uint64) *seeded {
	var key [32]byte
	key[0] = byte(n)
	return &seeded{rand.NewChaCha8(key)}
}

// Read never fails.
func (s *seeded) Read(p []byte) (int, error) { return s.r.Read(p) }

// A pony answers asks well enough for a story: it learns with each good
// release, loses some over days off, and dips where horses dip. It is not the
// simulated horse of the practice pen.
type pony struct {
	story
	rand    *rand.Rand
	know    map[horse.Ask]float64
	session int
	shied   bool
}

func newPony(s story) *pony {
	return &pony{story: s, rand: rand.New(rand.NewPCG(s.seed, 1)), know: map[horse.Ask]float64{}}
}

// rest lets days go by.
func (p *pony) rest(days int) {
	keep := 1 - p.forget*min(float64(days)/4, 3)
	for a, k := range p.know {
		p.know[a] = k * keep
	}
	p.session++
	p.shied = false
}

// answer is what the pony does, asked the n-th time today at a target.
func (p *pony) answer(a horse.Ask, target, n int, dip bool) track.Rep {
	know, met := p.know[a]
	if !met {
		know = p.carried(a)
	}
	r := track.Rep{Ask: a, Target: target, Start: horse.LevelOf(1), Release: horse.OnTheTry, Arousal: horse.ArousalOf(1), EndedBy: horse.ByHandler}
	need := 1 + (1-know)*p.heavy + p.rand.Float64() - 0.5
	r.Answer, r.Peak = p.grade(know, dip), horse.LevelOf(int(need+0.5))
	if p.session == p.lost && n <= 4 {
		r.Answer, r.Peak = horse.Refused, horse.LevelOf(5)
	}
	if r.Answer == horse.Offered {
		r.Peak = horse.LevelOf(1)
	}
	r.Seconds = float64(int((2+need*1.2+p.rand.Float64()*2)*10)) / 10
	toTry := float64(int((r.Seconds-0.4-p.rand.Float64()*0.5)*10)) / 10
	r.ToTry = &toTry
	p.colour(&r, n)
	if r.Answer != horse.Refused {
		know += (1 - know) * p.quick
	}
	p.know[a] = know
	return r
}

// carried is what another way of the same step teaches for this one.
func (p *pony) carried(a horse.Ask) float64 {
	best := 0.1
	for other, k := range p.know {
		if other.Step == a.Step {
			best = max(best, k/2)
		}
	}
	return best
}

func (p *pony) grade(know float64, dip bool) horse.Answer {
	x := p.rand.Float64()*1.1 + know*0.68
	if dip {
		x -= 0.45 * (1.2 - know)
	}
	switch {
	case x < 0.28:
		return horse.Refused
	case x < 0.5:
		return horse.Try
	case x < 0.68:
		return horse.Tolerated
	case know > 0.9 && x > 1.6:
		return horse.Offered
	}
	return horse.Accepted
}

// colour adds what was seen.
func (p *pony) colour(r *track.Rep, n int) {
	switch r.Answer {
	case horse.Refused:
		r.EndedBy, r.Arousal = horse.ByHorse, horse.ArousalOf(2)
		if p.rand.Float64() < 0.6 {
			r.WaysOut = append(r.WaysOut, way(p.way))
		}
	case horse.Tolerated:
		r.Arousal = horse.ArousalOf(2)
	case horse.Accepted:
		if p.rand.Float64() < 0.15 {
			r.Signs = append(r.Signs, sign("sigh"))
		}
	}
	if p.rand.Float64() < 0.08 {
		r.Release = horse.Late
	}
	if p.session == p.fright && n == 3 && !p.shied {
		p.shied = true
		r.Answer, r.Arousal = horse.Refused, horse.ArousalOf(3)
		r.WaysOut = []horse.WayOut{way("pulled back")}
		r.Signs = []horse.Sign{sign("snorts")}
	}
}

func way(s string) (w horse.WayOut) { read(&w, s); return w }

func sign(s string) (w horse.Sign) { read(&w, s); return w }
