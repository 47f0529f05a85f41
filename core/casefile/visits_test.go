package casefile

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
)

// handy is a horse whose basics were all felt good at its first visit, its body
// clear, and whose problem was asked once, as far as a step.
func handy(p horse.Problem, reached string) assess.Assessment {
	a := assess.Assessment{
		Basics: map[string]assess.Basic{}, Zones: map[assess.Spot]assess.Touch{}, Body: map[horse.BodyItem]assess.BodyNote{},
		Problems: map[horse.Problem]assess.Account{p: {Baseline: assess.Baseline{Done: true, Reached: reached, Arousal: horse.ArousalOf(1), Anew: true}}},
	}
	seconds, steps := 60.0, 6
	for _, t := range assess.Tests() {
		for _, key := range t.Asks() {
			a.Basics[key] = assess.Basic{Level: horse.LevelOf(1), Grade: horse.Accepted, Seconds: &seconds, Count: &steps, Anew: true}
		}
	}
	for _, zone := range (horse.Zone{}).All() {
		for _, side := range (horse.Side{}).All() {
			for _, with := range (assess.With{}).All() {
				a.Zones[assess.Spot{Zone: zone, Side: side, With: with}] = assess.Touch{Level: horse.LevelOf(1), Grade: horse.Accepted, Anew: true}
			}
		}
	}
	for _, item := range (horse.BodyItem{}).All() {
		a.Body[item] = assess.BodyNote{State: horse.Clear}
	}
	return a
}

// notFelt are the foundations that no look of the assessment shows.
var notFelt = []string{"lead.space", "head.adjust", "quarters.mix", "zones.pole"}

// The horses of the first visits: where the basics are good the plan holds no
// foundation, a handful of visits is enough, and the plan says why.
func TestAHorseThatKnowsMostOfItNeedsAHandfulOfVisits(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	for _, v := range []struct {
		kind, problem, until, reached string
		rides                         int
	}{
		{"bridling, nose to bit", "bridling", "", "", 100},
		{"trailer by a held rope", "loading", "load.stand", "load.front", 100},
		{"trailer by places", "loading", "load.stand", "", 100},
		{"spray", "new thing", "new.all", "", 100},
		{"girth to the second hole", "girth", "girth.hole", "girth.touch", 100},
		{"planting", "planting", "plant.more", "", 100},
		{"hind foot", "feet", "feet.up", "", 100},
		{"first pad", "saddling", "saddle.pad", "", 0},
		{"young horse in bursts", "bucking", "control.walk", "", 5},
		{"tack review and rider swap", "heavy", "soft.halt", "", 100},
		{"poll softening", "tension", "calm.anywhere", "", 100},
		{"body control", "crowding", "crowd.match", "", 100},
	} {
		t.Run(v.kind, func(t *testing.T) {
			var p horse.Problem
			require.NoError(t, p.UnmarshalText([]byte(v.problem)))
			in := Input{
				Today: "2026-06-01", Problem: p, Record: assess.Record{Rides: &v.rides}, Assessments: []assess.Dated{{On: "2026-06-01", Doc: handy(p, v.reached)}},
				History: history.History{}, Choices: plan.Choices{Goals: map[horse.Problem]plan.Wanted{p: {Until: v.until}}},
			}
			f, err := Read(shipped(t), in)
			require.NoError(t, err)
			pl := f.Plan()
			for _, item := range pl.Items {
				step, _ := f.Catalog.Step(item.Step)
				ladder, _ := f.Catalog.Ladder(step.Ladder)
				if ladder.Kind == catalog.Foundation && !item.Met {
					assert.Contains(t, notFelt, item.Step, "a foundation that was felt good")
				}
			}
			require.Len(t, pl.Forecast, 1)
			forecast := pl.Forecast[0]
			assert.LessOrEqual(t, forecast.Median, 12)
			assert.NotZero(t, forecast.Median)
			said := book.Say(forecast.Says)
			assert.True(t, strings.Contains(said, "sessions"), said)
		})
	}
}
