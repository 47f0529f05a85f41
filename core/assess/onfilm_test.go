package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
)

// A film shows what a horse and a person do, not what is told, felt or counted; each
// finding has a place in which an assessment takes it, whatever the problem.
func TestWhatAFilmMayShow(t *testing.T) {
	c := kept(t)
	for _, p := range (horse.Problem{}).All() {
		var keys []string
		for _, f := range OnFilm(c.Judging, p) {
			keys = append(keys, f.Key)
			doc, faults := Mark{ID: "m", Path: f.Path, Value: "video"}.On(Assessment{}.About(p), c, today)
			require.Empty(t, faults, f.Path)
			found := Findings(c.Judging, Input{Today: today, Assessment: doc, Problem: p})
			assert.Contains(t, found, Found{f.Key, horse.OnVideo}, p)
		}
		assert.Subset(t, keys, []string{"faces_and_pulls", "shakes_sweats", "mouth_reaction_at_contact", "person_gives_up", "pressure_off_leaves", "nips_at_girth"})
		for _, not := range []string{"did_well_in_past", "body_suspect_relevant", "swap_tack_better", "basics_4_missing", "stabled_most_of_day", "past_unknown"} {
			assert.NotContains(t, keys, not)
		}
	}
}

// What rests on a film and weighs most is to be seen in person first; what was seen so
// already, and what bears on nothing likely, is not asked for.
func TestWhatToSeeInPersonFirst(t *testing.T) {
	c := kept(t)
	judged := func(findings map[string]horse.Source) (keys []string) {
		p := horse.Bridling
		doc := Assessment{Findings: findings}.About(p)
		r, err := Judge(c, Case{Today: today, On: today, Assessment: doc})
		require.NoError(t, err)
		for _, e := range r.Problems[0].InPerson {
			keys = append(keys, e.Finding)
		}
		return keys
	}
	assert.Equal(t, []string{"mouth_reaction_at_contact", "strong_noseband_or_bit"}, judged(map[string]horse.Source{
		"mouth_reaction_at_contact": horse.OnVideo, "strong_noseband_or_bit": horse.OnVideo, "nips_at_girth": horse.Seen,
	}))
	assert.Equal(t, []string{"faces_and_pulls", "never_gives", "gives_when_resists"}, judged(map[string]horse.Source{
		"faces_and_pulls": horse.OnVideo, "never_gives": horse.OnVideo, "gives_when_resists": horse.OnVideo, "person_anxious": horse.OnVideo,
	}), "three at a time: the lighter one has to wait")
	assert.Empty(t, judged(map[string]horse.Source{"faces_and_pulls": horse.Seen, "person_gives_up": horse.Told}))
	assert.Empty(t, judged(map[string]horse.Source{"curious": horse.OnVideo}), "bears on nothing that is likely")
}
