package yaml

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// The handbook's table of findings, row by row: key, look, what it bears on.
const table = `
began_suddenly | A.began | body ++, fear +
began_after_event | A.began | fear ++, body +
began_after_change | A.began | tack ++, handler +
after_time_off_2_3 | G.days_off | management ++
after_time_off_4_plus | G.days_off | management +++
did_well_in_past | A.history | learned_out +, body +, untaught −−
never_asked_before | A.history | untaught +++
past_unknown | A.history | untaught +
hurried_start | A.history | untaught ++, fear ++
rough_handling_past | A.history | sharpened ++, fear +
put_away_or_rested | A.what_is_done | learned_out +++
person_gives_up | A.what_is_done | learned_out ++
got_free_by_itself | A.what_is_done | learned_out ++
only_with_one_person | A.with_whom | handler ++, learned_out +
leaving_home_or_companions | A.where | attachment +++
attention_home_or_herd | C.horse | attachment ++
same_with_company_and_away | G.place | attachment −−
body_suspect_relevant | B | body +++
body_suspect_elsewhere | B | body +
body_relevant_clear | B | body −−
better_since_treatment | B | body ++
hollow_at_mounting | C.horse | body ++, sharpened +, tack +
mouth_reaction_at_contact | C.horse | tack ++, body ++, untaught +, dulled +
strong_noseband_or_bit | C.tack | tack ++
dry_mouth | C.tack | tack +
nose_poked_head_high | C.horse | untaught +, tack +, body +
tack_checked_good | C.tack | tack −−
old_marks | B | sharpened ++, fear +
rider_came_off_once | A.history | learned_out ++
rider_came_off_more | A.history | learned_out +++
ridden_before_head_taken | A.history | untaught ++
refuses_now_did_earlier | E | learned_out +, body +, untaught −−
bolts_to_end_when_sent | D | sharpened ++, fear +, untaught +
worse_narrow | G.place | fear ++, untaught +
worse_wind_fog_dark | G.place | fear +, management +
running_aid | C.tack | tack +
saddle_or_bit_misfit | C.tack | tack +++, body +
dragged_turns | C.horse | untaught ++
dull_needs_6 | D | dulled ++
explodes_from_1_2 | D | sharpened ++, fear +
answers_light_and_calm | D | dulled −−, sharpened −−
basics_2_missing | D | untaught ++
basics_4_missing | D | untaught +++
all_basics_good | D | untaught −−
one_side_worse | D | untaught +, body +
faces_and_pulls | C.person | handler +++
stops_short_or_gives_ground | C.person | handler +++, learned_out ++
contradicting_aids | C.person | handler ++, sharpened +
swap_person_better | E2 | handler ++
swap_tack_better | E2 | tack +++
never_gives | C.person | handler +++, dulled ++
gives_when_resists | C.person | learned_out +++, handler +
starts_strong | C.person | sharpened ++, handler +
unintended_spur | C.person | handler +++, sharpened +
person_anxious | C.person | handler ++
person_watched_good | C.person | handler −−
horse_moves_person | C.person | learned_out ++, dulled +, untaught +
shakes_sweats | E | fear +++
freezes | E | fear ++, learned_out −
rushes_in_and_out | E | fear ++
stops_and_rests_beside | E | learned_out ++, fear −
pressure_off_leaves | F.pressure_off | fear +++
pressure_off_stays | F.pressure_off | fear −−, learned_out ++
down_within_60 | E.recovery | fear −
down_after_300 | E.recovery | fear ++
curious | F.curiosity | fear −, untaught +
nips_at_girth | C.horse | body ++, sharpened +
kicks_at_first_touch | D | fear ++, untaught +, body +
stallion_or_newly_gelded | B.history | management +++
stabled_most_of_day | G.stable | management ++
worked_and_turned_out | G.stable | management −−
`

func TestEveryRowOfTheFindingsIsTheHandbooks(t *testing.T) {
	j := shippedCatalog(t).Judging
	rows := strings.Split(strings.TrimSpace(table), "\n")
	require.Len(t, j.Findings, len(rows))
	for i, row := range rows {
		cells := strings.Split(row, " | ")
		require.Len(t, cells, 3, row)
		f := j.Findings[i]
		assert.Equal(t, cells[0], f.Key)
		assert.Equal(t, cells[1], f.Look.String(), f.Key)
		assert.Equal(t, cells[2], spell(f.Bears), f.Key)
		assert.Equal(t, f.Key == "stallion_or_newly_gelded", len(f.For) > 0, f.Key)
	}
	stallion, ok := j.Finding("stallion_or_newly_gelded")
	require.True(t, ok)
	assert.Equal(t, "management +++", spell(stallion.On(horse.Crowding)))
	assert.Equal(t, "management +", spell(stallion.On(horse.Loading)))
}

func spell(bears []catalog.Bearing) string {
	var parts []string
	for _, b := range bears {
		parts = append(parts, b.Cause.String()+" "+string(b.Mark))
	}
	return strings.Join(parts, ", ")
}

func TestTheNumbersOfJudging(t *testing.T) {
	j := shippedCatalog(t).Judging
	for _, c := range (horse.Cause{}).All() {
		want := -2.0
		if name := c.String(); name == "body" || name == "untaught" || name == "handler" {
			want = -1.2
		}
		assert.Equal(t, want, j.Bias[c], c)
	}
	assert.Equal(t, map[catalog.Mark]float64{"+": 0.7, "++": 1.4, "+++": 2.6, "−": -0.7, "−−": -1.4}, j.Weights)
	assert.Equal(t, map[horse.Source]float64{horse.Seen: 1, horse.OnVideo: 0.7, horse.Told: 0.5, horse.OnRecord: 1}, j.Sources)
	assert.Equal(t, []float64{0.60, 0.30, 0.15, 0.85}, []float64{j.Likely, j.Possible, j.Open[0], j.Open[1]})
}

func TestWhichBodyItemBearsOnWhichProblem(t *testing.T) {
	j := shippedCatalog(t).Judging
	for item, want := range map[string]string{
		"mouth":      "bridling heavy rushing bucking mounting tension",
		"back":       "saddling mounting bucking rushing planting heavy tension sour tracks",
		"saddle fit": "saddling mounting bucking rushing planting heavy sour tracks",
		"belly":      "girth saddling mounting bucking rushing planting aggression tension",
		"feet legs":  "feet loading rushing planting heavy bucking sour",
		"hind leg":   "feet loading rushing planting heavy bucking mounting",
		"balance":    "feet loading rushing planting heavy bucking tracks",
		"eyes":       "new_thing tracks loading aggression crowding",
		"skin":       "saddling girth bucking new_thing",
		"weight":     "",
	} {
		var key horse.BodyItem
		require.NoError(t, key.UnmarshalText([]byte(item)))
		var got []string
		for _, p := range j.Relevant[key] {
			got = append(got, strings.ReplaceAll(p.String(), " ", "_"))
		}
		assert.Equal(t, want, strings.Join(got, " "), item)
	}
	assert.Equal(t, []horse.BodyItem{horse.FeetLegs, horse.HindLeg, horse.Balance, horse.Eyes}, j.RelevantTo(horse.Loading))
}

func TestFaultyFindingsAreNamed(t *testing.T) {
	good := findings{Findings: []finding{{Key: "a", Says: "a", Look: horse.LookBody, Speaks: "fear ++"}}}
	j, err := good.judging()
	require.NoError(t, err)
	assert.Equal(t, "fear ++", spell(j.Findings[0].Bears))
	for speaks, want := range map[string]string{"fear": "with a mark", "courage ++": "courage", "fear ++,": "with a mark"} {
		_, err := findings{Findings: []finding{{Key: "a", Speaks: speaks}}}.judging()
		assert.ErrorContains(t, err, want)
	}
	_, err = catalog.New("t", catalog.HouseRules{}, j, catalog.Methods{}, nil)
	require.ErrorContains(t, err, "the bias of body is missing")
	assert.ErrorContains(t, err, `the mark "++" has no weight`)
	assert.ErrorContains(t, err, "between 0 and 1")
}
