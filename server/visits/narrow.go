package visits

import (
	"context"
	"slices"

	"ivorybridge/server/api"
	"ivorybridge/store"
)

// narrow leaves of the diary what is of one yard, or of one person's horses; the zero
// value leaves all.
type narrow struct {
	name   string
	yard   string // id; visits elsewhere are left out
	horses []string
}

func narrowed(ctx context.Context, c api.Caller, in *diaryInput) (narrow, error) {
	switch {
	case in.Person != "":
		p, err := c.View.Person(ctx, c.Practice, in.Person)
		if err != nil {
			return narrow{}, err
		}
		ids, err := c.View.HorsesOf(ctx, c.Practice, in.Person)
		return narrow{name: p.Name, horses: ids}, err
	case in.Yard != "":
		yards, err := c.View.Yards(ctx, c.Practice)
		if err != nil {
			return narrow{}, err
		}
		i := slices.IndexFunc(yards, func(y store.Yard) bool { return y.ID == in.Yard })
		if i < 0 {
			return narrow{}, store.ErrNotFound
		}
		n := narrow{name: yards[i].Name, yard: in.Yard}
		rows, err := c.View.InWork(ctx, c.Practice, c.Today())
		for _, r := range rows {
			if r.YardID == in.Yard {
				n.horses = append(n.horses, r.ID)
			}
		}
		return n, err
	}
	return narrow{}, nil
}

// has reports whether a horse is left in.
func (n narrow) has(horse string) bool { return n.name == "" || slices.Contains(n.horses, horse) }

func (n narrow) visits(list []store.Visit) []store.Visit {
	return slices.DeleteFunc(slices.Clone(list), func(v store.Visit) bool {
		if n.yard != "" {
			return v.Yard.ID != n.yard
		}
		return !slices.ContainsFunc(v.Horses, func(h store.Named) bool { return n.has(h.ID) })
	})
}

func (n narrow) dues(list []Due) []Due {
	return slices.DeleteFunc(slices.Clone(list), func(d Due) bool { return !n.has(d.Horse) })
}
