package progress

import (
	"ivorybridge/core/catalog"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Change is an ask that came to another state.
type Change struct {
	Name    string          `json:"name"`
	Variant phrase.Message  `json:"variant"`
	From    horse.StepState `json:"from"`
	To      horse.StepState `json:"to"`
	Now     phrase.Message  `json:"now" doc:"where it stands now, in words"`
}

// Changes lists the asks that a session brought to another state.
func Changes(c *catalog.Catalog, v history.Visit) []Change {
	was := map[horse.Ask]horse.StepState{}
	for _, k := range v.Before {
		was[k.Ask] = k.State
	}
	list := []Change{}
	for _, k := range v.In(c).After {
		if was[k.Ask] == k.State {
			continue
		}
		step, _ := c.Step(k.Step)
		ch := Change{Name: step.FullName(), From: was[k.Ask], To: k.State}
		if ch.From.IsZero() {
			ch.From = horse.Untried
		}
		ch.Now = phrase.Of("state", phrase.Args{"state": k.State.String()})
		if k.State == horse.StepTolerated && k.Soft {
			ch.Now = phrase.Of("state.good", nil)
		}
		if !k.Variant.IsZero() {
			ch.Variant = phrase.Of("variant", phrase.Args{"words": phrase.Sided(k.Variant.String())})
		}
		list = append(list, ch)
	}
	return list
}
