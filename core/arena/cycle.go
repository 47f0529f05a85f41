package arena

import (
	"math"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Cycle is the horse's own cycle of answers, learned from all its sessions
// (part 6).
type Cycle struct {
	Cycle   int     `json:"cycle" doc:"answers in a cycle"`
	Reps    int     `json:"reps" doc:"counted reps it was learned from"`
	Dip     float64 `json:"dip" doc:"chance of refused or tolerated in the dip"`
	Outside float64 `json:"outside" doc:"the same outside the dip"`
	Learned bool    `json:"learned" doc:"it is this horse's own; else the house rule's"`
}

// Says is the cycle in a sentence, where it is the horse's own; else how many answers
// it was looked for in.
func (cy Cycle) Says() phrase.Message {
	switch {
	case cy.Reps < leastReps:
		return phrase.Of("cycle.early", phrase.Args{"reps": cy.Reps, "least": leastReps})
	case !cy.Learned:
		return phrase.Of("cycle.none", phrase.Args{"reps": cy.Reps})
	}
	return phrase.Of("cycle.learned", phrase.Args{"a": cy.Cycle - 1, "b": cy.Cycle, "reps": cy.Reps, "in": int(100*cy.Dip + 0.5), "out": int(100*cy.Outside + 0.5)})
}

// What a cycle other than the house rule's needs.
const (
	leastOfAnAsk = 6  // reps of an ask in a session
	leastReps    = 96 // in all
	leastBetter  = 2  // log units

	shortest = 3 // answers; mutate: of two, both are the dip
	longest  = 6
)

// Answers are the answers from which a horse's own cycle is learned, counted
// up session by session for each cycle that it might be.
type Answers struct {
	Reps   int         `json:"reps"`
	Cycles [4]InACycle `json:"cycles" doc:"of 3, 4, 5 and 6 answers"`
}

// InACycle counts the answers in the dip of a cycle and outside it.
type InACycle struct {
	No  [2]int `json:"no" doc:"refused or tolerated: outside the dip, in it"`
	All [2]int `json:"all"`
}

// With adds the counted reps of one more session.
func (n Answers) With(reps []Told) Answers {
	byAsk := map[horse.Ask][]Told{}
	for _, t := range reps {
		if t.Counted {
			byAsk[t.Ask] = append(byAsk[t.Ask], t)
		}
	}
	for _, asked := range byAsk {
		if len(asked) < leastOfAnAsk {
			continue
		}
		n.Reps += len(asked)
		for i, t := range asked {
			no := t.Graded == horse.Refused || t.Graded == horse.Tolerated
			for c := range n.Cycles {
				in := btoi(InDip(i+1, shortest+c))
				n.Cycles[c].All[in]++
				n.Cycles[c].No[in] += btoi(no)
			}
		}
	}
	return n
}

// InDip reports whether the n-th answer is in the dip of a cycle (part 6).
func InDip(n, cycle int) bool { return n%cycle == cycle-1 || n%cycle == 0 }

// Learn looks for the cycle by which this horse's dips come: that of the house
// rules unless another explains its answers better by two log units, from 96
// reps, with more noes in the dip than outside it.
func (n Answers) Learn(house int) Cycle {
	best, likely := n.twoRates(house)
	best.Reps = n.Reps
	if n.Reps < leastReps {
		return best
	}
	needed := likely + leastBetter
	for c := shortest; c <= longest; c++ {
		one, l := n.twoRates(c)
		if c != house && l >= needed && one.Dip > one.Outside {
			one.Reps, one.Learned = n.Reps, true
			best, needed = one, l
		}
	}
	return best
}

// twoRates is the log likelihood of a cycle: one chance of a no in the dip,
// another outside it, each by its share with one added to both counts.
func (n Answers) twoRates(cycle int) (Cycle, float64) {
	seen := n.Cycles[cycle-shortest]
	sum := 0.0
	var rate [2]float64
	for in := range rate {
		no, all := float64(seen.No[in]), float64(seen.All[in])
		rate[in] = (no + 1) / (all + 2)
		sum += no*math.Log(rate[in]) + (all-no)*math.Log(1-rate[in])
	}
	return Cycle{Cycle: cycle, Dip: rate[1], Outside: rate[0]}, sum
}
