package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// The list is fitted to the problem, and asks for nothing that the owner may not do.
func TestTheFilmListIsFitted(t *testing.T) {
	for name, c := range map[string]struct {
		in   Filming
		want []string
	}{
		"loading":                     {Filming{Problems: of("loading"), Ridden: false, Care: horse.OrdinaryCare}, []string{"near", "off", "behind", "problem", "vehicle", "tack"}},
		"rushing, ridden":             {Filming{Problems: of("rushing"), Ridden: true, Care: horse.ExtraCare}, []string{"near", "off", "behind", "gait", "mounting", "contact", "halt", "problem", "tack"}},
		"bridling and rushing":        {Filming{Problems: of("bridling", "rushing", "tracks"), Care: horse.OrdinaryCare}, []string{"near", "off", "behind", "gait", "problem", "bridle", "tack"}},
		"girth":                       {Filming{Problems: of("girth", "saddling"), Care: horse.OrdinaryCare}, []string{"near", "off", "behind", "problem", "girth", "tack"}},
		"nobody gets on, loading":     {Filming{Problems: of("loading"), Ridden: true, Barred: true, Care: horse.OrdinaryCare}, []string{"near", "off", "behind", "problem", "vehicle", "tack"}},
		"no bit":                      {Filming{Problems: of("bridling", "rushing"), Ridden: true, Barred: true, Care: horse.OrdinaryCare}, []string{"near", "off", "behind", "tack"}},
		"nobody can catch it":         {Filming{Problems: of("aggression"), Care: horse.HighCare}, []string{"loose", "outside", "tack"}},
		"specialist only, and ridden": {Filming{Problems: of("bucking"), Ridden: true, Care: horse.SpecialistOnly}, []string{"loose", "outside", "tack"}},
	} {
		var keys []string
		for _, v := range FilmList(c.in) {
			keys = append(keys, v.Key)
			assert.NotEqual(t, v.Says.Key, phrase.English(phrase.Shipped).Say(v.Says), v.Key)
		}
		assert.Equal(t, c.want, keys, name)
	}
}

func of(names ...string) (list []horse.Problem) {
	for _, p := range (horse.Problem{}).All() {
		for _, name := range names {
			if p.String() == name {
				list = append(list, p)
			}
		}
	}
	return list
}
