package horse

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestScaleKeepsNotNotedApartFromNone(t *testing.T) {
	var notNoted Level
	none := LevelOf(0)
	assert.False(t, notNoted.Noted())
	assert.True(t, none.Noted())
	assert.NotEqual(t, notNoted, none)

	out, err := json.Marshal([]Level{notNoted, none, LevelOf(10)})
	require.NoError(t, err)
	assert.JSONEq(t, `[null,0,10]`, string(out))
	var back []Level
	require.NoError(t, json.Unmarshal(out, &back))
	assert.Equal(t, []Level{notNoted, none, LevelOf(10)}, back)
}

func TestScaleRefusesWhatIsOffTheScale(t *testing.T) {
	for _, in := range []string{"11", "-1", "2.5", `"firm"`, "{}"} {
		var l Level
		err := json.Unmarshal([]byte(in), &l)
		require.Error(t, err, in)
		assert.Contains(t, err.Error(), "from 0 to 10", in)
	}
}

func TestWordsRefuseOthersAndNameTheirOwn(t *testing.T) {
	var a Answer
	err := json.Unmarshal([]byte(`"splendid"`), &a)
	require.ErrorContains(t, err, "refused, try, tolerated, accepted, offered")
	require.NoError(t, json.Unmarshal([]byte(`"accepted"`), &a))
	assert.Equal(t, Accepted, a)
	assert.True(t, Soft(Offered) && Soft(Accepted) && !Soft(Tolerated))
}

func TestEveryWordReadsBackAsItself(t *testing.T) {
	for _, w := range (WayOut{}).All() {
		var back WayOut
		require.NoError(t, back.UnmarshalText([]byte(w.String())))
		assert.Equal(t, w, back)
	}
	assert.True(t, Dangerous(Reared) && !Dangerous(KickedAtTool) && Violent(PulledBack))
	assert.True(t, FearSign(ShutDown) && !FearSign(LickAndChew))
}

func TestVariantReadsBackAsItself(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := Variant{
			Zone:      rapid.SampledFrom(append((Zone{}).All(), Zone{})).Draw(t, "zone"),
			Foot:      rapid.SampledFrom(append((Foot{}).All(), Foot{})).Draw(t, "foot"),
			Direction: rapid.SampledFrom(append((Direction{}).All(), Direction{})).Draw(t, "direction"),
			Side:      rapid.SampledFrom(append((Side{}).All(), Side{})).Draw(t, "side"),
			Place:     rapid.SampledFrom([]string{"", "3 m", "the sill"}).Draw(t, "place"),
		}
		back, err := ParseVariant(v.String())
		require.NoError(t, err)
		assert.Equal(t, v, back)
	})
	_, err := ParseVariant("nearish")
	assert.ErrorContains(t, err, "a side (near, off)")
}

func TestStopsBeforeWork(t *testing.T) {
	for word, want := range map[string][2]bool{
		"must be held to be mounted": {true, true}, "ears back at the block, mouth open or a hind leg unweighted": {true, true},
		"heat": {true, false}, "pain": {true, false}, "handler hurt": {false, false}, "exhaustion": {false, false},
	} {
		var s Stop
		require.NoError(t, s.UnmarshalText([]byte(word)))
		assert.Equal(t, want, [2]bool{BeforeWork(s), AtTheBlock(s)}, word)
	}
}
