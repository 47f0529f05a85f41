package arena

import (
	"math"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
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

// What a cycle other than the house rule's needs.
const (
	leastOfAnAsk = 6  // reps of an ask in a session
	leastReps    = 96 // in all
	leastBetter  = 2  // log units

	shortest = 3 // answers; mutate: of two, both are the dip
	longest  = 6
)

// LearnCycle looks for the cycle by which this horse's dips come: that of the
// house rules unless another explains its answers better by two log units,
// from 96 reps, with more noes in the dip than outside it.
func LearnCycle(c *catalog.Catalog, days []Day, house int) Cycle {
	var asks [][]bool // refused or tolerated, in the order of the counted reps
	reps := 0
	for _, d := range days {
		byAsk := map[horse.Ask][]bool{}
		var order []horse.Ask
		for _, b := range Beads(c, d, nil, nil) {
			if !b.Counted {
				continue
			}
			if byAsk[b.Ask] == nil {
				order = append(order, b.Ask)
			}
			byAsk[b.Ask] = append(byAsk[b.Ask], b.Graded == horse.Refused || b.Graded == horse.Tolerated)
		}
		for _, a := range order {
			if len(byAsk[a]) >= leastOfAnAsk {
				asks = append(asks, byAsk[a])
				reps += len(byAsk[a])
			}
		}
	}
	best, likely := twoRates(asks, house)
	best.Reps = reps
	if reps < leastReps {
		return best
	}
	needed := likely + leastBetter
	for n := shortest; n <= longest; n++ {
		one, l := twoRates(asks, n)
		if n != house && l >= needed && one.Dip > one.Outside {
			one.Reps, one.Learned = reps, true
			best, needed = one, l
		}
	}
	return best
}

// twoRates is the log likelihood of a cycle: one chance of a no in the dip,
// another outside it, each by its share with one added to both counts.
func twoRates(asks [][]bool, cycle int) (Cycle, float64) {
	var no, all [2]int
	for _, answers := range asks {
		for i, refused := range answers {
			in := btoi((i+1)%cycle == cycle-1 || (i+1)%cycle == 0)
			all[in]++
			no[in] += btoi(refused)
		}
	}
	sum := 0.0
	var rate [2]float64
	for in := range rate {
		rate[in] = float64(no[in]+1) / float64(all[in]+2)
		sum += float64(no[in])*math.Log(rate[in]) + float64(all[in]-no[in])*math.Log(1-rate[in])
	}
	return Cycle{Cycle: cycle, Dip: rate[1], Outside: rate[0]}, sum
}
