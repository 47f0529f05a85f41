package cases

import (
	"context"

	"ivorybridge/core/catalog"
	"ivorybridge/server/api"
)

// mostHouses is how many catalogues are remembered.
const mostHouses = 32

type houseKey struct {
	practice string
	version  int64
}

// CatalogOf is the catalogue under the house rules of the caller's practice.
func (s *Reader) CatalogOf(ctx context.Context, c api.Caller) (*catalog.Catalog, error) {
	version, err := c.View.HouseVersion(ctx, c.Practice)
	if err != nil || version == 0 {
		return s.Catalog, err
	}
	key := houseKey{c.Practice, version}
	if cat, there := s.houses.Get(key); there {
		return cat, nil
	}
	list, err := c.View.House(ctx, c.Practice)
	if err != nil || len(list) == 0 {
		return s.Catalog, err
	}
	cat := s.Catalog.ByHouse(list[0].Doc, list[0].Version)
	s.houses.Add(key, cat)
	return cat, nil
}

// Pinned is the catalogue under the house rules that a session was begun with. Its cycle is
// the horse's own and stays beside.
func (s *Reader) Pinned(rules catalog.HouseRules) *catalog.Catalog {
	rules = s.Catalog.Filled(rules)
	rules.Cycle = s.Catalog.Rules.Cycle
	if rules == s.Catalog.Rules {
		return s.Catalog
	}
	if cat, there := s.ruled.Get(rules); there {
		return cat
	}
	cat := s.Catalog.ByRules(rules)
	s.ruled.Add(rules, cat)
	return cat
}

// By is the case as it would be by another catalogue; nothing is kept.
func (s *Reader) By(r Reading, cat *catalog.Catalog) (Reading, error) {
	r.by = cat
	file, err := s.Judge(r.Today, r, r.History)
	r.File = file
	return r, err
}
