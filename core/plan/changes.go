package plan

import (
	"cmp"
	"fmt"
	"maps"
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Made is a plan as it was made, with what was chosen.
type Made struct {
	Plan    Plan
	Choices Choices
}

// Changes tells what a plan has otherwise than the one before it.
func Changes(c *catalog.Catalog, before, now Made) []phrase.Message {
	d := differ{cat: c, list: []phrase.Message{}}
	d.choices(before.Choices, now.Choices)
	d.ways(before.Plan, now.Plan)
	d.items(before.Plan, now.Plan)
	d.forecast(before.Plan, now.Plan)
	return d.list
}

type differ struct {
	cat  *catalog.Catalog
	list []phrase.Message
}

func (d *differ) add(key string, args phrase.Args) {
	d.list = append(d.list, phrase.Of("change.plan."+key, args))
}

// turned notes a value that changed.
func (d *differ) turned(key, was, is string, args phrase.Args) {
	if was == is {
		return
	}
	if args == nil {
		args = phrase.Args{}
	}
	args["was"], args["now"] = said(was), said(is)
	d.add(key, args)
}

func said(s string) any {
	if s == "" {
		return phrase.Of("change.plan.none", nil)
	}
	return s
}

func (d *differ) choices(before, now Choices) {
	d.turned("visits", fmt.Sprint(before.Visits()), fmt.Sprint(now.Visits()), nil)
	d.turned("homework", fmt.Sprint(before.Homework), fmt.Sprint(now.Homework), nil)
	if before.By != now.By {
		date := func(s string) any {
			if s == "" {
				return phrase.Of("change.plan.none", nil)
			}
			return phrase.Date(s)
		}
		d.add("by", phrase.Args{"was": date(before.By), "now": date(now.By)})
	}
	for _, choice := range d.cat.Methods.Choices {
		d.turned("setting", before.Setting(choice).Key, now.Setting(choice).Key, phrase.Args{"asks": choice.Asks})
	}
	for _, key := range slices.Sorted(maps.Keys(merged(before.Own, now.Own))) {
		if before.Own[key] == now.Own[key] {
			continue
		}
		is := phrase.Of("change.plan.own.shipped", nil)
		if u, ok := now.Own[key]; ok {
			is = phrase.Of("change.plan.own.version", phrase.Args{"n": u.Version})
		}
		ladder, _ := d.cat.Ladder(key)
		d.add("own", phrase.Args{"ladder": ladder.Name, "now": is})
	}
}

func merged[K comparable, V any](a, b map[K]V) map[K]V {
	all := maps.Clone(a)
	if all == nil {
		all = map[K]V{}
	}
	maps.Copy(all, b)
	return all
}

// ways compares ladders, goals and schools, problem by problem.
func (d *differ) ways(before, now Plan) {
	for _, w := range now.Ways {
		same := func(o Way) bool {
			return o.Ladder == w.Ladder || !w.Problem.IsZero() && o.Problem == w.Problem
		}
		i := slices.IndexFunc(before.Ways, same)
		if i < 0 {
			continue
		}
		was := before.Ways[i]
		if was.Ladder != w.Ladder {
			d.add("ladder", phrase.Args{"problem": w.Problem.String(), "was": was.Name, "now": w.Name})
		} else {
			d.turned("school", was.School.String(), w.School.String(), phrase.Args{"ladder": w.Name})
		}
		if was.Until != w.Until {
			d.add("until", phrase.Args{"problem": w.Problem.String(), "was": d.until(was.Until), "now": d.until(w.Until)})
		}
	}
	if b, n := goalsOf(before), goalsOf(now); !slices.Equal(b, n) && len(b) == len(n) && len(n) > 1 {
		d.add("order", phrase.Args{"now": n})
	}
}

func goalsOf(p Plan) []string {
	var goals []string
	for _, w := range p.Ways {
		if !w.Problem.IsZero() {
			goals = append(goals, w.Problem.String())
		}
	}
	return goals
}

func (d *differ) until(key string) any {
	step, ok := d.cat.Step(key)
	if !ok {
		return phrase.Of("change.plan.whole", nil)
	}
	return step.Name
}

func (d *differ) items(before, now Plan) {
	list := func(key string, names []string) {
		if len(names) > 0 {
			d.add(key, phrase.Args{"steps": names})
		}
	}
	all := func(Item) bool { return true }
	blocked := func(i Item) bool { return i.Blocked != nil }
	free := func(i Item) bool { return i.Blocked == nil }
	gone := less(before, now, all, all)
	kept := []string{}
	dropped := []string{}
	for _, i := range gone {
		if slices.Contains(now.Done, i.Step) {
			kept = append(kept, assess.NameOf(d.cat, i.Step))
		} else {
			dropped = append(dropped, assess.NameOf(d.cat, i.Step))
		}
	}
	list("done", kept)
	list("dropped", dropped)
	list("added", d.names(less(now, before, all, all)))
	list("blocked", d.names(both(now, before, blocked, free)))
	list("lifted", d.names(both(now, before, free, blocked)))
}

// less lists the items of a that are so, with none of the same step in b that
// is so.
func less(a, b Plan, inA, inB func(Item) bool) []Item {
	var list []Item
	for _, i := range a.Items {
		if inA(i) && !slices.ContainsFunc(b.Items, func(j Item) bool { return j.Step == i.Step && inB(j) }) {
			list = append(list, i)
		}
	}
	return list
}

// both lists the items of a that are one way, and the other way in b.
func both(a, b Plan, inA, inB func(Item) bool) []Item {
	var list []Item
	for _, i := range a.Items {
		if inA(i) && slices.ContainsFunc(b.Items, func(j Item) bool { return j.Step == i.Step && inB(j) }) {
			list = append(list, i)
		}
	}
	return list
}

func (d *differ) names(items []Item) []string {
	var list []string
	for _, i := range items {
		list = append(list, assess.NameOf(d.cat, i.Step))
	}
	return list
}

// forecast compares the chances by the date, goal by goal, where one is set.
func (d *differ) forecast(before, now Plan) {
	of := func(p Plan, problem horse.Problem) (GoalForecast, bool) {
		i := slices.IndexFunc(p.Forecast, func(f GoalForecast) bool { return f.Problem == problem && f.Word != "" })
		if i < 0 {
			return GoalForecast{}, false
		}
		return p.Forecast[i], true
	}
	for _, f := range now.Forecast {
		was, before := of(before, f.Problem)
		is, after := of(now, f.Problem)
		if before && after && cmp.Compare(percent(was.Done), percent(is.Done)) != 0 {
			d.add("forecast", phrase.Args{"was": percent(was.Done), "now": percent(is.Done)})
		}
	}
}
